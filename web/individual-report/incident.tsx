import { Printer } from 'lucide-react';
import { useState } from 'react';
import { data, Form, Link } from 'react-router';
import { z } from 'zod';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import { incidentCorrection, incidentEnd } from '~/core/entries/incidents/incident-input';
import { incidentSentence } from '~/core/entries/incidents/incident-sentence';
import { withdrawalInput } from '~/core/entries/observation';
import type { IncidentScreen } from '~/core/entries/waiting';
import { discreetChoices } from '~/core/goals/discreet';
import { readable } from '~/core/words/readable';
import { canChangeEntry } from '~/server/entries/corrections';
import { choicesOf } from '~/server/entries/incidents/choices';
import { offerChoice } from '~/server/entries/incidents/edit-choices';
import {
  historyOfIncident,
  incidentOf,
  type Naming,
  namingOf,
  type StoredIncident,
  saidIncident,
} from '~/server/entries/incidents/incidents';
import { correctIncident, endIncident, withdrawIncident } from '~/server/entries/incidents/record-incident';
import { database } from '~/server/platform/db/current';
import { Conflict, Invalid } from '~/server/platform/failures';
import { ruledEntry } from '~/server/rules/ruled-entry';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import type { EntryVersion } from '../entries/change-messages';
import { Correction } from '../entries/correction';
import { EntryEvidence } from '../entries/evidence/entry-evidence-section';
import { changedIncident, type IncidentDraft, incidentInputFrom } from '../entries/incidents/incident-draft';
import { IncidentFields } from '../entries/incidents/incident-fields';
import { messagesIn } from '../entries/incidents/recorded';
import { incidentScreenOf } from '../entries/incidents/recording';
import { HowItCameAbout, RecordChanges, WithdrawnNotice } from '../entries/record-changes';
import { stoppedClock } from '../measures/clock';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { saveOrStay } from '../platform/ui/use-saving';
import { EntryRules } from '../rules/entry-rules';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/incident';
import { incidentWords } from './words';

function versionOf(incident: StoredIncident, naming: Naming, timeZone: string, discreet: boolean): EntryVersion {
  const { on, time } = wallTime(incident.changedAt ?? incident.recordedAt, timeZone);
  const location = incident.locationId ? naming.choices.get(incident.locationId)?.name : null;
  return {
    version: incident.version,
    about: [longDate(incident.on), incident.time, location, incident.observerName].filter(Boolean).join(' · '),
    sentence: incidentSentence(saidIncident(incident, naming)),
    note: discreet ? '' : incident.note,
    tones: [],
    written: `${incident.changedByName ?? incident.recordedByName}, ${shortDate(on)} ${time}`,
    why: discreet ? null : incident.changeReason,
    isWithdrawn: incident.isWithdrawn,
  };
}

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const asker = personOf(context);
  const { actor, school, now, discreet } = asker;
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'see');
  const incident = await incidentOf(database(), student.id, idFrom(params.incidentId));
  const [stored, history] = await Promise.all([
    choicesOf(database(), student.id),
    historyOfIncident(database(), incident.id),
  ]);
  const choices = discreet ? discreetChoices(stored) : stored;
  const naming = namingOf(choices);
  const chosen = [
    incident.locationId,
    incident.intensityId,
    ...incident.behaviors,
    ...incident.antecedents,
    ...incident.consequences,
    ...incident.functions,
  ];
  const including = chosen.filter((id) => id !== null);
  const incidentScreen = await incidentScreenOf(database(), asker, student, including);
  const mayChange = !incident.isWithdrawn && canChangeEntry(student, actor, incident, now);
  return {
    student: headerStudent(student, { discreet }),
    schoolName: school.name,
    today: actor.today,
    wall: asker.wall,
    discreet,
    incident: { ...standingIds(incident, naming), note: discreet ? '' : incident.note },
    title: saidIncident(incident, naming).behaviors.join(', '),
    versions: [...history, incident].map((version) => versionOf(version, naming, school.timeZone, discreet)),
    incidentScreen,
    mayChange: mayChange && !discreet,
    mayEnd: !incident.isWithdrawn && incident.isGoing && can(student, 'observe'),
    isSecond: incident.besideId !== null,
    ruled: discreet || incident.isWithdrawn ? null : await ruledEntry(database(), actor, student.id, incident.id),
    typed:
      can(student, 'editGoals') && !discreet
        ? choices
            .filter(({ id, state }) => state === 'other' && including.includes(id))
            .map(({ id, kind, name }) => ({ id, kind, name }))
        : [],
  };
});

