import { useState } from 'react';
import { data } from 'react-router';
import { z } from 'zod';
import { discreetGoal } from '~/core/goals/discreet';
import { readerKinds } from '~/core/sharing/reader-kind';
import { reportFields, shownFields, visibilityInput } from '~/core/sharing/visibility-rule';
import { goalsOf } from '~/server/goals/goals';
import { individualReport } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { saveVisibilityRules, visibilityRules } from '~/server/sharing/visibility';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Page } from '../platform/ui/page';
import { saveOrStay } from '../platform/ui/use-saving';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/visibility';
import { ReadersNav } from './sharing-nav';
import { PreviewMargin, RulesForm } from './visibility-form';
import { visibilityWords } from './words';

const PREVIEWED = 6;

const previewSearch = z.object({
  as: z.enum(readerKinds).catch('family'),
  /** Fields as they stand in the form; else those that are saved. */
  shows: z
    .string()
    .transform((text) => text.split(' ').filter(Boolean))
    .pipe(z.array(z.enum(reportFields)))
    .optional()
    .catch(undefined),
});

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const { as: kind, shows } = previewSearch.parse(Object.fromEntries(new URL(request.url).searchParams));
  const [{ rules, own }, stored] = await Promise.all([
    visibilityRules(database(), student.id),
    goalsOf(database(), [student.id]),
  ]);
  const goals = discreet ? stored.map(discreetGoal) : stored;
  const shown = shownFields(shows ?? rules[kind].shows);
  const report = await individualReport(
    database(),
    student.id,
    goals,
    { kind, linkId: null, shows: shown, discreet },
    { only: null, find: '', page: 1, day: null, oldestFirst: false },
  );
  return {
    student: headerStudent(student, { discreet }),
    rules,
    own,
    preview: {
      kind,
      entries: report.entries
        .slice(0, PREVIEWED)
        .map(({ id, on, time, title, location, observer, sentence, note }) => ({
          ...{ id, on, title },
          // What a reflection says stands in its thread.
          sentence: sentence || (discreet ? '' : (report.threads[id]?.[0]?.text ?? '')),
          note: discreet ? null : note,
          about: [time, location, observer].filter(Boolean).join(' · '),
        })),
    },
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'share');
  const form = await formOf(request);
  const { refused } = await submitted(form, visibilityInput, (input) =>
    saveVisibilityRules(database(), actor, studentId, input, now),
  );
  if (refused) return refused;
  return data({ result: undefined }, { headers: await sayNext({ text: visibilityWords.savedEveryReaderSeesThe }) });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: visibilityWords.whatEachReaderSeesFor(loaderData?.student.shortName ?? 'a student') },
];

export default function Rules({ loaderData: { student, rules, own, preview } }: Route.ComponentProps) {
  const [form, setForm] = useState<FormData | null>(null);
  return (
    <Page
      marginName={visibilityWords.asAReaderSeesIt}
      help="sharing"
      margin={<PreviewMargin key={student.id} first={preview} form={form} />}
    >
      <StudentHeader student={student} />
      <ReadersNav studentId={student.id} />
      <h2 className="mt-5 text-2xl">{visibilityWords.whatEachReaderSees}</h2>
      <p className="mt-1 max-w-2xl text-small text-ink-2">{visibilityWords.whereNothingIsThisStudents}</p>
      <RulesForm key={`${student.id} ${JSON.stringify(rules)}`} rules={rules} own={own} onChange={setForm} />
      <div className="pb-20" />
    </Page>
  );
}
