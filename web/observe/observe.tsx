import { useCallback, useEffect, useReducer, useRef, useState } from 'react';
import { data, type ShouldRevalidateFunction, useNavigate } from 'react-router';
import { v4 as newId } from 'uuid';
import { discreetGoal, discreetStudent } from '~/core/discreet/discreet';
import { entryField, sessionInput } from '~/core/observations/observation';
import { counted } from '~/core/words/counting';
import { database } from '~/server/db/current';
import { Invalid } from '~/server/failures';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { progressOfGoals } from '~/server/goals/progress';
import { recordSession } from '~/server/observations/record';
import { settings } from '~/server/school/school';
import { studentFor, supportTeam } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { sayNext } from '../http/cookies';
import { MarginTitle, Page } from '../ui/page';
import { type SaveAnswer, saveOrStay, useRetry, useSaving } from '../ui/use-saving';
import type { Route } from './+types/observe';
import { draftReducer, inputFrom, isMarked, type SessionDraft, type SessionFields, untouched } from './draft';
import { draftStore } from './draft-store';
import { fieldMessages } from './field-messages';
import { GoalCard, type ObservedGoal } from './goal-card';
import { BesideLastFive, HowItReads } from './how-it-reads';
import { SessionLine } from './session-line';
import { useKeptDraft } from './use-kept-draft';
import { useObservingKeys } from './use-observing-keys';

export const loader = answering(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, person, school, wall, discreet } = askerOf(context);
  const studentId = idFrom(params.studentId);
  const [student, all, team, places] = await Promise.all([
    studentFor(database(), actor, studentId, 'observe'),
    goalsOf(database(), [studentId]),
    supportTeam(database(), studentId, actor.today),
    settings(database()),
  ]);
  const progress = await progressOfGoals(database(), all, { school, today: actor.today });
  const first = new URL(request.url).searchParams.get('goal');
  const goals = (discreet ? goalsWorkedOn(all).map(discreetGoal) : goalsWorkedOn(all))
    .map((goal): ObservedGoal => {
      const { id, number, shortName, wording, measure, criterion, version } = goal;
      const last =
        progress
          .get(id)
          ?.points.slice(-5)
          .map((point) => point.value) ?? [];
      return {
        id,
        number,
        shortName,
        wording,
        measure,
        criterion,
        version,
        last,
        soFar: progress.get(id)?.now ?? null,
      };
    })
    .sort((a, b) => Number(b.id === first) - Number(a.id === first));
  const { id, shortName, firstName } = discreet ? discreetStudent(student) : student;
  return {
    student: { id, shortName, firstName },
    goals,
    choices: {
      people: team.map((member) => ({ id: member.id, name: member.shortName })),
      places,
      today: actor.today,
    },
    personId: person.id,
    wall,
  };
});

