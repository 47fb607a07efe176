import type { SubmissionResult } from '@conform-to/react';
import { data, Link } from 'react-router';
import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { joinInput } from '~/core/people/account-input';
import { counted } from '~/core/words/counting';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin, type SchoolAdmin } from '~/server/school/administrators';
import {
  askToJoin,
  deactivate,
  endSignIns,
  letChoosePassword,
  letOpenDevices,
  liftPinLock,
  openJoins,
  reactivate,
  setAdministrator,
  staffOfSchool,
  takeBackJoin,
} from '~/server/students/staff';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { mailLeavesFrom } from '../platform/http/mail-leaves';
import { personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { CheckField, TextField } from '../platform/ui/form-fields';
import { OneTap } from '../platform/ui/one-tap';
import { MarginTitle, Page } from '../platform/ui/page';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import type { Route } from './+types/staff';
import { StaffChanges } from './staff-changes';
import { staffWords } from './staff-words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const [staff, asked] = await Promise.all([staffOfSchool(database(), admin), openJoins(database(), admin, now)]);
  const dayOf = (at: Date) => shortDate(wallTime(at, school.timeZone).on);
  return {
    you: actor.personId,
    staff: staff.map(({ lastSeen, ...one }) => ({ ...one, lastSeen: lastSeen && dayOf(lastSeen) })),
    asked: asked.map(({ endsAt, ...one }) => ({ ...one, until: dayOf(endsAt) })),
  };
});

const one = { personId: z.uuid() };
const changes = {
  takeBack: z.object({ id: z.uuid() }),
  admin: z.object({ ...one, isAdmin: z.enum(['yes', 'no']) }),
  signOut: z.object(one),
  devices: z.object({ ...one, may: z.enum(['yes', 'no']) }),
  liftPin: z.object(one),
  password: z.object({ ...one, forgetsFactor: z.boolean().default(false) }),
  end: z.object({ ...one, to: z.uuid({ error: staffWords.chooseWho }).optional() }),
  back: z.object(one),
};

/** Something to be passed on by hand, where no mail leaves. */
interface ToPassOn {
  of: 'ask' | 'password';
  name: string;
  /** An address, or a code; null where a message brings it. */
  text: string | null;
  until: string | null;
}

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, school, now } = personOf(context);
  const admin = await requireSchoolAdmin(database(), actor);
  const form = await formOf(request);
  const of = String(form.get('intent'));
  const moment = { now, readsOut: !mailLeavesFrom(school) };
  const refusedWith = (result: SubmissionResult<string[]>) => {
    const about = `${of} ${form.get('personId') ?? ''}`.trim();
    return data({ of: about, result, passOn: null }, { status: 400 });
  };
  const said = async (text: string) =>
    data({ of, result: undefined, passOn: null }, { headers: await sayNext({ text }) });
  const passedOn = (passOn: ToPassOn) =>
    data({ of, result: { initialValue: null } as SubmissionResult<string[]>, passOn });
  switch (of) {
    case 'ask': {
      const { done, refused } = await submitted(form, joinInput, async (input) => {
        const code = await askToJoin(database(), admin, input, moment);
        return { name: input.name, text: code && `${config.PUBLIC_URL}/account/by/${code}` };
      });
      return refused ? refusedWith(refused.data.result) : passedOn({ of: 'ask', until: null, ...done });
    }
    case 'password': {
      const { done, refused } = await submitted(form, changes.password, (input) =>
        letChoosePassword(database(), admin, input, moment),
      );
      if (refused) return refusedWith(refused.data.result);
      const { time } = wallTime(new Date(now.getTime() + 3_600_000), school.timeZone);
      const [name] = await nameOf(admin, String(form.get('personId')));
      return passedOn({ of: 'password', name: name ?? '', text: done ?? null, until: time });
    }
    case 'end': {
      const { done, refused } = await submitted(form, changes.end, async ({ personId, to }) => {
        await deactivate(database(), admin, { personId, to: to ?? null }, now);
        return nameOf(admin, personId);
      });
      return refused ? refusedWith(refused.data.result) : said(staffWords.workEnded(done[0] ?? ''));
    }
    case 'takeBack': {
      const { refused } = await submitted(form, changes.takeBack, ({ id }) => takeBackJoin(database(), admin, id, now));
      return refused ? refusedWith(refused.data.result) : said(staffWords.takenBack);
    }
    case 'admin': {
      const { refused } = await submitted(form, changes.admin, ({ personId, isAdmin }) =>
        setAdministrator(database(), admin, { personId, isAdmin: isAdmin === 'yes' }, now),
      );
      return refused ? refusedWith(refused.data.result) : said(staffWords.adminChanged);
    }
    case 'signOut': {
      const { refused } = await submitted(form, changes.signOut, ({ personId }) =>
        endSignIns(database(), admin, personId, now),
      );
      return refused ? refusedWith(refused.data.result) : said(staffWords.signInsEnded);
    }
    case 'devices': {
      const { refused } = await submitted(form, changes.devices, ({ personId, may }) =>
        letOpenDevices(database(), admin, { personId, may: may === 'yes' }, now),
      );
      return refused ? refusedWith(refused.data.result) : said(staffWords.devicesChanged);
    }
    case 'liftPin': {
      const { refused } = await submitted(form, changes.liftPin, ({ personId }) =>
        liftPinLock(database(), admin, personId, now),
      );
      return refused ? refusedWith(refused.data.result) : said(staffWords.pinLifted);
    }
    case 'back': {
      const { refused } = await submitted(form, changes.back, ({ personId }) =>
        reactivate(database(), admin, personId, now),
      );
      return refused ? refusedWith(refused.data.result) : said(staffWords.isBack);
    }
    default:
      return data({ of, result: undefined, passOn: null }, { status: 400 });
  }
});

