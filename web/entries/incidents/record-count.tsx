import { Minus, Plus } from 'lucide-react';
import { useCallback, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { longDate, weekday } from '~/core/calendar/iso-date';
import { blockAt, hoursOf } from '~/core/calendar/timetable';
import type { CountsInput } from '~/core/entries/incidents/incident-input';
import { countSentence } from '~/core/entries/incidents/incident-sentence';
import type { IncidentScreen, OfferedChoice } from '~/core/entries/waiting';
import { database } from '~/server/platform/db/current';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { clock, isRunning, secondsOn, started, stopped, stoppedClock, stopwatch } from '../../measures/clock';
import { useNow } from '../../measures/use-now';
import { idFrom, personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { useScreenNow } from '../../platform/offline/connection';
import { draftStore } from '../../platform/offline/device-store';
import { SaveBar } from '../../platform/offline/save-bar';
import { useWaiting } from '../../platform/offline/waiting';
import { HowThisWorks } from '../../platform/ui/how-this-works';
import { Labelled, LabelledInput, LabelledSelect } from '../../platform/ui/labelled';
import { MarginTitle, Page } from '../../platform/ui/page';
import { useSaveKey } from '../../platform/ui/use-save-key';
import { KeptDraft } from '../kept-draft';
import { useKeptDraft } from '../use-kept-draft';
import type { Route } from './+types/record-count';
import { NothingToChoose } from './record-incident';
import { incidentScreenOf } from './recording';
import { recordCountWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const asker = personOf(context);
  const student = await requireStudent(database(), asker.actor, idFrom(params.studentId), 'observe');
  return {
    incidentScreen: await incidentScreenOf(database(), asker, student),
    mayEditGoals: can(student, 'editGoals'),
  };
});

export const meta: Route.MetaFunction = () => [{ title: recordCountWords.pageTitle }];

/** What is counted of one behavior; null until it is touched. */
const counting = z.object({ id: z.string(), count: z.number().nullable(), clock });
type Counting = z.infer<typeof counting>;

const countDraft = z.object({
  on: z.string(),
  time: z.string(),
  part: z.string().nullable(),
  minutes: z.string(),
  observerId: z.string(),
  besideId: z.string().nullable(),
  counting: z.record(z.string(), counting),
});
type CountDraft = z.infer<typeof countDraft>;

export default function RecordCount({ loaderData: { incidentScreen: loaded, mayEditGoals } }: Route.ComponentProps) {
  const incidentScreen = useScreenNow(loaded);
  const { student, offered } = incidentScreen;
  const behaviors = offered.behavior.filter(({ counted, timed }) => counted || timed);
  if (behaviors.length === 0) return <NothingToChoose student={student} mayEditGoals={mayEditGoals} toCount />;
  return <CountScreen key={student.id} incidentScreen={incidentScreen} behaviors={behaviors} />;
}

/** The part of the day that is on, else the last that was: most counts are written at its end. */
function partNow({ timetable, wall }: IncidentScreen) {
  const today = timetable.filter((block) => block.weekday === weekday(wall.on));
  return blockAt(timetable, wall) ?? today.filter(({ to }) => to <= wall.time).at(-1) ?? null;
}

function emptyCount(incidentScreen: IncidentScreen, behaviors: readonly OfferedChoice[]): CountDraft {
  const block = partNow(incidentScreen);
  const { on, time } = incidentScreen.wall;
  return {
    on,
    time: block ? block.from : time,
    part: block?.part ?? null,
    minutes: block ? String(Math.round(60 * hoursOf(block))) : '',
    observerId: incidentScreen.personId,
    besideId: null,
    counting: Object.fromEntries(behaviors.map(({ id }) => [id, { id: newId(), count: null, clock: stoppedClock }])),
  };
}

const isCountTouched = ({ counting }: CountDraft) => Object.values(counting).some(isCounted);
const isCounted = ({ count, clock }: Counting) => count !== null || clock.before > 0 || isRunning(clock);

/** What is sent: only what was touched. */
function countsFrom(draft: CountDraft, behaviors: readonly OfferedChoice[], now: number): CountsInput {
  const { on, time, part, observerId, besideId } = draft;
  return {
    ...(besideId && { besideId }),
    counts: behaviors.flatMap(({ id: behaviorId, timed }) => {
      const counting = draft.counting[behaviorId];
      if (!counting || !isCounted(counting)) return [];
      const { id, count, clock } = counting;
      const seconds = timed ? Math.round(secondsOn(clock, now)) : null;
      const minutes = Number(draft.minutes.trim().replace(',', '.')) || 0;
      return [{ id, on, time, observerId, behaviorId, part, minutes, count: count ?? 1, seconds, note: '' }];
    }),
  };
}

function CountScreen({ incidentScreen, behaviors }: { incidentScreen: IncidentScreen; behaviors: OfferedChoice[] }) {
  const { student, personId, people, timetable, discreet } = incidentScreen;
  const [draft, setDraft] = useState(() => emptyCount(incidentScreen, behaviors));
  const draftKey = `${personId} ${student.id} count`;
  const bringBack = useCallback(
    (found: CountDraft) => setDraft((empty) => ({ ...found, counting: { ...empty.counting, ...found.counting } })),
    [],
  );
  const kept = useKeptDraft(draftKey, countDraft, draft, isCountTouched, bringBack);
  const change = (changes: Partial<CountDraft>) => setDraft((before) => ({ ...before, ...changes }));
  const count = (id: string, changes: Partial<Counting>) =>
    setDraft((before) => {
      const counting = before.counting[id];
      return counting ? { ...before, counting: { ...before.counting, [id]: { ...counting, ...changes } } } : before;
    });
  const now = useNow(Object.values(draft.counting).some(({ clock }) => isRunning(clock)));
  const input = countsFrom(draft, behaviors, now);
  const nameOf = (id: string) => behaviors.find((behavior) => behavior.id === id)?.name ?? '';
  const said = input.counts.map((count) => countSentence({ ...count, behavior: nameOf(count.behaviorId) }));
  const { save, isBusy, messages } = useSaveCounts(incidentScreen, draftKey, said, () =>
    setDraft(emptyCount(incidentScreen, behaviors)),
  );
  useSaveKey(() => void save(countsFrom(draft, behaviors, Date.now())));
  const today = timetable.filter((block) => draft.on !== '' && block.weekday === weekday(draft.on));
  const messageOf = (field: string) =>
    messages[field] ?? Object.entries(messages).find(([name]) => name.endsWith(`.${field}`))?.[1];
  return (
    <Page
      marginName={recordCountWords.howItWillRead}
      margin={
        <div className="flex flex-col lg:sticky lg:top-6 lg:h-[calc(100dvh-6.5rem)]">
          <MarginTitle>{discreet ? recordCountWords.inShort : recordCountWords.howItWillRead}</MarginTitle>
          <div aria-live="polite" className="grid gap-2">
            {said.length === 0 && <p className="text-ink-2">{recordCountWords.nothingYetNoneOccurredCounts}</p>}
            {said.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
          </div>
          {!discreet && <HowThisWorks of="incident" />}
          <SaveBar
            isBusy={isBusy}
            message={messages.form}
            onSave={() => save(countsFrom(draft, behaviors, Date.now()))}
          />
        </div>
      }
    >
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">
          {recordCountWords.count}
          <span className="text-ink-3">{student.shortName}</span>
        </h1>
        <KeptDraft kept={kept} onStartOver={() => setDraft(emptyCount(incidentScreen, behaviors))} />
      </header>
      <p className="mt-1 text-small text-ink-2">{draft.on && longDate(draft.on)}</p>
      <div className="flex flex-col max-sm:pb-28">
        <div className="mt-2 grid grid-cols-[repeat(auto-fit,minmax(9.5rem,1fr))] gap-3 rounded-box border border-rule bg-wash p-3">
          <Labelled label={recordCountWords.partOfTheDay}>
            <select
              className="select w-full"
              value={draft.part ?? ''}
              onChange={(event) => {
                const block = today.find(({ part }) => part === event.target.value);
                change(
                  block
                    ? { part: block.part, time: block.from, minutes: String(Math.round(60 * hoursOf(block))) }
                    : { part: null },
                );
              }}
            >
              <option value="">{recordCountWords.outsideTheDay}</option>
              {[...new Set(today.map(({ part }) => part))].map((part) => (
                <option key={part}>{part}</option>
              ))}
            </select>
          </Labelled>
          <LabelledInput
            label={recordCountWords.minutesWatched}
            value={draft.minutes}
            message={messageOf('minutes')}
            onChange={(minutes) => change({ minutes })}
          />
          <LabelledInput
            label={recordCountWords.date}
            type="date"
            max={incidentScreen.wall.on}
            value={draft.on}
            message={messageOf('on')}
            onChange={(on) => change({ on })}
          />
          <LabelledInput
            label={recordCountWords.from}
            type="time"
            value={draft.time}
            message={messageOf('time')}
            onChange={(time) => change({ time })}
          />
          <LabelledSelect
            label={recordCountWords.observer}
            value={draft.observerId}
            options={people}
            message={messageOf('observerId')}
            onChange={(id) => change({ observerId: id ?? '' })}
          />
          <LabelledSelect
            label={recordCountWords.secondObserverBeside}
            value={draft.besideId}
            none={recordCountWords.nobody}
            options={people.filter(({ id }) => id !== draft.observerId)}
            message={messageOf('besideId')}
            onChange={(besideId) => change({ besideId })}
          />
        </div>
        <ul className="mt-4 grid gap-3 max-sm:order-first sm:pb-28 lg:pb-6">
          {behaviors.map((behavior) => (
            <CountRow
              key={behavior.id}
              behavior={behavior}
              counting={draft.counting[behavior.id]}
              now={now}
              message={messageOf('seconds')}
              onChange={(changes) => count(behavior.id, changes)}
            />
          ))}
        </ul>
      </div>
    </Page>
  );
}

interface CountRowProps {
  behavior: OfferedChoice;
  counting: Counting | undefined;
  now: number;
  message: string | undefined;
  onChange: (changes: Partial<Counting>) => void;
}

/** One behavior: a tap for each time, “none occurred” for none. */
function CountRow({ behavior, counting, now, message, onChange }: CountRowProps) {
  if (!counting) return null;
  const { count, clock } = counting;
  const runs = isRunning(clock);
  return (
    <li className="flex flex-wrap items-center gap-3 rounded-box border border-rule bg-sheet p-3">
      <h2 className="min-w-40 grow text-lg">{behavior.name}</h2>
      {message && <p className="text-small font-semibold text-clay-deep">{message}</p>}
      <button
        type="button"
        aria-pressed={count === 0}
        onClick={() => onChange({ count: count === 0 ? null : 0 })}
        className="btn btn-xl px-4 text-base aria-pressed:bg-fern-wash"
      >
        {recordCountWords.noneOccurred}
      </button>
      {behavior.timed && (
        <button
          type="button"
          aria-pressed={runs}
          onClick={() =>
            onChange({
              clock: runs ? stopped(clock, Date.now()) : started(clock, Date.now()),
              ...(!runs && { count: (count ?? 0) + 1 }),
            })
          }
          className="btn btn-xl px-4 text-base"
        >
          {runs ? recordCountWords.stop : recordCountWords.timeIt}{' '}
          <span className="tabular-nums">{stopwatch(secondsOn(clock, now))}</span>
        </button>
      )}
      <button
        type="button"
        aria-label={recordCountWords.oneLessOf(behavior.name)}
        disabled={!count}
        onClick={() => onChange({ count: Math.max(0, (count ?? 0) - 1) })}
        className="btn btn-xl btn-square"
      >
        <Minus size={18} aria-hidden />
      </button>
      <output aria-label={recordCountWords.countOf(behavior.name)} className="display w-12 text-center text-3xl">
        {count ?? '–'}
      </output>
      <button
        type="button"
        aria-label={recordCountWords.oneMoreOf(behavior.name)}
        onClick={() => onChange({ count: (count ?? 0) + 1 })}
        className="btn btn-primary btn-xl w-24 max-sm:grow"
      >
        <Plus size={22} aria-hidden />
      </button>
    </li>
  );
}

/** Saves what was counted; without the server it waits on this device. */
function useSaveCounts(incidentScreen: IncidentScreen, draftKey: string, said: string[], onDone: () => void) {
  const { student, personId } = incidentScreen;
  const waiting = useWaiting();
  const navigate = useNavigate();
  const [messages, setMessages] = useState<Record<string, string>>({});
  const [isBusy, setBusy] = useState(false);
  const isSaving = useRef(false);
  const save = async (counts: CountsInput) => {
    const missing = counts.counts.length === 0;
    if (missing) return setMessages({ form: recordCountWords.nothingIsCountedYetCount });
    if (counts.counts.some(({ minutes }) => !(minutes > 0))) {
      return setMessages({
        minutes: recordCountWords.sayHowLongYouWatched,
        form: recordCountWords.oneThingIsMissingHow,
      });
    }
    if (isSaving.current) return;
    isSaving.current = true;
    setBusy(true);
    const { id, shortName } = student;
    const whose = { id: newId(), personId, student: { id, shortName }, savedAt: Date.now(), problem: null };
    const [sent] = await waiting.save([{ kind: 'counts', counts, said, ...whose }], [draftKey]);
    isSaving.current = false;
    setBusy(false);
    if (sent?.is === 'refused') return setMessages(sent.messages);
    setMessages({});
    await draftStore.forget(draftKey).catch(() => {});
    if (sent?.is === 'saved') return navigate(`/students/${student.id}/behavior`);
    onDone();
  };
  return { save, isBusy, messages };
}
