import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, type SmallSchool, smallSchool, today } from '~/tests/database/small-school';
import { Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { adultsAt, beginAtDevice, closeDevice, openDevice, openDevices, openedDevice } from './devices';
import { lockSession, unlockSession } from './locks';
import { hashPassword } from './passwords';
import { hasPin, pinIsRight, savePin } from './pins';
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

  it('holds off who guesses, at that device alone', async () => {
    const [one, other] = [await open(), await open()];
    const guess = (device: typeof one, pin: string) =>
      beginAtDevice(fresh.db, device, { personId: school.manager, pin, today }, now);
    for (let i = 0; i < 5; i++) await guess(one, `100${i}`);
    expect(await guess(one, PIN)).toEqual({ waitMinutes: expect.any(Number) });
    expect('token' in (await guess(other, PIN))).toBe(true);
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
