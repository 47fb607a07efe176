import { memo, useCallback, useMemo, useReducer, useRef, useState } from 'react';
import { v4 as newId } from 'uuid';
import { entryField } from '~/core/entries/observation';
import type { ObservedGoal, SessionChoices } from '~/core/entries/waiting';
import { measureOf } from '~/core/measures/measure';
import { useWallNow } from '../platform/offline/connection';
import { SaveBar } from '../platform/offline/save-bar';
import { HowThisWorks } from '../platform/ui/how-this-works';
import { MarginTitle, Page } from '../platform/ui/page';
import { useDrawnAfter } from '../platform/ui/use-drawn-after';
import { useKey } from '../platform/ui/use-key';
import {
  draftReducer,
  isMarked,
  isTouched,
  momentOf,
  type SessionDraft,
  type SessionFields,
  sessionDraft,
  untouched,
} from './draft';
import { usePhotographs } from './evidence/use-photographs';
import { RoundNote } from './forms/round-note';
import type { NoteForm } from './forms/use-note';
import { GoalCard } from './goal-card';
import { BesideLastFive, HowItReads } from './how-it-reads';
import { KeptDraft } from './kept-draft';
import type { ObservedStudent, Observing } from './load';
import { SessionLine } from './session-line';
import { useKeptDraft } from './use-kept-draft';
import { useObservingKeys } from './use-observing-keys';
import { useSaveSession } from './use-save-session';
import { useWallClock } from './use-wall-clock';
import { observingPageWords } from './words';

interface ObservingProps extends Observing {
  title: string;
  /** Under which what is marked is kept on the device. */
  draftKey: string;
  /** Where to go when everything is saved. */
  doneTo: string;
  /** Forms that are filled in for each student, besides their goals. */
  forms?: readonly NoteForm[];
}

function emptyDraft({ students, wall, personId, locationId }: ObservingProps): SessionDraft {
  const goals = students.flatMap((student) => student.goals);
  return {
    session: { on: wall.on, time: wall.time, observerId: personId, locationId: locationId },
    timeIsChosen: false,
    goals: Object.fromEntries(goals.map((goal) => [goal.id, untouched(newId())])),
    openedAt: Date.now(),
    activeGoal: goals[0]?.id ?? '',
    selected: null,
  };
}

/** One student, or several in one go: passed from one to the next, or side by side. */
export function ObservingPage(loaded: ObservingProps) {
  const wall = useWallNow(loaded.wall);
  // On a page that was kept yesterday, today is another day.
  const choices = useMemo(() => ({ ...loaded.choices, today: wall.on }), [loaded.choices, wall.on]);
  const props = { ...loaded, wall, choices };
  const { students, title, draftKey, forms = [] } = props;
  const goals = students.flatMap((student) => student.goals);
  const [draft, change] = useReducer(draftReducer, props, emptyDraft);
  const [isBeside, setBeside] = useState(false);
  const timeNow = useWallClock(wall);
  const fresh = useRef(props);
  const bringBack = useCallback((found: SessionDraft) => {
    // Goals may have come or gone since, or be measured otherwise: only what fits those that are there now is kept.
    const empty = emptyDraft(fresh.current);
    const goals = Object.fromEntries(
      Object.entries(empty.goals).map(([id, goal]) => {
        const kept = found.goals[id];
        const measure = fresh.current.students
          .flatMap((student) => student.goals)
          .find((one) => one.id === id)?.measure;
        const fits = kept?.data == null || (measure && measureOf(measure).holds(kept.data));
        return [id, kept && fits ? kept : goal];
      }),
    );
    const activeGoal = found.activeGoal in goals ? found.activeGoal : empty.activeGoal;
    change({ type: 'replace', draft: { ...found, goals, activeGoal, selected: null } });
  }, []);
  const kept = useKeptDraft(draftKey, sessionDraft, draft, isTouched, bringBack);
  const taken = usePhotographs(draftKey);
  const { save: saveAnd, isBusy, messages } = useSaveSession(props, draft, change, taken);
  const save = () => saveAnd({ another: false });
  const startOver = () => {
    taken.forget(Object.keys(draft.goals));
    change({ type: 'replace', draft: emptyDraft(props) });
  };

  const { on, time } =
    students.length === 1
      ? momentOf(
          draft,
          goals.map(({ id }) => id),
        )
      : draft.session;
  const session = useMemo(() => ({ ...draft.session, on, time }), [draft.session, on, time]);
  const changeSession = useCallback((fields: Partial<SessionFields>) => change({ type: 'session', fields }), []);
  const active = goals.find(({ id }) => id === draft.activeGoal) ?? goals[0];
  const here = students.find(({ id }) => id === active?.studentId) ?? students[0];
  const shown = isBeside ? students : students.filter((student) => student === here);
  const goTo = (student: ObservedStudent | undefined) => {
    const goal = student?.goals[0];
    if (goal) change({ type: 'activate', goalId: goal.id });
    if (!isBeside) document.getElementById('page')?.scrollIntoView();
  };
  const step = (by: number) =>
    here && goTo(students[(students.indexOf(here) + by + students.length) % students.length]);
  useKey(['[', ']'], (event) => students.length > 1 && step(event.key === ']' ? 1 : -1));
  useObservingKeys({ goals: isBeside ? goals : (here?.goals ?? []), draft, change, save });

  return (
    <Page
      marginName={observingPageWords.howItWillRead}
      margin={
        <div className="flex flex-col lg:sticky lg:top-6 lg:h-[calc(100dvh-6.5rem)]">
          {here && (
            <MarginTitle about={observingPageWords.inSReport(here.firstName)}>
              {observingPageWords.howItWillRead}
            </MarginTitle>
          )}
          <Reading goals={here?.goals ?? NO_GOALS} active={active} draft={draft} choices={choices} />
          <HowThisWorks of="observing" />
          <SaveBar
            isBusy={isBusy}
            message={messages.form}
            onSave={save}
            onSaveAndAnother={() => saveAnd({ another: true })}
          />
        </div>
      }
    >
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-2xl">{title}</h1>
        <KeptDraft kept={kept === 'none' ? taken.kept : kept} onStartOver={startOver} />
      </header>
      <Line session={session} choices={choices} messages={messages} onChange={changeSession} />
      {students.length > 1 && (
        <StudentSwitch
          students={students}
          draft={draft}
          here={here}
          isBeside={isBeside}
          onChoose={goTo}
          onBeside={setBeside}
        />
      )}
      <div className={`mt-1 pb-28 lg:pb-8 ${isBeside ? besideColumns : ''}`}>
        {shown.map((student) => (
          <section key={student.id} aria-label={students.length > 1 ? student.shortName : undefined}>
            {isBeside && <h2 className="mb-2 text-lg">{student.shortName}</h2>}
            <div className="grid gap-3.5">
              {student.goals.map((goal) => {
                const goalDraft = draft.goals[goal.id];
                const isActive = goal.id === active?.id;
                return goalDraft ? (
                  <Card
                    key={goal.id}
                    goal={goal}
                    draft={goalDraft}
                    isActive={isActive}
                    selected={isActive ? draft.selected : null}
                    openedAt={draft.openedAt}
                    message={messages[entryField(goal.id)]}
                    onChange={change}
                    timeNow={timeNow}
                    taken={taken}
                    discreet={props.discreet}
                  />
                ) : null;
              })}
            </div>
            {student.goals.length === 0 && <p className="py-8 text-ink-2">{observingPageWords.thereIsNoGoalTo}</p>}
            {forms.map((form) => (
              <RoundNote
                key={form.id}
                form={form}
                screen={{ student, wall, personId: props.personId, people: choices.people }}
              />
            ))}
          </section>
        ))}
        {students.length > 1 && !isBeside && here && students.at(-1) !== here && (
          <button type="button" className="btn mt-4" onClick={() => step(1)}>
            {observingPageWords.onTo}
            {students[students.indexOf(here) + 1]?.shortName} <kbd className="keycap">]</kbd>
          </button>
        )}
      </div>
    </Page>
  );
}

