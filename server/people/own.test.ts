import { randomUUID } from 'node:crypto';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addPerson,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
} from '~/tests/database/small-school';
import { composeAccountMessage } from '../messages/compose';
import { Invalid, NotAllowed, NotFound } from '../platform/failures';
import { requireSchoolAdmin, type SchoolAdmin } from '../school/administrators';
import { askToJoin, letChoosePassword, openJoins } from '../students/staff';
import { findAccountLink } from './account-links';
import { joinSchool } from './join';
import {
  askForEmail,
  changeOwnName,
  changePassword,
  choosePassword,
  endOwnSession,
  forgotPassword,
  proveEmail,
  sessionsOf,
} from './own';
import { hashPassword } from './passwords';
import { personByPassword } from './people';
import { beginSession, resumeSession } from './sessions';

const fresh = freshDatabase();
const OLD = 'nine brown hills roll';
const NEW = 'four odd kettles sing';
let school: SmallSchool;
let admin: SchoolAdmin;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await makeAdmin(fresh.db, school.manager);
  admin = await requireSchoolAdmin(fresh.db, actorOf(school.manager));
});
beforeEach(async () => {
  await fresh.db('rate_limits').delete();
});

const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const told = { now, readsOut: true };
const sent = { now, readsOut: false };

/** Somebody who works at the school, with an address that is proven, and a password. */
async function somebody(name: string) {
  const id = await addPerson(fresh.db, name, await hashPassword(OLD));
  await fresh
    .db('school_staff')
    .insert({ school_id: schoolId, person_id: id, from_date: '2026-09-01' })
    .onConflict()
    .ignore();
  const { email } = (await fresh.db('people').where({ id }).first('email'))!;
  return { id, email };
}

/** The link in the newest message to an address. */
async function linkTo(email: string, at = now) {
  const message = (await fresh.db('messages').where({ to_email: email }).orderBy('seq', 'desc').first())!;
  const about = {
    id: message.id,
    accountLinkId: message.account_link_id!,
    toName: message.to_name,
    toEmail: email,
    attempts: 1,
  };
  const composed = await composeAccountMessage(fresh.db, about, { publicUrl: 'https://here.example', now: at });
  return { composed, token: /by\/(\S+)/.exec(composed?.body ?? '')?.[1] ?? '' };
}

describe('joining a school', () => {
  const asked = { id: randomUUID(), name: 'Odile Marchetti', email: 'odile@home.example', isAdmin: true };
  const account = { name: 'Odile Marchetti', work: 'Speech', password: NEW };

  it('takes a link that came by message, once; only its hash is kept', async () => {
    expect(await askToJoin(fresh.db, admin, asked, sent)).toBeNull();
    expect(await askToJoin(fresh.db, admin, asked, sent)).toBeNull();
    expect((await openJoins(fresh.db, admin, now)).map(({ name }) => name)).toEqual(['Odile Marchetti']);
    const { composed, token } = await linkTo(asked.email);
    expect(composed?.subject).toMatch(/^You are asked to join /);
    expect(composed?.kept.body).not.toContain(token);
    const weak = { account: { ...account, password: 'odile marchetti' }, signedIn: null };
    await expect(joinSchool(fresh.db, token, weak, now)).rejects.toThrow(Invalid);
    const id = await joinSchool(fresh.db, token, { account, signedIn: null }, now);
    expect(await personByPassword(fresh.db, 'ODILE@home.example', NEW)).toMatchObject({ id, work: 'Speech' });
    const staff = await fresh.db('school_staff').where({ person_id: id }).first();
    expect(staff).toMatchObject({ school_id: schoolId, is_admin: true, from_date: today, until_date: null });
    await expect(joinSchool(fresh.db, token, { account, signedIn: null }, now)).rejects.toThrow(NotFound);
    expect(await openJoins(fresh.db, admin, now)).toEqual([]);
    await expect(askToJoin(fresh.db, admin, { ...asked, id: randomUUID() }, sent)).rejects.toMatchObject({
      fields: { email: 'Odile Marchetti works here already.' },
    });
  });

  it('is for the owner of an account alone, once there is one, and over after two weeks', async () => {
    const person = await somebody('Bela Kovacs');
    await fresh.db('school_staff').where({ person_id: person.id }).delete();
    const code = await askToJoin(fresh.db, admin, { ...asked, id: randomUUID(), email: person.email }, told);
    const take = (signedIn: string | null) => joinSchool(fresh.db, code ?? '', { account: null, signedIn }, now);
    await expect(take(null)).rejects.toThrow(NotAllowed);
    await expect(take(school.aide)).rejects.toThrow(NotAllowed);
    expect(await findAccountLink(fresh.db, code ?? '', later(15 * 24 * 60))).toBeNull();
    expect(await take(person.id)).toBe(person.id);
  });
});

