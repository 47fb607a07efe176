import { data } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { dueAfter, followUpInput } from '~/core/rules/follow-up';
import { readable } from '~/core/words/readable';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { followUpsOf, makeFollowUp } from '~/server/rules/follow-ups';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { Page } from '../platform/ui/page';
import { saveOrStay } from '../platform/ui/use-saving';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/student-follow-ups';
import { FollowUpForm } from './follow-up-form';
import { FollowUpList } from './follow-up-list';
import { shownFollowUps } from './follow-up-view';
import { AboutFollowUps } from './follow-ups';
import { messagesFrom } from './messages-from';
import { teamsOf } from './teams';
import { followUpsWords } from './words';

/** Those that are due in so many school days, unless another day is said. */
const USUALLY = 2;

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const header = headerStudent(student, { discreet });
  const found = await followUpsOf(database(), [student.id]);
  const because = z.uuid().safeParse(new URL(request.url).searchParams.get('entry'));
  const teams = await teamsOf(database(), [student], [{ studentId: student.id }], actor.today);
  return {
    student: header,
    followUps: await shownFollowUps(database(), found, {
      ...{
        today: actor.today,
        timeZone: school.timeZone,
        discreet,
        names: new Map([[String(student.id), header.shortName]]),
      },
    }),
    teams,
    begun: can(student, 'observe') && {
      id: newId(),
      entryId: because.success ? because.data : null,
      forPerson: actor.personId,
      dueOn: dueAfter(actor.today, USUALLY, school.calendar),
    },
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const { id: studentId } = await requireStudent(database(), actor, idFrom(params.studentId), 'observe');
  const body = await jsonOf(request);
  const whole = typeof body === 'object' ? { ...body, studentId } : body;
  const parsed = readable(followUpInput).safeParse(whole);
  if (!parsed.success) return refusedWith(messagesFrom(parsed.error));
  try {
    await makeFollowUp(database(), actor, parsed.data, now);
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    throw error;
  }
  return data({ made: parsed.data.id }, { headers: await sayNext({ text: followUpsWords.made }) });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: followUpsWords.pageTitleOf(loaderData?.student.shortName ?? 'a student') },
];

/** What is to be done about one student, and what was. */
export default function StudentFollowUps({ loaderData }: Route.ComponentProps) {
  const { student, followUps, teams, begun } = loaderData;
  return (
    <Page marginName={followUpsWords.about} margin={<AboutFollowUps />}>
      <StudentHeader student={student} />
      <h2 className="mt-5 text-xl">{followUpsWords.followUps}</h2>
      {followUps.length === 0 && <p className="pt-2 text-ink-2">{followUpsWords.noneOfStudent}</p>}
      <FollowUpList followUps={followUps} namesStudents={false} teams={teams} />
      {begun && <FollowUpForm key={begun.id} studentId={student.id} begun={begun} team={teams[student.id] ?? []} />}
    </Page>
  );
}
