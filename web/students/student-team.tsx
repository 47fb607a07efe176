import type { SubmissionResult } from '@conform-to/react';
import { data } from 'react-router';
import { z } from 'zod';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { grantedWords, roleWords } from '~/core/students/roles';
import { INVITATION_DAYS, type InvitationInput, invitationInput, memberInput } from '~/core/students/team-input';
import { listed } from '~/core/words/counting';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { invite, openInvitations, withdrawInvitation } from '~/server/students/invitations';
import { can, usualRights } from '~/server/students/rights';
import { requireStudent, studentsOf } from '~/server/students/students';
import { membersOf, peopleToAdd, saveMember, setOwnStart } from '~/server/students/team';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { OneTap } from '../platform/ui/one-tap';
import { MarginTitle, Page } from '../platform/ui/page';
import { saveOrStay } from '../platform/ui/use-saving';
import type { Route } from './+types/student-team';
import { headerStudent } from './header-student';
import { StartForm, start } from './start-form';
import { StudentHeader } from './student-header';
import { InvitationForm, MemberForm } from './team-forms';
import { studentTeamWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const manages = can(student, 'manage');
  const [members, invitations, people, mine] = await Promise.all([
    membersOf(database(), actor, student.id),
    manages ? openInvitations(database(), actor, student.id) : [],
    manages ? peopleToAdd(database(), actor, student.id) : [],
    manages ? studentsOf(database(), actor) : [],
  ]);
  return {
    student: headerStudent(student, { discreet }),
    today: actor.today,
    manages,
    members: members.map((member) => ({
      ...member,
      roleWords: roleWords[member.role],
      rights: member.rights ?? usualRights[member.role],
      isOver: member.until !== null && member.until < actor.today,
    })),
    invitations: invitations.map(({ id, name, email, role, endsOn, declinedAt }) => ({
      ...{ id, name, email, endsOn, isDeclined: declinedAt !== null },
      roleWords: roleWords[role],
    })),
    people,
    others: mine
      .filter((one) => one.id !== student.id && can(one, 'manage'))
      .map((one) => ({ id: one.id, name: discreet ? one.initials : one.shortName })),
  };
});

const withdrawal = z.object({ id: z.uuid() });

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'manage');
  const form = await formOf(request);
  const intent = String(form.get('intent'));
  const answer = (result: SubmissionResult<string[]> | undefined, status = 200, text?: string) =>
    text
      ? sayNext({ text }).then((headers) => data({ intent, result, invited: null }, { status, headers }))
      : data({ intent, result, invited: null }, { status });
  if (intent === 'withdraw') {
    const { refused } = await submitted(form, withdrawal, ({ id }) =>
      withdrawInvitation(database(), actor, studentId, id, now),
    );
    return refused
      ? answer(refused.data.result, 400)
      : answer(undefined, 200, studentTeamWords.theInvitationIsTakenBack);
  }
  if (intent === 'invite') {
    const { done, refused } = await submitted(form, invitationInput, async (input: InvitationInput) => {
      // Where no mail leaves, in a demo or without a mail server, the one who invites passes the link on.
      const readsOut = school.isDemo || config.SMTP_URL === undefined;
      const token = await invite(database(), actor, studentId, input, { now, readsOut });
      return { name: input.name, link: token && `${config.PUBLIC_URL}/invited/${token}` };
    });
    if (refused) return answer(refused.data.result, 400);
    return data({ intent, result: { initialValue: null } as SubmissionResult<string[]>, invited: done ?? null });
  }
  if (intent === 'start') {
    const { refused } = await submitted(form, start, ({ from }) =>
      setOwnStart(database(), actor, studentId, from, now),
    );
    return refused
      ? answer(refused.data.result, 400)
      : answer({ initialValue: null }, 200, studentTeamWords.theDayIsChanged);
  }
  const { refused } = await submitted(form, memberInput, (input) =>
    saveMember(database(), actor, studentId, input, now),
  );
  return refused
    ? answer(refused.data.result, 400)
    : answer({ initialValue: null }, 200, studentTeamWords.theTeamIsChanged);
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: studentTeamWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