/** An incident with merged choices by the one that stands for them. */
function standingIds(incident: StoredIncident, { choices }: Naming): StoredIncident {
  const standing = (ids: readonly string[]) => [...new Set(ids.map((id) => choices.get(id)?.id ?? id))];
  const one = (id: string | null) => (id === null ? null : (standing([id])[0] ?? null));
  return {
    ...incident,
    locationId: one(incident.locationId),
    intensityId: one(incident.intensityId),
    behaviors: standing(incident.behaviors),
    antecedents: standing(incident.antecedents),
    consequences: standing(incident.consequences),
    functions: standing(incident.functions),
  };
}

const intent = z.object({ intent: z.enum(['correct', 'withdraw', 'end', 'offer']) });
const offer = z.object({ choiceId: z.uuid() });

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, wall, now, discreet } = personOf(context);
  const ids = { studentId: idFrom(params.studentId), noteId: idFrom(params.incidentId) };
  const access = (await requireStudent(database(), actor, ids.studentId, 'see')).id;
  const isJson = request.headers.get('Content-Type')?.includes('json');
  const body: unknown = isJson ? await jsonOf(request) : endFrom(await formOf(request));
  const what = intent.safeParse(body);
  if (!what.success) return refusedWith({ form: incidentWords.thisCannotBeRead });
  const moment = { wall, now, timeZone: school.timeZone };
  const done = async (text: string) => data({ saved: 1 }, { headers: await sayNext({ text }) });
  const schema = { correct: incidentCorrection, withdraw: withdrawalInput, end: incidentEnd, offer }[what.data.intent];
  const parsed = readable<z.ZodType>(schema).safeParse(body);
  if (!parsed.success) return refusedWith(messagesIn(parsed.error));
  try {
    // Each was read by the schema of its intent.
    switch (what.data.intent) {
      case 'offer':
        await offerChoice(database(), actor, ids.studentId, (parsed.data as z.infer<typeof offer>).choiceId, now);
        return done(incidentWords.itIsAChoiceNow);
      case 'end':
        await endIncident(database(), actor, ids, parsed.data as z.infer<typeof incidentEnd>, moment);
        return done(incidentWords.itHasAnEndNow);
      case 'correct':
        await correctIncident(database(), actor, ids, parsed.data as z.infer<typeof incidentCorrection>, moment);
        return done(incidentWords.correctedWhatItSaidBefore);
      case 'withdraw':
        await withdrawIncident(database(), actor, ids, parsed.data as z.infer<typeof withdrawalInput>, now);
        return done(incidentWords.withdrawnItCountsNowhereAny);
    }
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    if (error instanceof Conflict) {
      const stored = await choicesOf(database(), access);
      const naming = namingOf(discreet ? discreetChoices(stored) : stored);
      return data(
        { conflict: versionOf(error.current as StoredIncident, naming, school.timeZone, discreet) },
        { status: 409 },
      );
    }
    throw error;
  }
});

/** What the form that closes an incident sends: one of the two is filled in, or neither for now. */
function endFrom(form: FormData) {
  const minutes = String(form.get('minutes') ?? '')
    .trim()
    .replace(',', '.');
  return {
    intent: form.get('intent'),
    version: Number(form.get('version')),
    time: String(form.get('time') ?? '') || null,
    seconds: minutes === '' ? null : 60 * Number(minutes),
    choiceId: form.get('choiceId') ?? undefined,
  };
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  {
    title:
      loaderData && !loaderData.discreet
        ? incidentWords.abcIncidentOfGentleMargin(loaderData.student.shortName)
        : incidentWords.noteGentleMargin,
  },
];