describe('one’s own account', () => {
  it('has another name, which everything that was recorded carries', async () => {
    const { id } = await somebody('Ines Novak');
    await changeOwnName(fresh.db, { personId: id, schoolId }, { name: 'Ines Novak Berg', work: 'Kitchen' }, now);
    expect(await fresh.db('people').where({ id }).first('short_name', 'initials')).toEqual({
      ...{ short_name: 'I. Berg', initials: 'IB' },
    });
  });

  it('has another password, with the one there was; all other sign-ins end', async () => {
    const { id, email } = await somebody('Jan Maes');
    const [here, there] = [await beginSession(fresh.db, id, now), await beginSession(fresh.db, id, now)];
    const keep = (await resumeSession(fresh.db, here, now))!.sessionId;
    const change = (current: string, password: string) =>
      changePassword(fresh.db, { personId: id, keep }, { current, password }, now);
    await expect(change('a guess', NEW)).rejects.toMatchObject({ fields: { current: 'This is not your password.' } });
    await expect(change(OLD, 'password1234')).rejects.toMatchObject({ fields: { password: expect.any(String) } });
    await change(OLD, NEW);
    expect(await personByPassword(fresh.db, email, OLD)).toBeNull();
    expect(await resumeSession(fresh.db, here, now)).not.toBeNull();
    expect(await resumeSession(fresh.db, there, now)).toBeNull();
  });

  it('has another address once a message there was answered, and the old one until then', async () => {
    const { id, email } = await somebody('Kira Lund');
    const ask = (to: string, current = OLD) =>
      askForEmail(fresh.db, { personId: id, schoolId }, { email: to, current }, sent);
    await expect(ask('kira@new.example', 'a guess')).rejects.toThrow(Invalid);
    const other = await somebody('Lou Park');
    await expect(ask(other.email.toUpperCase())).rejects.toMatchObject({
      fields: { email: 'This address has an account.' },
    });
    // Where no mail leaves nothing would prove it: an address that somebody else is asked by is not taken.
    const toldOf = askForEmail(
      fresh.db,
      { personId: id, schoolId },
      { email: 'odile@new.example', current: OLD },
      told,
    );
    await expect(toldOf).rejects.toMatchObject({ fields: { email: expect.stringContaining('No mail leaves') } });
    await ask('first@new.example');
    const first = await linkTo('first@new.example');
    await ask('kira@new.example');
    const second = await linkTo('kira@new.example');
    expect((await fresh.db('people').where({ id }).first('email'))!.email).toBe(email);
    await expect(proveEmail(fresh.db, first.token, now)).rejects.toThrow(NotFound);
    expect(await proveEmail(fresh.db, second.token, now)).toBe('kira@new.example');
    expect((await personByPassword(fresh.db, 'kira@new.example', OLD))?.id).toBe(id);
    // A message that has not left by then leaves no more.
    expect((await linkTo('first@new.example')).composed).toBeNull();
  });

  it('shows where it is signed in, and ends one of them; nobody ends another’s', async () => {
    const { id } = await somebody('Mika Oja');
    await beginSession(fresh.db, id, now, { isShared: true });
    const here = (await resumeSession(fresh.db, await beginSession(fresh.db, id, now), now))!.sessionId;
    const all = await sessionsOf(fresh.db, id, here);
    expect(all.map(({ isThis, isShared }) => [isThis, isShared]).sort()).toEqual([
      [false, true],
      [true, false],
    ]);
    const other = all.find(({ isThis }) => !isThis)!.id;
    await endOwnSession(fresh.db, school.aide, other, now);
    expect(await sessionsOf(fresh.db, id, here)).toHaveLength(2);
    await endOwnSession(fresh.db, id, other, now);
    expect((await sessionsOf(fresh.db, id, here)).map((one) => one.id)).toEqual([here]);
  });
});

describe('a forgotten password', () => {
  it('is chosen anew by a link that works once, for an hour; nothing tells whether there is an account', async () => {
    const { id, email } = await somebody('Nils Orr');
    const forgot = (to: string) => forgotPassword(fresh.db, to, '192.0.2.7', now);
    expect(await forgot('nobody@home.example')).toBeNull();
    expect(await fresh.db('messages').where({ to_email: 'nobody@home.example' })).toEqual([]);
    expect(await forgot(email.toUpperCase())).toBeNull();
    const { token } = await linkTo(email);
    expect(await findAccountLink(fresh.db, token, later(61))).toBeNull();
    const session = await beginSession(fresh.db, id, now);
    await expect(choosePassword(fresh.db, token, 'qwertyuiop12', now)).rejects.toThrow(Invalid);
    expect(await choosePassword(fresh.db, token, NEW, now)).toBe(id);
    expect((await personByPassword(fresh.db, email, NEW))?.id).toBe(id);
    expect(await resumeSession(fresh.db, session, now)).toBeNull();
    await expect(choosePassword(fresh.db, token, OLD, now)).rejects.toThrow(NotFound);
  });

  it('is asked for a few times only', async () => {
    const { email } = await somebody('Pia Quist');
    const waits: (number | null)[] = [];
    for (let i = 0; i < 4; i++) waits.push(await forgotPassword(fresh.db, email, '192.0.2.8', now));
    expect(waits).toEqual([null, null, null, expect.any(Number)]);
  });

  it('is helped by an administrator’s code where no mail leaves, typed in any case; not for who works elsewhere too', async () => {
    const { id, email } = await somebody('Rosa Stein');
    const code = await letChoosePassword(fresh.db, admin, { personId: id, forgetsFactor: false }, told);
    expect(code).toMatch(/^([A-Z2-9]{4}-){3}[A-Z2-9]{4}$/);
    expect(await choosePassword(fresh.db, (code ?? '').toLowerCase().replaceAll('-', ' '), NEW, now)).toBe(id);
    expect((await personByPassword(fresh.db, email, NEW))?.id).toBe(id);
    const other = randomUUID();
    await fresh.db('schools').insert({ id: other, name: 'Other', time_zone: 'America/New_York', weekdays: [1] });
    await fresh.db('school_staff').insert({ school_id: other, person_id: id, from_date: '2026-09-01' });
    await expect(letChoosePassword(fresh.db, admin, { personId: id, forgetsFactor: false }, told)).rejects.toThrow(
      Invalid,
    );
    expect(await letChoosePassword(fresh.db, admin, { personId: id, forgetsFactor: false }, sent)).toBeNull();
  });
});
