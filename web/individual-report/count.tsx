import { useState } from 'react';
import { data, Link } from 'react-router';
import { z } from 'zod';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import { countCorrection } from '~/core/entries/incidents/incident-input';
import { countSentence } from '~/core/entries/incidents/incident-sentence';
import { withdrawalInput } from '~/core/entries/observation';
import type { IncidentScreen } from '~/core/entries/waiting';
import { discreetChoices } from '~/core/goals/discreet';
import { readable } from '~/core/words/readable';
import { canChangeEntry } from '~/server/entries/corrections';
import { choicesOf } from '~/server/entries/incidents/choices';
import {
  type BehaviorCount,
  correctCount,
  countOf,
  historyOfCount,
  withdrawCount,
} from '~/server/entries/incidents/counts';
import { type Naming, namingOf } from '~/server/entries/incidents/incidents';
import { database } from '~/server/platform/db/current';
import { Conflict, Invalid } from '~/server/platform/failures';
import { requireStudent } from '~/server/students/students';
import type { EntryVersion } from '../entries/change-messages';
import { Correction } from '../entries/correction';
import { EntryEvidence } from '../entries/evidence/entry-evidence-section';
import { messagesIn } from '../entries/incidents/recorded';
import { incidentScreenOf } from '../entries/incidents/recording';
import { HowItCameAbout, RecordChanges, WithdrawnNotice } from '../entries/record-changes';
import { sayNext } from '../platform/http/cookies';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { LabelledInput, LabelledSelect } from '../platform/ui/labelled';
import { Page } from '../platform/ui/page';
import { saveOrStay } from '../platform/ui/use-saving';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/count';
import { countWords } from './words';

function versionOf(count: BehaviorCount, { choices }: Naming, timeZone: string, discreet: boolean): EntryVersion {
  const { on, time } = wallTime(count.changedAt ?? count.recordedAt, timeZone);
  return {
    version: count.version,
    about: [longDate(count.on), count.time, count.observerName].join(' · '),
    sentence: countSentence({ ...count, behavior: choices.get(count.behaviorId)?.name ?? '?' }),
    note: discreet ? '' : count.note,
    tones: [],
    written: `${count.changedByName ?? count.recordedByName}, ${shortDate(on)} ${time}`,
    why: discreet ? null : count.changeReason,
    isWithdrawn: count.isWithdrawn,
  };
}

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const asker = personOf(context);
  const { actor, school, now, discreet } = asker;
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'see');
  const count = await countOf(database(), studentId, idFrom(params.countId));
  const [stored, history] = await Promise.all([
    choicesOf(database(), student.id),
    historyOfCount(database(), count.id),
  ]);
  const naming = namingOf(discreet ? discreetChoices(stored) : stored);
  // With its note hidden it cannot be corrected without losing the note.
  const mayChange = !count.isWithdrawn && !discreet && canChangeEntry(student, actor, count, now);
  const screen = mayChange ? await incidentScreenOf(database(), asker, student, [count.behaviorId]) : null;
  return {
    student: headerStudent(student, { discreet }),
    count: discreet ? { ...count, note: '' } : count,
    title: naming.choices.get(count.behaviorId)?.name ?? '?',
    versions: [...history, count].map((version) => versionOf(version, naming, school.timeZone, discreet)),
    // With its note hidden it cannot be corrected without losing the note.
    offered: screen && offeredFor(count, screen),
    mayChange: !count.isWithdrawn && !discreet && canChangeEntry(student, actor, count, now),
  };
});

/** What a count can be corrected to: with its own part of the day and observer, who may have left. */
function offeredFor({ part, observerId, observerName }: BehaviorCount, { offered, people, timetable }: IncidentScreen) {
  const parts = new Set(timetable.map((block) => block.part));
  if (part) parts.add(part);
  const isThere = people.some(({ id }) => id === observerId);
  return {
    behaviors: offered.behavior,
    people: isThere ? people : [...people, { id: observerId, name: observerName }],
    parts: [...parts].map((name) => ({ id: name, name })),
  };
}

