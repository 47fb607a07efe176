import type { SubmissionResult } from '@conform-to/react';
import { data, Form, Link, useFetcher } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { shortDate, weekdayName } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { type ChoicesInput, choiceKinds, choicesInput, kindWords } from '~/core/entries/incidents/choice';
import { ownTimetableInput } from '~/core/school/school-input';
import { counted } from '~/core/words/counting';
import { earlierDefinitions } from '~/server/entries/incidents/choices';
import { studentsWithChoices } from '~/server/entries/incidents/copy-choices';
import { choicesInForm, mergeChoices, offerChoice, saveChoices } from '~/server/entries/incidents/edit-choices';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { locationsOf } from '~/server/school/school';
import { requireStudent } from '~/server/students/students';
import { ownDayParts, saveOwnDayParts } from '~/server/students/timetable';
import { sayNext } from '../../platform/http/cookies';
import { formOf } from '../../platform/http/form-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import { submitted } from '../../platform/http/submitted';
import { withErrors } from '../../platform/http/with-errors';
import { Covered } from '../../platform/ui/covered';
import { CheckList, SelectField, TextField } from '../../platform/ui/form-fields';
import { MarginTitle, Page } from '../../platform/ui/page';
import { Rows } from '../../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../../platform/ui/schema-form';
import type { Route } from './+types/set-up';
import { ChoicesForm } from './choices-form';
import { setUpWords } from './words';

/** Whose choices are to be copied, as the address says it. */
const fromField = z.union([z.literal('school'), z.uuid().transform((studentId) => ({ studentId }))]).nullable();

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'editGoals');
  if (discreet) return null;
  const asked = new URL(request.url).searchParams.get('from');
  const from = fromField.catch(null).parse(asked);
  const [{ isNew, input, besides, copied }, others, earlier, locations, dayParts] = await Promise.all([
    choicesInForm(database(), actor, studentId, newId, from),
    studentsWithChoices(database(), actor),
    earlierDefinitions(database(), student.id),
    locationsOf(database(), actor.schoolId),
    ownDayParts(database(), student.id),
  ]);
  return {
    student: { id: student.id, shortName: student.shortName },
    isNew,
    input,
    besides,
    copied: from ? { from: asked ?? '', n: copied } : null,
    others: others.filter(({ id }) => id !== student.id).map(({ id, shortName }) => ({ id, name: shortName })),
    earlier: earlier.map(({ until, ...rest }) => ({ ...rest, until: wallTime(until, school.timeZone).on })),
    locations,
    weekdays: [...school.calendar.weekdays],
    dayParts: dayParts.map((part) => ({ ...part, weekdays: part.weekdays.map(String) })),
  };
});

const small = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('offer'), id: z.uuid() }),
  z.object({ intent: z.literal('merge'), from: z.uuid(), into: z.uuid() }),
]);

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'editGoals');
  const form = await formOf(request);
  const asked = small.safeParse(Object.fromEntries(form));
  if (asked.success) {
    try {
      if (asked.data.intent === 'offer') await offerChoice(database(), actor, studentId, asked.data.id, now);
      else await mergeChoices(database(), actor, studentId, asked.data, now);
    } catch (error) {
      if (!(error instanceof Invalid)) throw error;
      return data(
        { of: 'merge' as const, result: undefined, message: Object.values(error.fields).join(' ') },
        { status: 400 },
      );
    }
    const text = asked.data.intent === 'offer' ? setUpWords.itIsAChoiceNow : setUpWords.theyAreOneNowIn;
    return data({ of: 'merge' as const, result: undefined, message: null }, { headers: await sayNext({ text }) });
  }
  if (form.get('intent') === 'timetable') {
    const { refused } = await submitted(form, ownTimetableInput, (input) =>
      saveOwnDayParts(database(), actor, studentId, input),
    );
    if (refused) return data({ of: 'timetable' as const, result: refused.data.result, message: null }, { status: 400 });
    return data(
      { of: 'timetable' as const, result: undefined, message: null },
      { headers: await sayNext({ text: setUpWords.theTimetableIsSaved }) },
    );
  }
  const { refused } = await submitted(form, choicesInput, (input) =>
    saveChoices(database(), actor, studentId, input, now),
  );
  if (refused) return data({ of: 'choices' as const, result: refused.data.result, message: null }, { status: 400 });
  return data(
    { of: 'choices' as const, result: undefined, message: null },
    {
      headers: await sayNext({
        text: form.has('behavior[0].name') ? setUpWords.theBehaviorSetupIsSaved : setUpWords.savedWithoutBehavior,
      }),
    },
  );
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: setUpWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