export const action = answering(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, wall, now, discreet } = askerOf(context);
  const studentId = idFrom(params.studentId);
  const body: unknown = await request.json().catch(() => null);
  const parsed = sessionInput.safeParse(body);
  if (!parsed.success) return data({ messages: fieldMessages(parsed.error, body) }, { status: 400 });
  try {
    const { ids, student } = await recordSession(database(), actor, studentId, parsed.data, { wall, now });
    const text = `Saved for ${discreet ? student.initials : student.firstName}: ${counted(ids.length, 'goal', 'goals')}.`;
    const link = { to: `/students/${studentId}/entries/${ids[0]}`, label: 'See it' };
    const headers = await sayNext(ids.length === 1 ? { text, link } : { text });
    return data({ savedTo: `/students/${studentId}` }, { headers });
  } catch (error) {
    if (error instanceof Invalid) return data({ messages: error.fields }, { status: 400 });
    throw error;
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

/** After a save this page is left: there is no need to read it again first. */
export const shouldRevalidate: ShouldRevalidateFunction = ({ formAction, defaultShouldRevalidate }) =>
  formAction?.endsWith('/observe') ? false : defaultShouldRevalidate;

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Observing ${loaderData?.student.shortName ?? ''} · Gentle Margin` },
];

export default function Observe({ loaderData }: Route.ComponentProps) {
  // Another student is another session: nothing of the last one may stay.
  return <Session key={loaderData.student.id} {...loaderData} />;
}

type SessionProps = Route.ComponentProps['loaderData'];

function emptyDraft({ goals, wall, personId }: SessionProps): SessionDraft {
  return {
    session: { on: wall.on, time: wall.time, observerId: personId, settingId: null },
    timeIsChosen: false,
    goals: Object.fromEntries(goals.map((goal) => [goal.id, untouched(newId())])),
    openedAt: Date.now(),
    activeGoal: goals[0]?.id ?? '',
    selected: null,
  };
}

/** The school's wall clock, moved on by the time this page has been open. */
function useWallClock(wall: Pick<SessionFields, 'on' | 'time'>) {
  const opened = useRef(0);
  useEffect(() => {
    opened.current = performance.now();
  }, []);
  return () => {
    const start = Date.parse(`${wall.on}T${wall.time}:00Z`);
    const text = new Date(start + performance.now() - opened.current).toISOString();
    return { on: text.slice(0, 10), time: text.slice(11, 16) };
  };
}

function Session(props: SessionProps) {
  const { student, goals, choices, personId, wall } = props;
  const [draft, change] = useReducer(draftReducer, props, emptyDraft);
  const timeNow = useWallClock(wall);
  const draftKey = `${personId} ${student.id}`;
  const fresh = useRef(props);
  const bringBack = useCallback((found: SessionDraft) => {
    // Goals may have come or gone since: only those that are there now are kept.
    const empty = emptyDraft(fresh.current);
    const goals = Object.fromEntries(
      Object.entries(empty.goals).map(([id, goal]) => [id, { ...goal, ...found.goals[id] }]),
    );
    const activeGoal = found.activeGoal in goals ? found.activeGoal : empty.activeGoal;
    change({ type: 'replace', draft: { ...found, goals, activeGoal, selected: null } });
  }, []);
  const kept = useKeptDraft(draftKey, draft, bringBack);
  const saving = useSaving<SaveAnswer>(`/students/${student.id}/observe`);
  const [local, setLocal] = useState<Record<string, string>>({});

  const save = useCallback(() => {
    const loose = goals.filter(({ id }) => draft.goals[id]?.note.trim() && !isMarked(draft.goals[id]));
    const words = 'There is a word about this goal but nothing is marked. Mark a chance, or say why there is no score.';
    const messages = Object.fromEntries(loose.map(({ id }) => [entryField(id), words]));
    const measures = new Map(goals.map((goal) => [goal.id, goal]));
    const input = inputFrom(draft, measures, Date.now());
    if (loose.length === 0 && input.entries.length === 0) {
      messages.form = 'Nothing is marked yet. Mark at least one goal, or say why there is no score.';
    }
    setLocal(messages);
    if (Object.keys(messages).length === 0) saving.save(input);
  }, [draft, goals, saving.save]);
  useRetry(saving, save);
  const navigate = useNavigate();
  const savedTo = saving.answer && 'savedTo' in saving.answer ? saving.answer.savedTo : null;
  useEffect(() => {
    if (savedTo) draftStore.forget(draftKey).finally(() => navigate(savedTo));
  }, [savedTo, draftKey, navigate]);

  const messages = { ...(saving.answer && 'messages' in saving.answer ? saving.answer.messages : {}), ...local };
  const active = goals.find(({ id }) => id === draft.activeGoal) ?? goals[0];
  useObservingKeys({ goals, draft, change, save });

  return (
    <Page
      marginName="How it will read"
      margin={
        <div className="flex flex-col lg:sticky lg:top-6 lg:h-[calc(100dvh-6.5rem)]">
          <MarginTitle about={`in ${student.firstName}’s report`}>How it will read</MarginTitle>
          <HowItReads goals={goals} draft={draft} choices={choices} />
          {active && <BesideLastFive goal={active} draft={draft} />}
          <SaveBar isBusy={saving.isBusy} isUnreachable={saving.isUnreachable} message={messages.form} onSave={save} />
        </div>
      }
    >
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-2xl">Observing {student.shortName}</h1>
        <p role="status" className="text-small text-ink-2 sm:ml-auto">
          {kept === 'kept' && 'Kept on this device ✓'}
          {kept === 'broughtBack' && (
            <>
              Picked up where you left off ✓{' '}
              <button
                type="button"
                className="py-2 underline underline-offset-2"
                onClick={() => change({ type: 'replace', draft: emptyDraft(props) })}
              >
                start over
              </button>
            </>
          )}
        </p>
      </header>
      <SessionLine
        session={draft.session}
        choices={choices}
        messages={messages}
        onChange={(fields) => change({ type: 'session', fields })}
      />
      <div className="mt-1 grid gap-3.5 pb-28 lg:pb-8">
        {goals.map((goal) => {
          const goalDraft = draft.goals[goal.id];
          if (!goalDraft) return null;
          const isActive = goal.id === active?.id;
          return (
            <GoalCard
              key={goal.id}
              goal={goal}
              draft={goalDraft}
              isActive={isActive}
              selected={isActive ? draft.selected : null}
              openedAt={draft.openedAt}
              message={messages[entryField(goal.id)]}
              onChange={change}
              timeNow={timeNow}
            />
          );
        })}
        {goals.length === 0 && <p className="py-8 text-ink-2">There is no goal to observe yet.</p>}
      </div>
    </Page>
  );
}

interface SaveBarProps {
  isBusy: boolean;
  isUnreachable: boolean;
  message: string | undefined;
  onSave: () => void;
}

/** Where the thumb is on a phone, at the foot of the margin elsewhere. */
function SaveBar({ isBusy, isUnreachable, message, onSave }: SaveBarProps) {
  return (
    <div className="z-20 mt-auto pt-4 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:border-t max-lg:border-rule max-lg:bg-sheet max-lg:p-3">
      {isUnreachable && (
        <p role="status" className="mb-2 text-small font-semibold text-clay-deep">
          The server cannot be reached. Nothing is lost: it is kept on this device and sent again by itself.
        </p>
      )}
      {message && (
        <p role="alert" className="mb-2 text-small font-semibold text-clay-deep">
          {message}
        </p>
      )}
      <button type="button" onClick={onSave} disabled={isBusy} className="btn btn-primary h-12.5 w-full text-base">
        {isBusy ? 'Saving …' : 'Save'} <kbd className="keycap">↵</kbd>
      </button>
    </div>
  );
}
