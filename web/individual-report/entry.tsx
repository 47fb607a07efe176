import { data, Link } from 'react-router';
import { z } from 'zod';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import { noteWithFidelity } from '~/core/entries/fidelity';
import { correctionInput, withdrawalInput } from '~/core/entries/observation';
import { discreetGoal } from '~/core/goals/discreet';
import { supportStepsOn } from '~/core/goals/goal';
import { outcomeSentence } from '~/core/individual-report/report';
import { type MeasureDefinition, measureOf } from '~/core/measures/measure';
import { noteWithDataWords, withoutDataWords } from '~/core/measures/words-in-data';
import { percent } from '~/core/words/counting';
import { readable } from '~/core/words/readable';
import { correctObservation, withdrawObservation } from '~/server/entries/change';
import { canChangeEntry } from '~/server/entries/corrections';
import { markPair, pairable, partnerOf, unmarkPair } from '~/server/entries/pairs';
import { type Observation, observationOf, observationRevisions } from '~/server/entries/read';
import { type Goal, goalOf, measureAt } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { Conflict, Invalid } from '~/server/platform/failures';
import { ruledEntry } from '~/server/rules/ruled-entry';
import { locationsOf } from '~/server/school/school';
import { can } from '~/server/students/rights';
import { requireStudent, supportTeam } from '~/server/students/students';
import type { EntryVersion } from '../entries/change-messages';
import { CorrectionForm } from '../entries/correction-form';
import { EntryEvidence } from '../entries/evidence/entry-evidence-section';
import { fieldMessages } from '../entries/field-messages';
import { HowItCameAbout, RecordChanges, WithdrawnNotice } from '../entries/record-changes';
import { sayNext } from '../platform/http/cookies';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { tonesOf } from '../platform/ui/outcome-tones';
import { Page } from '../platform/ui/page';
import { TrialMarks } from '../platform/ui/trial-marks';
import { saveOrStay } from '../platform/ui/use-saving';
import { EntryRules } from '../rules/entry-rules';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/entry';
import { SecondObserver } from './second-observer';
import { entryWords } from './words';

/** What an entry says, or said, as its page shows it. */
function versionOf(entry: Observation, goal: Goal, timeZone: string, discreet: boolean): EntryVersion {
  const measure = measureAt(goal, entry.goalVersion);
  const { on, time } = wallTime(entry.changedAt ?? entry.recordedAt, timeZone);
  return {
    version: entry.version,
    about: [longDate(entry.on), entry.time, entry.locationName, entry.observerName].filter(Boolean).join(' · '),
    sentence: outcomeSentence(measure, entry.outcome),
    note: discreet ? '' : noteWithFidelity(noteWithDataWords(entry.note, entry.outcome.data), entry.fidelity),
    tones: tonesOf(measure, entry.outcome),
    written: `${entry.changedByName ?? entry.recordedByName}, ${shortDate(on)} ${time}`,
    why: discreet ? null : entry.changeReason,
    isWithdrawn: entry.isWithdrawn,
  };
}

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'see');
  const entry = await observationOf(database(), student.id, idFrom(params.entryId));
  const [stored, history, team, locations, partner, candidates] = await Promise.all([
    goalOf(database(), student.id, entry.goalId),
    observationRevisions(database(), entry.id),
    supportTeam(database(), student.id, actor.today),
    locationsOf(database(), actor.schoolId),
    partnerOf(database(), entry),
    pairable(database(), entry),
  ]);
  const goal = discreet ? discreetGoal(stored) : stored;
  const people = team.map((member) => ({ id: member.id, name: member.shortName }));
  if (!people.some(({ id }) => id === entry.observerId))
    people.push({ id: entry.observerId, name: entry.observerName });
  const { id, number, shortName, criterion } = goal;
  const measure = measureAt(goal, entry.goalVersion);
  const mayChange = !entry.isWithdrawn && canChangeEntry(student, actor, entry, now);
  return {
    student: headerStudent(student, { discreet }),
    goal: { id, number, shortName, measure, criterion },
    supportSteps: stepsToSay(goal, entry),
    entry: {
      id: entry.id,
      version: entry.version,
      session: { on: entry.on, time: entry.time, observerId: entry.observerId, locationId: entry.locationId },
      outcome: discreet ? withoutDataWords(entry.outcome) : entry.outcome,
      note: discreet ? '' : entry.note,
      fidelity: entry.fidelity,
    },
    versions: [...history, entry].map((version) => versionOf(version, goal, school.timeZone, discreet)),
    choices: { people, locations, today: actor.today },
    mayPair: can(student, 'observe'),
    ruled: discreet ? null : await ruledEntry(database(), actor, student.id, entry.id),
    partner: partner && {
      ...otherOf(partner, measure),
      agreement: agreementOf(measure, entry, partner),
      counts: entry.pairsWith === null,
    },
    candidates: candidates.map((other) => otherOf(other, measure)),
    discreet,
    // With its note hidden an entry cannot be corrected without losing the note.
    mayChange: mayChange && !discreet,
    isHiddenFromChange: mayChange && discreet,
  };
});