type Loaded = NonNullable<Route.ComponentProps['loaderData']>;

export default function SetUp({ loaderData, actionData }: Route.ComponentProps) {
  if (!loaderData) return <Covered what={setUpWords.behaviorSetup} />;
  const { student, isNew, input, besides, copied, others, earlier, locations } = loaderData;
  const resultOf = (of: 'choices' | 'timetable') => (actionData?.of === of ? actionData.result : undefined);
  return (
    <Page
      marginName={setUpWords.besides}
      margin={
        <div className="grid gap-7">
          <Besides besides={besides} />
          {!isNew && <Merge key={JSON.stringify(input)} input={input} message={actionData?.message ?? null} />}
          <OwnTimetable key={student.id} loaded={loaderData} result={resultOf('timetable')} />
          {earlier.length > 0 && <Earlier earlier={earlier} />}
        </div>
      }
    >
      <p className="text-small">
        <Link to={`/students/${student.id}/behavior`} className="text-ink-2 link">
          {setUpWords.behavior(student.shortName)}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{setUpWords.behaviorSetup}</h1>
      {isNew && <p className="mt-2 max-w-2xl text-ink-2">{setUpWords.theseAreTheSchoolsStarting(student.shortName)}</p>}
      <CopyFrom others={others} copied={copied} />
      {input.behavior.length === 0 && (
        <p role="status" className="mt-4 max-w-2xl border-l-2 border-clay pl-3">
          {setUpWords.noBehaviorYet(student.shortName)}
        </p>
      )}
      <ChoicesForm
        key={`${student.id} ${isNew} ${besides.length} ${copied?.from}`}
        input={input}
        locations={locations}
        result={resultOf('choices')}
        isForStudent
        backTo={`/students/${student.id}/behavior`}
      />
    </Page>
  );
}