export default function IncidentPage({ loaderData, actionData }: Route.ComponentProps) {
  const {
    student,
    schoolName,
    incident,
    title,
    versions,
    incidentScreen,
    mayChange,
    mayEnd,
    isSecond,
    typed,
    today,
    wall,
  } = loaderData;
  const now = defined(versions.at(-1));
  const path = `/students/${student.id}/incidents/${incident.id}`;
  const endMessages = actionData && 'messages' in actionData ? actionData.messages : {};
  return (
    <Page marginName={incidentWords.history} margin={<HowItCameAbout versions={versions} />}>
      <PrintSheet head={incidentWords.abcIncident(student.shortName, schoolName, longDate(today))}>
        <p className="no-print text-small">
          <Link to={`/students/${student.id}/behavior`} className="text-ink-2 link">
            {student.shortName} · {student.isDiscreet ? incidentWords.notes : incidentWords.behavior}
          </Link>
        </p>
        <div className="mt-1 flex items-start justify-between gap-4">
          <h1 className="text-2xl">{title}</h1>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            <Printer size={16} aria-hidden />
            {incidentWords.print}
          </button>
        </div>
        <p className="mt-1 text-ink-2">{now.about}</p>
        {isSecond && <p className="text-small text-ink-3">{incidentWords.aSecondObserversForAgreement}</p>}
        <WithdrawnNotice now={now} />
        <div className={`mt-5 max-w-2xl border-l-2 pl-4 ${now.isWithdrawn ? 'border-rule text-ink-3' : 'border-clay'}`}>
          <p className={now.isWithdrawn ? 'line-through' : ''}>{now.sentence}</p>
          {now.note && <p className="mt-1.5 whitespace-pre-line text-ink-2">{now.note}</p>}
        </div>
        {typed.map(({ id, name }) => (
          <Form key={id} method="post" className="no-print mt-4 flex flex-wrap items-center gap-3">
            <input type="hidden" name="choiceId" value={id} />
            <input type="hidden" name="version" value={incident.version} />
            <span>{incidentWords.wasTyped(name)}</span>
            <button type="submit" name="intent" value="offer" className="btn">
              {incidentWords.makeItAChoice}
            </button>
          </Form>
        ))}
        {mayEnd && <EndForm version={incident.version} isToday={incident.on === wall.on} messages={endMessages} />}
        {!student.isDiscreet && (
          <EntryEvidence
            studentId={student.id}
            entryId={incident.id}
            mayAdd={student.mayObserve && !versions.at(-1)?.isWithdrawn}
          />
        )}
        {mayChange && (
          <RecordChanges
            action={path}
            version={incident.version}
            correcting={(close) => (
              <CorrectIncident action={path} incident={incident} incidentScreen={incidentScreen} onDone={close} />
            )}
          />
        )}
        {loaderData.ruled && (
          <EntryRules
            ruled={loaderData.ruled}
            studentId={student.id}
            entryId={incident.id}
            mayMake={student.mayObserve}
          />
        )}
      </PrintSheet>
    </Page>
  );
}

/** Closes an incident that was still going: now, at a time, or by its length. */
function EndForm(props: { version: number; isToday: boolean; messages: Record<string, string> }) {
  const { version, isToday, messages } = props;
  const problem = messages.time ?? messages.seconds ?? messages.form;
  return (
    <Form
      method="post"
      aria-label={incidentWords.whenItEnded}
      className="no-print mt-6 flex max-w-2xl flex-wrap items-end gap-3 rounded-box border border-clay bg-clay-wash p-4"
    >
      <input type="hidden" name="version" value={version} />
      <p className="w-full">{incidentWords.itIsNotedAsStill}</p>
      {isToday && (
        <label className="grid gap-1">
          <span className="text-small font-semibold">{incidentWords.endedAt}</span>
          <input type="time" name="time" className="input" />
        </label>
      )}
      <label className="grid gap-1">
        <span className="text-small font-semibold">
          {isToday ? incidentWords.orLastedInMinutes : incidentWords.itLastedInMinutes}
        </span>
        <input name="minutes" inputMode="decimal" className="input w-28" />
      </label>
      <button type="submit" name="intent" value="end" className="btn btn-primary">
        {isToday ? incidentWords.itHasEnded : incidentWords.closeIt}
      </button>
      {problem && (
        <p role="alert" className="w-full text-small font-semibold text-clay-deep">
          {problem}
        </p>
      )}
    </Form>
  );
}

interface CorrectIncidentProps {
  action: string;
  incident: StoredIncident;
  incidentScreen: IncidentScreen;
  onDone: () => void;
}

function CorrectIncident({ action, incident, incidentScreen, onDone }: CorrectIncidentProps) {
  const [draft, setDraft] = useState<IncidentDraft>({
    ...incident,
    ...{ timeIsChosen: true, locationIsChosen: true, others: [], clock: stoppedClock },
  });
  const content = () => incidentInputFrom(draft, Date.now());
  return (
    <Correction what="incident" action={action} version={incident.version} content={content} onDone={onDone}>
      {(messages) => (
        <IncidentFields
          incidentScreen={incidentScreen}
          draft={draft}
          messages={messages}
          onChange={(changes) => setDraft((before) => changedIncident(incidentScreen, before, changes, null))}
        />
      )}
    </Correction>
  );
}