export default function StudentTeam({ loaderData, actionData }: Route.ComponentProps) {
  const { student, today, manages, members, invitations, people, others } = loaderData;
  const answer = actionData && 'intent' in actionData ? actionData : undefined;
  const resultOf = (intent: string) => (answer?.intent === intent ? answer.result : undefined);
  return (
    <Page
      marginName={studentTeamWords.bringSomebodyIn}
      help="team"
      margin={
        manages ? (
          <div className="grid gap-10">
            <section aria-label={studentTeamWords.inviteByEmail}>
              <MarginTitle about={studentTeamWords.theyGetALinkThat(INVITATION_DAYS)}>
                {studentTeamWords.inviteByEmail}
              </MarginTitle>
              <InvitationForm key={student.id} result={resultOf('invite')} />
            </section>
            {people.length > 0 && (
              <section aria-label={studentTeamWords.fromTheSchool}>
                <MarginTitle about={studentTeamWords.somebodyWhoHasAnAccount}>
                  {studentTeamWords.fromTheSchool}
                </MarginTitle>
                <MemberForm
                  key={student.id}
                  id="add"
                  people={people}
                  others={others}
                  from={today}
                  result={resultOf('add')}
                />
              </section>
            )}
          </div>
        ) : (
          <>
            <MarginTitle>{studentTeamWords.aboutTheTeam}</MarginTitle>
            <p className="text-small text-ink-2">{studentTeamWords.theCaseManagerSaysWho}</p>
          </>
        )
      }
    >
      <StudentHeader student={student} />
      <h2 className="mt-6 text-2xl">{studentTeamWords.supportTeam}</h2>
      {answer?.invited && <Invited {...answer.invited} />}
      <ul className="mt-3">
        {members.map((member) => (
          <li key={member.id} className={`border-b border-rule pt-4 pb-2 ${member.isOver ? 'text-ink-3' : ''}`}>
            <div className="flex flex-wrap items-baseline justify-between gap-x-6">
              <h3 className="text-base">{member.name}</h3>
              <p className="text-small text-ink-2">
                {member.isOver ? studentTeamWords.wasOnTheTeam : 'since'} {shortDate(member.from)}
                {member.until && ` – ${longDate(member.until)}`}
              </p>
            </div>
            <p className="text-small text-ink-2">
              {[
                member.roleWords,
                member.work,
                member.role === 'caseManager'
                  ? studentTeamWords.mayDoEverything
                  : member.rights.length > 0
                    ? studentTeamWords.mayDo(listed(member.rights.map((right) => grantedWords[right])))
                    : studentTeamWords.readsTheReportOnly,
              ]
                .filter(Boolean)
                .join(' · ')}
            </p>
            {manages && member.role === 'caseManager' && (
              <details className="mt-1">
                <summary className="tap cursor-pointer text-small text-ink-2 link">
                  {studentTeamWords.changeSinceWhen}
                </summary>
                <StartForm key={member.from} from={member.from} today={today} result={resultOf('start')} />
              </details>
            )}
            {manages && member.role !== 'caseManager' && (
              <details className="mt-1">
                <summary className="tap cursor-pointer text-small text-ink-2 link">
                  {studentTeamWords.change}
                  <span className="sr-only">{studentTeamWords.whatMayDo(member.name)}</span>
                </summary>
                <MemberForm
                  key={JSON.stringify(member)}
                  id={member.id}
                  member={member}
                  from={member.from}
                  result={resultOf(member.id)}
                />
              </details>
            )}
          </li>
        ))}
      </ul>
      {invitations.length > 0 && (
        <section aria-label={studentTeamWords.invited} className="mt-8">
          <h2 className="text-lg">{studentTeamWords.invited}</h2>
          <ul>
            {invitations.map((invitation) => (
              <li
                key={invitation.id}
                className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-3"
              >
                <p>
                  <span className="font-semibold">{invitation.name}</span>
                  <span className="block text-small text-ink-2">
                    {invitation.roleWords} · {invitation.email} ·{' '}
                    {invitation.isDeclined
                      ? studentTeamWords.doesNotWantToJoin
                      : studentTeamWords.untilDay(shortDate(invitation.endsOn))}
                  </span>
                </p>
                <OneTap
                  intent="withdraw"
                  values={{ id: invitation.id }}
                  label={studentTeamWords.takeBackTheInvitationOf(invitation.name)}
                  isLarge
                >
                  {studentTeamWords.takeBack}
                </OneTap>
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className="pb-20" />
    </Page>
  );
}

/** What becomes of an invitation: a message brings it; where no mail leaves, its link is passed on by hand. */
function Invited({ name, link }: { name: string; link: string | null }) {
  return (
    <section
      aria-label={studentTeamWords.theInvitation}
      className="mt-4 rounded-box border border-fern bg-fern-wash p-4"
    >
      <h3 className="text-lg">{studentTeamWords.isInvited(name)}</h3>
      {link ? (
        <>
          <p className="mt-1 text-small">{studentTeamWords.noMailLeavesThisInstallation}</p>
          <input
            readOnly
            aria-label={studentTeamWords.theLinkOfTheInvitation}
            value={link}
            onFocus={(event) => event.target.select()}
            className="input mt-3 w-full"
          />
        </>
      ) : (
        <p className="mt-1 text-small">{studentTeamWords.aMessageBringsTheLink}</p>
      )}
    </section>
  );
}
