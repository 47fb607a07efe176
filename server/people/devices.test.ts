import { randomUUID } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, makeAdmin, now, type SmallSchool, smallSchool, today } from '~/tests/database/small-school';
import { tell } from '../platform/db/asking';
import { Invalid, NotAllowed, NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import type { Actor } from '../school/school';
import {
  adultsAt,
  beginAtDevice,
  closeDevice,
  openDevice,
  openDevices,
  openedDevice,
  signInAtWithCode,
} from './devices';
import { lockSession, unlockSession } from './locks';
import { hashPassword } from './passwords';
import { forgetPinTries, hasPin, pinIsRight, savePin, TRIES_UNTIL_LOCKED, tryPin } from './pins';
import { completeHalf } from './second-factor';
import { beginSession, resumeSession } from './sessions';

const fresh = freshDatabase();
const PASSWORD = 'a long enough password';
const PIN = '2580';
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  const password_hash = await hashPassword(PASSWORD);
  await fresh.db('people').update({ password_hash });
  await savePin(fresh.db, school.manager, { pin: PIN, password: PASSWORD }, now);
  await fresh.db('school_staff').update({ opens_devices: true });
});
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const signedIn = async (token: string, at = now) => (await resumeSession(fresh.db, token, at))!;

describe('a PIN', () => {
  it('is given to whoever says their password, and that it was is written down without it', async () => {
    const wrong = savePin(fresh.db, school.manager, { pin: '1357', password: 'a guess' }, now);
    await expect(wrong).rejects.toThrow(Invalid);
    expect(await pinIsRight(fresh.db, school.manager, PIN)).toBe(true);
    expect(await pinIsRight(fresh.db, school.manager, '2581')).toBe(false);
    const written = JSON.stringify(await fresh.db('changes').where({ person_id: school.manager }));
    expect(written).toContain('a new one');
    expect(written).not.toContain(PIN);
  });

  it('is not given to who guesses at the password', async () => {
    const guess = (password: string) => savePin(fresh.db, school.aide, { pin: '1357', password }, now);
    for (let i = 0; i < 5; i++) await expect(guess(`guess ${i}`)).rejects.toThrow(Invalid);
    await expect(guess(PASSWORD)).rejects.toMatchObject({ fields: { password: expect.stringContaining('Wait') } });
  });

  it('is nobody’s who has none', async () => {
    expect(await hasPin(fresh.db, school.aide)).toBe(false);
    expect(await pinIsRight(fresh.db, school.aide, '')).toBe(false);
  });
});

describe('a locked sign-in', () => {
  it('opens by the PIN or the password, and ends after a few wrong tries', async () => {
    const token = await beginSession(fresh.db, school.manager, now);
    const session = await signedIn(token);
    expect(session.isLocked).toBe(false);
    await lockSession(fresh.db, session.sessionId, now);
    expect((await signedIn(token)).isLocked).toBe(true);
    expect(await unlockSession(fresh.db, session, '0000', now)).toBe('wrong');
    expect(await unlockSession(fresh.db, session, PIN, now)).toBe('open');
    expect((await signedIn(token)).isLocked).toBe(false);
    await lockSession(fresh.db, session.sessionId, now);
    expect(await unlockSession(fresh.db, session, PASSWORD, now)).toBe('open');
    const tries = [];
    for (let i = 0; i < 6; i++) tries.push(await unlockSession(fresh.db, session, `999${i}`, now));
    expect(tries.at(-1)).toBe('over');
    expect(await resumeSession(fresh.db, token, now)).toBeNull();
  });

  it('has lain there for too long only where the school wants it locked', async () => {
    const token = await beginSession(fresh.db, school.manager, now);
    expect((await signedIn(token, later(20))).isStale).toBe(false);
    await fresh.db('schools').update({ lock_minutes: 5 });
    expect((await signedIn(token, later(24))).isStale).toBe(false);
    expect(await signedIn(token, later(31))).toMatchObject({ isStale: true, lockMinutes: 5 });
    await fresh.db('schools').update({ lock_minutes: null });
  });
});