const besideColumns = 'grid items-start gap-4 md:grid-cols-2 2xl:grid-cols-4';

/** Only the goal that is tapped is drawn anew. */
const Card = memo(GoalCard);
const Line = memo(SessionLine);
const InWords = memo(HowItReads);
const LastFiveBeside = memo(BesideLastFive);

const NO_GOALS: readonly ObservedGoal[] = [];

interface ReadingProps {
  goals: readonly ObservedGoal[];
  active: ObservedGoal | undefined;
  draft: SessionDraft;
  choices: SessionChoices;
}

/** How it will read follows right after the mark: a tap does not wait for its sentence. */
function Reading({ goals, active, draft, choices }: ReadingProps) {
  const drawn = useDrawnAfter(draft);
  return (
    <>
      <InWords goals={goals} draft={drawn} choices={choices} />
      {active && <LastFiveBeside goal={active} draft={drawn} />}
    </>
  );
}

interface StudentSwitchProps {
  students: ObservedStudent[];
  draft: SessionDraft;
  here: ObservedStudent | undefined;
  isBeside: boolean;
  onChoose: (student: ObservedStudent) => void;
  onBeside: (isBeside: boolean) => void;
}

/** Who is in the round, how much is marked of each, and who is before one now. */
function StudentSwitch({ students, draft, here, isBeside, onChoose, onBeside }: StudentSwitchProps) {
  const markedOf = ({ goals }: ObservedStudent) =>
    goals.filter(({ id }) => draft.goals[id] && isMarked(draft.goals[id])).length;
  return (
    <div className="sticky top-0 z-10 -mx-2 mb-2 flex flex-wrap items-center gap-2 bg-paper px-2 py-2">
      <ol className="flex flex-wrap gap-2">
        {students.map((student) => {
          const marked = markedOf(student);
          const isHere = student === here;
          return (
            <li key={student.id}>
              <button
                type="button"
                aria-current={isHere ? 'true' : undefined}
                onClick={() => onChoose(student)}
                className={`tap flex items-center gap-2 rounded-field border px-3 ${isHere ? 'border-ink bg-sheet font-semibold' : 'border-rule text-ink-2'}`}
              >
                {student.shortName}
                {marked > 0 && <span className="text-small text-fern">{observingPageWords.marked(marked)}</span>}
              </button>
            </li>
          );
        })}
      </ol>
      {students.length <= 4 && (
        <button
          type="button"
          aria-pressed={isBeside}
          onClick={() => onBeside(!isBeside)}
          className="btn btn-sm ml-auto max-md:hidden"
        >
          {observingPageWords.sideBySide}
        </button>
      )}
    </div>
  );
}