/** Choices of another student, or the school’s starting lists, put into the form: nothing is saved by it. */
function CopyFrom({ others, copied }: Pick<Loaded, 'others' | 'copied'>) {
  return (
    <Form method="get" className="mt-4 flex max-w-2xl flex-wrap items-end gap-2">
      <label className="grid grow gap-1">
        <span className="text-small font-semibold">{setUpWords.copyFrom}</span>
        <select name="from" defaultValue={copied?.from ?? 'school'} className="select w-full">
          <option value="school">{setUpWords.theStartingLists}</option>
          {others.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn">
        {setUpWords.addWhatIsMissing}
      </button>
      {copied && (
        <p role="status" className="w-full text-small text-ink-2">
          {copied.n === 0 ? setUpWords.nothingToCopy : setUpWords.copied(counted(copied.n, 'choice', 'choices'))}
        </p>
      )}
    </Form>
  );
}

/** What was typed into incidents, and what was retired: one tap offers it. */
function Besides({ besides }: Pick<Loaded, 'besides'>) {
  const fetcher = useFetcher();
  const groups = [
    { state: 'other', title: setUpWords.typedIntoIncidents, does: setUpWords.makeItAChoice },
    { state: 'retired', title: setUpWords.retired, does: setUpWords.bringItBack },
  ];
  return (
    <section>
      <MarginTitle about={setUpWords.incidentsThatNameThemKeep}>{setUpWords.notOffered}</MarginTitle>
      {besides.length === 0 && <p className="text-small text-ink-2">{setUpWords.everythingIsOffered}</p>}
      {groups.map(({ state, title, does }) => {
        const own = besides.filter((choice) => choice.state === state);
        return (
          own.length > 0 && (
            <div key={state} className="mb-3">
              <h3 className="text-base">{title}</h3>
              <ul>
                {own.map(({ id, name, kind }) => (
                  <li
                    key={id}
                    className="flex items-center gap-2 border-b border-dotted border-ink-3/50 py-1.5 text-small"
                  >
                    <span className="grow">
                      {name} <span className="text-ink-3">({kindWords[kind].one})</span>
                    </span>
                    <fetcher.Form method="post">
                      <input type="hidden" name="id" value={id} />
                      <button
                        type="submit"
                        name="intent"
                        value="offer"
                        aria-label={`${does}: ${name}`}
                        className="btn btn-sm"
                      >
                        {does}
                      </button>
                    </fetcher.Form>
                  </li>
                ))}
              </ul>
            </div>
          )
        );
      })}
    </section>
  );
}

/** Two that mean the same become one; old incidents follow. */
function Merge({ input, message }: { input: ChoicesInput; message: string | null }) {
  const groups = choiceKinds.filter((kind) => input[kind].length > 1);
  if (groups.length === 0) return null;
  const options = groups.map((kind) => (
    <optgroup key={kind} label={kindWords[kind].many}>
      {input[kind].map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </optgroup>
  ));
  return (
    <section>
      <h2 className="text-lg">{setUpWords.twoThatMeanTheSame}</h2>
      <Form method="post" className="mt-2 grid gap-2">
        <label className="grid gap-1">
          <span className="text-small font-semibold">{setUpWords.thisOneGoes}</span>
          <select name="from" className="select w-full">
            {options}
          </select>
        </label>
        <label className="grid gap-1">
          <span className="text-small font-semibold">{setUpWords.intoThisOne}</span>
          <select name="into" className="select w-full">
            {options}
          </select>
        </label>
        {message && (
          <p role="alert" className="text-small font-semibold text-clay-deep">
            {message}
          </p>
        )}
        <button type="submit" name="intent" value="merge" className="btn justify-self-start">
          {setUpWords.makeThemOne}
        </button>
      </Form>
    </section>
  );
}

const asText = (weekdays: readonly number[]) => weekdays.map(String);

/** Parts of the day that are this student’s own. */
function OwnTimetable({ loaded, result }: { loaded: Loaded; result: SubmissionResult<string[]> | undefined }) {
  const { dayParts, locations, weekdays } = loaded;
  const { form, fields } = useSchemaForm(ownTimetableInput, {
    id: 'timetable',
    result,
    defaultValue: { dayParts } as never,
  });
  const week = weekdays.map((day) => ({ id: String(day), name: weekdayName(day).slice(0, 3) }));
  return (
    <section>
      <h2 className="text-lg">{setUpWords.ownPartsOfTheDay}</h2>
      <p className="mt-1 mb-2 text-small text-ink-2">{setUpWords.theyStandBeforeThoseOf}</p>
      <SchemaForm isLong form={form} intent="timetable" className="grid gap-3">
        <Rows
          form={form}
          list={fields.dayParts}
          what={setUpWords.onePartOfTheDay}
          isTall
          blank={() => ({ part: '', from: '', to: '', weekdays: asText(weekdays) })}
        >
          {(row) => {
            const { part, from, to, locationId, weekdays: on } = row.getFieldset();
            return (
              <div className="grid gap-2 rounded-field bg-wash p-2.5">
                <TextField field={part} label={setUpWords.partOfTheDay} />
                <div className="grid grid-cols-2 gap-2">
                  <TextField field={from} label={setUpWords.from} type="time" />
                  <TextField field={to} label={setUpWords.to} type="time" />
                </div>
                <SelectField
                  field={locationId}
                  label={setUpWords.location}
                  none={setUpWords.notSaid}
                  options={locations}
                />
                <CheckList field={on} legend={setUpWords.on} options={week} />
              </div>
            );
          }}
        </Rows>
        <button type="submit" className="btn justify-self-start">
          {setUpWords.saveTheTimetable}
        </button>
      </SchemaForm>
    </section>
  );
}

/** What target behaviors were called and meant before. */
function Earlier({ earlier }: Pick<Loaded, 'earlier'>) {
  return (
    <details>
      <summary className="tap py-1.5 text-small link">{setUpWords.earlierDefinitions}</summary>
      {earlier.map(({ choiceId, name, words, unlike, until, changedBy }) => (
        <p key={`${choiceId} ${until} ${name} ${words} ${unlike}`} className="mt-2 text-small text-ink-2">
          <span className="text-ink-3">{setUpWords.untilChangedBy(shortDate(until), changedBy)}</span> <b>{name}</b>
          {words && `, ${words}`}
          {unlike && ` Not: ${unlike}`}
        </p>
      ))}
    </details>
  );
}