describe('a device of several adults', () => {
  beforeEach(() => forgetPinTries(fresh.db, school.manager));
  const open = async () => {
    const token = await openDevice(fresh.db, actorOf(school.manager), { id: randomUUID(), groupId: null }, now);
    return (await openedDevice(fresh.db, token))!;
  };

  it('offers who has a PIN, and begins for whom it is right', async () => {
    const device = await open();
    expect((await adultsAt(fresh.db, device, today)).map(({ id }) => id)).toEqual([school.manager]);
    const begin = (personId: string, pin: string) => beginAtDevice(fresh.db, device, { personId, pin, today }, now);
    expect(await begin(school.manager, '1111')).toEqual({ wrong: true });
    expect(await begin(school.aide, PIN)).toEqual({ wrong: true });
    const came = await begin(school.manager, PIN);
    expect('token' in came && (await signedIn(came.token)).person.id).toBe(school.manager);
    const row = await fresh.db('sign_in_sessions').orderBy('created_at', 'desc').where({ is_shared: true }).first();
    expect(row?.person_id).toBe(school.manager);
  });

  it('is one device when it is sent twice, and nobody else’s', async () => {
    const id = randomUUID();
    const tokenOf = (person: string) => openDevice(fresh.db, actorOf(person), { id, groupId: null }, now);
    const [first, again, foreign] = [
      await tokenOf(school.manager),
      await tokenOf(school.manager),
      await tokenOf(school.aide),
    ];
    expect(await openedDevice(fresh.db, first)).toBeNull();
    expect((await openedDevice(fresh.db, again))?.id).toBe(id);
    expect(await openedDevice(fresh.db, foreign)).toBeNull();
  });

  it('holds off who guesses, on however many devices, with ever longer waits, until an administrator lifts it', async () => {
    const devices = await Promise.all([open(), open(), open(), open()]);
    const guess = (n: number, pin: string, at = now) =>
      beginAtDevice(fresh.db, devices[n % 4]!, { personId: school.manager, pin, today }, at);
    for (let i = 0; i < 5; i++) expect(await guess(i, `100${i}`)).toEqual({ wrong: true });
    // The right one neither, and on no other device.
    for (let i = 0; i < 4; i++) expect(await guess(i, PIN)).toEqual({ waitMinutes: 1 });
    expect(await guess(1, '1234', later(1))).toEqual({ wrong: true });
    expect(await guess(2, PIN, later(2))).toEqual({ waitMinutes: 1 });
    let [at, wrong] = [later(3), 6];
    for (; wrong < TRIES_UNTIL_LOCKED; at = new Date(at.getTime() + 61 * 60_000), wrong++)
      expect(await guess(wrong, '1234', at)).toEqual({ wrong: true });
    expect(await guess(0, PIN, new Date(at.getTime() + 30 * 24 * 3_600_000))).toEqual({ waitMinutes: null });
    await forgetPinTries(fresh.db, school.manager);
    expect('token' in (await guess(0, PIN, at))).toBe(true);
  });

  it('counts tries at the same moment one after the other', async () => {
    const all = await Promise.all(Array.from({ length: 30 }, () => tryPin(fresh.db, school.manager, now)));
    expect(all.filter(({ isOpen }) => isOpen)).toHaveLength(5);
    await forgetPinTries(fresh.db, school.manager);
  });

  it('ends with the work of who opened it, or with their leave to', async () => {
    const device = await openDevice(fresh.db, actorOf(school.aide), { id: randomUUID(), groupId: null }, now);
    expect(await openedDevice(fresh.db, device)).not.toBeNull();
    const staff = () => fresh.db('school_staff').where({ person_id: school.aide });
    await staff().update({ opens_devices: false });
    expect(await openedDevice(fresh.db, device)).toBeNull();
    const more = openDevice(fresh.db, actorOf(school.aide), { id: randomUUID(), groupId: null }, now);
    await expect(more).rejects.toThrow(NotAllowed);
    await staff().update({ opens_devices: true, until_date: '2026-09-02' });
    expect(await openedDevice(fresh.db, device)).toBeNull();
    await staff().update({ until_date: null });
    const written = JSON.stringify(await fresh.db('changes').where({ changed_by: school.aide }));
    expect(written).toContain('opened for all staff');
  });

  it('opens nothing of the school, and is no second step', async () => {
    await makeAdmin(fresh.db, school.manager);
    const device = await open();
    const begin = (pin: string) => beginAtDevice(fresh.db, device, { personId: school.manager, pin, today }, now);
    // Four digits are too few for who sets up the school.
    expect(await begin(PIN)).toEqual({ wrong: true });
    const short = savePin(fresh.db, school.manager, { pin: '1357', password: PASSWORD }, now);
    await expect(short).rejects.toMatchObject({ fields: { pin: expect.stringContaining('6 to 8') } });
    await savePin(fresh.db, school.manager, { pin: '135792', password: PASSWORD }, now);
    const came = await begin('135792');
    const session = await signedIn((came as { token: string }).token);
    expect([session.isByPin, session.person.isSchoolAdmin]).toEqual([true, false]);
    await expect(requireSchoolAdmin(fresh.db, { ...actorOf(school.manager), isByPin: true })).rejects.toThrow(NotFound);
    const seen = (isByPin: boolean) =>
      fresh.db.transaction(async (trx) => {
        await tell(trx, { ...actorOf(school.manager), isByPin });
        return (await trx.raw('select cardinality(administered_schools()) as n')).rows[0].n;
      });
    expect([await seen(false), await seen(true)]).toEqual([1, 0]);

    await fresh.db('schools').update({ asks_second_factor: true });
    expect(await begin('135792')).toEqual({ needsPassword: true });
    const secret = new Secret({ size: 20 });
    await fresh
      .db('second_factors')
      .insert({ person_id: school.manager, secret: secret.base32, made_at: now, confirmed_at: now });
    const half = await begin('135792');
    const code = new TOTP({ secret }).generate({ timestamp: now.getTime() });
    const done = await completeHalf(fresh.db, (half as { half: string }).half, code, now);
    expect(done).toMatchObject({ personId: school.manager, deviceId: device.id });
    await signInAtWithCode(fresh.db, { deviceId: device.id, personId: school.manager, today }, now);
    expect('token' in (await begin('135792'))).toBe(true);
    // The next day it is asked again.
    const tomorrow = { personId: school.manager, pin: '135792', today: '2026-11-25' };
    expect('half' in (await beginAtDevice(fresh.db, device, tomorrow, now))).toBe(true);
    await fresh.db('schools').update({ asks_second_factor: false });
  });

  it('is closed for good, by its own school', async () => {
    const token = await openDevice(fresh.db, actorOf(school.manager), { id: randomUUID(), groupId: null }, now);
    const { id } = (await openedDevice(fresh.db, token))!;
    const elsewhere = { ...actorOf(school.manager), schoolId: randomUUID() };
    const close = (actor: Actor, isAdmin = false) => closeDevice(fresh.db, actor, { id, isAdmin }, now);
    await expect(close(elsewhere, true)).rejects.toThrow(NotFound);
    await expect(close(actorOf(school.aide))).rejects.toThrow(NotFound);
    await close(actorOf(school.manager));
    expect(await openedDevice(fresh.db, token)).toBeNull();
    const open = await openDevices(fresh.db, actorOf(school.manager));
    expect(open.map((device) => device.id)).not.toContain(id);
    const elsewheres = { id: randomUUID(), groupId: randomUUID() };
    await expect(openDevice(fresh.db, actorOf(school.manager), elsewheres, now)).rejects.toThrow(NotFound);
  });
});