const nameOf = async (admin: SchoolAdmin, personId: string) =>
  (await staffOfSchool(database(), admin)).flatMap(({ id, name }) => (id === personId ? [name] : []));

export const meta: Route.MetaFunction = () => [{ title: staffWords.pageTitle }];

/** Everybody who works at a school: asked to join, made administrators, let go. */
export default function Staff({ loaderData, actionData }: Route.ComponentProps) {
  const { staff, asked, you } = loaderData;
  const here = staff.filter(({ isOver }) => !isOver);
  const left = staff.filter(({ isOver }) => isOver);
  const resultOf = (of: string) => (actionData?.of === of ? actionData.result : undefined);
  return (
    <Page
      marginName={staffWords.askSomebody}
      margin={
        <section aria-label={staffWords.askSomebody}>
          <MarginTitle about={staffWords.aboutAsking}>{staffWords.askSomebody}</MarginTitle>
          <AskForm result={resultOf('ask')} />
          <p className="mt-8">
            <Link to="/school" className="font-semibold link">
              {staffWords.toTheSchool}
            </Link>
          </p>
        </section>
      }
    >
      <h1 className="text-3xl">{staffWords.title}</h1>
      <p className="mt-1.5 max-w-2xl text-small text-ink-2">{staffWords.about}</p>
      {actionData?.passOn && <PassOn {...actionData.passOn} />}
      <ul className="mt-4">
        {here.map((member) => (
          <li key={member.id} className="border-b border-rule py-3">
            <h2 className="text-base">
              {member.name}
              <span className="text-small font-normal text-ink-2">
                {member.id === you && ` · ${staffWords.you}`}
                {member.isAdmin && ` · ${staffWords.administrator}`}
              </span>
            </h2>
            <p className="text-small text-ink-2">{[member.work, member.email].filter(Boolean).join(' · ')}</p>
            <p className="text-small text-ink-2">{stateSaid(member)}</p>
            {member.id !== you && (
              <StaffChanges
                member={member}
                others={here.filter(({ id, isProven }) => id !== member.id && isProven)}
                resultOf={resultOf}
              />
            )}
          </li>
        ))}
      </ul>
      {asked.length > 0 && (
        <section aria-label={staffWords.open} className="mt-8">
          <h2 className="text-lg">{staffWords.open}</h2>
          <ul>
            {asked.map(({ id, name, email, isAdmin, until }) => (
              <li key={id} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2.5">
                <p>
                  <span className="font-semibold">{name}</span>
                  <span className="block text-small text-ink-2">
                    {[email, isAdmin && staffWords.administrator, staffWords.until(until)].filter(Boolean).join(' · ')}
                  </span>
                </p>
                <OneTap intent="takeBack" values={{ id }} label={staffWords.takeBackOf(name)}>
                  {staffWords.takeBack}
                </OneTap>
              </li>
            ))}
          </ul>
        </section>
      )}
      {left.length > 0 && (
        <section aria-label={staffWords.hadLeft} className="mt-8">
          <h2 className="text-lg">{staffWords.hadLeft}</h2>
          <ul>
            {left.map(({ id, name, until }) => (
              <li key={id} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2.5">
                <p>
                  <span className="font-semibold">{name}</span>{' '}
                  <span className="text-small text-ink-2">{until && staffWords.left(shortDate(until))}</span>
                </p>
                <OneTap intent="back" values={{ personId: id }} label={staffWords.bringBackOf(name)}>
                  {staffWords.bringBack}
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

type Member = Route.ComponentProps['loaderData']['staff'][number];

/** What somebody has to do here, and how they sign in: nothing of what they observed. */
function stateSaid({
  manages,
  teams,
  sessions,
  lastSeen,
  hasSecondFactor,
  isProven,
  opensDevices,
  isPinLocked,
}: Member): string {
  return [
    manages > 0 && staffWords.manages(counted(manages, 'student', 'students')),
    teams > 0 && (manages > 0 ? staffWords.onTeamsBesides : staffWords.onTeams)(counted(teams, 'team', 'teams')),
    manages + teams === 0 && staffWords.onNoTeam,
    sessions > 0 && lastSeen
      ? staffWords.signedIn(counted(sessions, 'device', 'devices'), lastSeen)
      : staffWords.notSignedIn,
    hasSecondFactor && staffWords.codeOn,
    opensDevices && staffWords.opensDevices,
    isPinLocked && staffWords.pinLocked,
    !isProven && staffWords.notProven,
  ]
    .filter(Boolean)
    .join(' · ');
}

function AskForm({ result }: { result: SubmissionResult<string[]> | undefined }) {
  const { form, fields, isBusy } = useSchemaForm(joinInput, { id: 'ask', result });
  const id = useFreshId(result);
  return (
    <SchemaForm form={form} intent="ask" className="grid gap-4">
      <input type="hidden" name="id" value={id} />
      <TextField field={fields.name} label={staffWords.name} />
      <TextField field={fields.email} label={staffWords.email} type="email" />
      <CheckField field={fields.isAdmin} label={staffWords.asAdmin} />
      <button type="submit" className="btn btn-primary" disabled={isBusy || id === ''}>
        {staffWords.ask}
      </button>
    </SchemaForm>
  );
}

/** What becomes of it: a message brings it; where no mail leaves, it is passed on by hand. */
function PassOn({ of, name, text, until }: ToPassOn) {
  const isAsking = of === 'ask';
  const title = isAsking ? staffWords.asked(name) : staffWords.codeFor(name);
  const how = isAsking ? staffWords.passCodeOn : staffWords.passPasswordOn(until ?? '');
  return (
    <section aria-label={title} className="mt-4 rounded-box border border-fern bg-fern-wash p-4">
      <h2 className="text-lg">{title}</h2>
      <p className="mt-1 text-small">
        {text ? how : isAsking ? staffWords.messageBrings : staffWords.passwordByMessage}
      </p>
      {text && (
        <input
          readOnly
          aria-label={isAsking ? staffWords.linkToPassOn : staffWords.codeToPassOn}
          value={text}
          onFocus={(event) => event.target.select()}
          className="input mt-3 w-full"
        />
      )}
    </section>
  );
}