/** The steps that an entry can say: those it has said, as they were called then, and those of the support of its day. */
function stepsToSay(goal: Goal, entry: Observation) {
  const said = entry.fidelity ?? [];
  const others = supportStepsOn(goal.phases, entry.on).filter(({ key }) => said.every((mark) => mark.key !== key));
  return [...said.map(({ key, label }) => ({ key, label })), ...others];
}

/** Another observer's entry of the same session, in short. */
const otherOf = ({ id, time, observerName, outcome }: Observation, measure: MeasureDefinition) => ({
  id,
  about: `${time} · ${observerName}`,
  sentence: outcomeSentence(measure, outcome),
});

function agreementOf(measure: MeasureDefinition, { outcome: a }: Observation, { outcome: b }: Observation) {
  if (a.data === null || b.data === null) return null;
  const found = measureOf(measure).agreement(a.data, b.data);
  return found && { said: percent(100 * found.share), basis: found.basis };
}

const change = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('pair'), otherId: z.uuid() }),
  z.object({ intent: z.literal('unpair') }),
  correctionInput.extend({ intent: z.literal('correct') }),
  withdrawalInput.extend({ intent: z.literal('withdraw') }),
]);

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, wall, now, discreet } = personOf(context);
  const ids = { studentId: idFrom(params.studentId), entryId: idFrom(params.entryId) };
  const access = (await requireStudent(database(), actor, ids.studentId, 'see')).id;
  const body: unknown = await jsonOf(request);
  const parsed = readable(change).safeParse(body);
  if (!parsed.success) return refusedWith(fieldMessages(parsed.error, body));
  try {
    if (parsed.data.intent === 'pair' || parsed.data.intent === 'unpair') {
      const { intent } = parsed.data;
      if (intent === 'pair') await markPair(database(), actor, { ...ids, otherId: parsed.data.otherId }, now);
      else await unmarkPair(database(), actor, ids, now);
      return data({ saved: 0 });
    }
    const { intent, ...input } = parsed.data;
    if ('outcome' in input) await correctObservation(database(), actor, ids, input, { wall, now });
    else await withdrawObservation(database(), actor, ids, input, now);
    const text = intent === 'correct' ? entryWords.correctedWhatItSaidBefore : entryWords.withdrawnItCountsNowhereAny;
    return data({ saved: parsed.data.version }, { headers: await sayNext({ text }) });
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    if (error instanceof Conflict) {
      // What correcting an observation says when it was changed meanwhile.
      const current = error.current as Observation;
      const goal = await goalOf(database(), access, current.goalId);
      return data({ conflict: versionOf(current, goal, school.timeZone, discreet) }, { status: 409 });
    }
    throw error;
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? entryWords.pageTitle(loaderData.student.shortName) : 'Entry' },
];

export default function Entry({ loaderData }: Route.ComponentProps) {
  const { student, goal, entry, versions, choices, mayChange, isHiddenFromChange } = loaderData;
  const now = defined(versions.at(-1));
  const path = `/students/${student.id}/entries/${entry.id}`;
  return (
    <Page marginName={entryWords.whatItSaidBefore} margin={<HowItCameAbout versions={versions} />}>
      <p className="text-small">
        <Link to={`/students/${student.id}`} className="text-ink-2 link">
          {student.shortName}
        </Link>{' '}
        ·{' '}
        <Link to={`/students/${student.id}/individual-report`} className="text-ink-2 link">
          {entryWords.report}
        </Link>
      </p>
      <h1 className="mt-1 text-2xl">
        <span className="mr-3 text-ink-3">{goal.number}</span>
        <Link to={`/students/${student.id}/goals/${goal.id}`} className="hover:underline">
          {goal.shortName}
        </Link>
      </h1>
      <p className="mt-1 text-ink-2">{now.about}</p>
      <WithdrawnNotice now={now} />
      <div className={`mt-5 max-w-2xl border-l-2 pl-4 ${now.isWithdrawn ? 'border-rule text-ink-3' : 'border-fern'}`}>
        <TrialMarks tones={now.tones} />
        <p className={now.isWithdrawn ? 'line-through' : ''}>{now.sentence}</p>
        {now.note && <p className="mt-1.5 whitespace-pre-line text-ink-2">{now.note}</p>}
      </div>
      {!loaderData.discreet && (
        <EntryEvidence studentId={student.id} entryId={entry.id} mayAdd={loaderData.mayPair && !now.isWithdrawn} />
      )}
      <SecondObserver {...loaderData} />
      {mayChange && (
        <RecordChanges
          action={path}
          version={entry.version}
          correcting={(close) => (
            <CorrectionForm
              action={path}
              studentId={student.id}
              goal={{ ...goal, supportSteps: loaderData.supportSteps }}
              entry={entry}
              choices={choices}
              onDone={close}
            />
          )}
        />
      )}
      {loaderData.ruled && !now.isWithdrawn && (
        <EntryRules ruled={loaderData.ruled} studentId={student.id} entryId={entry.id} mayMake={loaderData.mayPair} />
      )}
      {isHiddenFromChange && <p className="mt-6 text-small text-ink-2">{entryWords.turnTheDiscreetViewOff}</p>}
    </Page>
  );
}