const change = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('correct') }).loose(),
  z.object({ intent: z.literal('withdraw') }).loose(),
]);

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, wall, now, discreet } = personOf(context);
  const ids = { studentId: idFrom(params.studentId), tallyId: idFrom(params.countId) };
  const access = (await requireStudent(database(), actor, ids.studentId, 'see')).id;
  const asked = change.safeParse(await jsonOf(request));
  if (!asked.success) return refusedWith({ form: countWords.thisCannotBeRead });
  try {
    if (asked.data.intent === 'correct') {
      const parsed = readable(countCorrection).safeParse(asked.data);
      if (!parsed.success) return refusedWith(messagesIn(parsed.error));
      await correctCount(database(), actor, ids, parsed.data, { wall, now, timeZone: school.timeZone });
      return data({ saved: 1 }, { headers: await sayNext({ text: countWords.correctedWhatItSaidBefore }) });
    }
    const parsed = readable(withdrawalInput).safeParse(asked.data);
    if (!parsed.success) return refusedWith(messagesIn(parsed.error));
    await withdrawCount(database(), actor, ids, parsed.data, now);
    return data({ saved: 1 }, { headers: await sayNext({ text: countWords.withdrawnItCountsNowhereAny }) });
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    if (error instanceof Conflict) {
      const stored = await choicesOf(database(), access);
      const naming = namingOf(discreet ? discreetChoices(stored) : stored);
      return data(
        { conflict: versionOf(error.current as BehaviorCount, naming, school.timeZone, discreet) },
        { status: 409 },
      );
    }
    throw error;
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: countWords.pageTitle }];

export default function CountPage({ loaderData: { student, count, title, versions, offered } }: Route.ComponentProps) {
  const now = defined(versions.at(-1));
  const path = `/students/${student.id}/counts/${count.id}`;
  return (
    <Page marginName={countWords.history} margin={<HowItCameAbout versions={versions} />}>
      <p className="text-small">
        <Link to={`/students/${student.id}/behavior?behavior=${count.behaviorId}`} className="text-ink-2 link">
          {student.shortName} · {student.isDiscreet ? countWords.notes : countWords.behavior}
        </Link>
      </p>
      <h1 className="mt-1 text-2xl">{title}</h1>
      <p className="mt-1 text-ink-2">{now.about}</p>
      <WithdrawnNotice now={now} />
      <p
        className={`mt-5 max-w-2xl border-l-2 pl-4 ${now.isWithdrawn ? 'border-rule text-ink-3 line-through' : 'border-clay'}`}
      >
        {now.sentence}
      </p>
      {!student.isDiscreet && (
        <EntryEvidence
          studentId={student.id}
          entryId={count.id}
          mayAdd={student.mayObserve && !versions.at(-1)?.isWithdrawn}
        />
      )}
      {offered && (
        <RecordChanges
          action={path}
          version={count.version}
          correcting={(close) => <CorrectCount action={path} count={count} offered={offered} onDone={close} />}
        />
      )}
    </Page>
  );
}

interface CorrectCountProps {
  action: string;
  count: BehaviorCount;
  offered: ReturnType<typeof offeredFor>;
  onDone: () => void;
}

function CorrectCount({ action, count, offered, onDone }: CorrectCountProps) {
  const { behaviorId, part, observerId, on, time, seconds, note } = count;
  const [fields, setFields] = useState({
    ...{ behaviorId, part, observerId, on, time, note },
    ...{ count: String(count.count), minutes: String(count.minutes) },
  });
  const change = (changes: Partial<typeof fields>) => setFields((before) => ({ ...before, ...changes }));
  const numberIn = (text: string) => (text.trim() === '' ? null : Number(text.trim().replace(',', '.')));
  const content = () => ({
    ...{ ...fields, seconds },
    ...{ count: numberIn(fields.count), minutes: numberIn(fields.minutes) },
  });
  const inputs = [
    { name: 'on', label: countWords.date, type: 'date' },
    { name: 'time', label: countWords.from, type: 'time' },
    { name: 'count', label: countWords.howOften, type: 'text' },
    { name: 'minutes', label: countWords.minutesWatched, type: 'text' },
  ] as const;
  return (
    <Correction what="count" action={action} version={count.version} content={content} onDone={onDone}>
      {(messages) => (
        <div className="grid gap-3">
          <div className="grid gap-3 sm:grid-cols-3">
            <LabelledSelect
              label={countWords.behavior}
              value={fields.behaviorId}
              options={offered.behaviors}
              message={messages.behaviorId}
              onChange={(id) => change({ behaviorId: id ?? behaviorId })}
            />
            <LabelledSelect
              label={countWords.part}
              value={fields.part}
              none={countWords.noPart}
              options={offered.parts}
              message={messages.part}
              onChange={(id) => change({ part: id })}
            />
            <LabelledSelect
              label={countWords.observer}
              value={fields.observerId}
              options={offered.people}
              message={messages.observerId}
              onChange={(id) => change({ observerId: id ?? observerId })}
            />
          </div>
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
            {inputs.map(({ name, ...input }) => (
              <LabelledInput
                key={name}
                {...input}
                value={fields[name]}
                message={messages[name] ?? (name === 'minutes' ? messages.seconds : undefined)}
                onChange={(value) => change({ [name]: value })}
              />
            ))}
          </div>
          <LabelledInput
            label={countWords.note}
            value={fields.note}
            message={messages.note}
            onChange={(value) => change({ note: value })}
          />
        </div>
      )}
    </Correction>
  );
}
