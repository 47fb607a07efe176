import { verify } from '@node-rs/argon2';
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { addPerson, now, schoolId } from '~/tests/database/small-school';
import { canOpenLink, countUnknownLink } from './attempts';
import { hashPassword, passwordIsRight } from './passwords';
import { personByPassword } from './people';
import { beginSession, endAllSessions, endSession, resumeSession } from './sessions';
import { rememberDevice, type SignInAnswer, signIn } from './sign-in';

vi.mock('@node-rs/argon2', async (original) => {
  const real = await original<typeof import('@node-rs/argon2')>();
  return { ...real, verify: vi.fn(real.verify) };
});

const fresh = freshDatabase();
let person: string;
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const HOUR = 60;

beforeAll(async () => {
  await fresh.db('schools').insert({ id: schoolId, name: 'S', time_zone: 'UTC', weekdays: [1] });
  person = await addPerson(fresh.db, 'manager', await hashPassword('right one'));
});

describe('passwords', () => {
  it('are kept as argon2id, salted, and only the right one is right', async () => {
    const [a, b] = await Promise.all([hashPassword('same'), hashPassword('same')]);
    expect(a).toMatch(/^\$argon2id\$/);
    expect(a).not.toBe(b);
    expect(await passwordIsRight(a, 'same')).toBe(true);
    expect(await passwordIsRight(a, 'Same')).toBe(false);
    expect(await passwordIsRight(null, 'same')).toBe(false);
  });

  it('let the right person in, whatever the case of the address, and hand out no hash', async () => {
    const found = await personByPassword(fresh.db, 'MANAGER@School.example', 'right one');
    expect(found?.id).toBe(person);
    expect(found).not.toHaveProperty('password_hash');
    expect(await personByPassword(fresh.db, 'manager@school.example', 'wrong')).toBeNull();
    expect(await personByPassword(fresh.db, 'nobody@school.example', 'right one')).toBeNull();
  });

  it('cost an unknown account the same work as a wrong password', async () => {
    const workFor = async (email: string) => {
      vi.mocked(verify).mockClear();
      await personByPassword(fresh.db, email, 'wrong');
      // The hash that was worked through: its settings decide how long that takes.
      return vi.mocked(verify).mock.calls.map(([hash]) => String(hash).split('$').slice(0, 4).join('$'));
    };
    const known = await workFor('manager@school.example');
    expect(known).toEqual([expect.stringMatching(/^\$argon2id\$v=19\$m=19456,t=2,p=1$/)]);
    expect(await workFor('nobody@school.example')).toEqual(known);
  });
});

describe('sessions', () => {
  it('are found by their token, of which only the hash is stored', async () => {
    const token = await beginSession(fresh.db, person, now);
    expect((await resumeSession(fresh.db, token, later(1)))?.person.name).toBe('manager');
    const stored = await fresh.db('sign_in_sessions').select();
    expect(JSON.stringify(stored)).not.toContain(token);
    expect(await resumeSession(fresh.db, `${token}x`, later(1))).toBeNull();
  });

  it('rotate after an hour: the old token holds for a minute more, then never again', async () => {
    const token = await beginSession(fresh.db, person, now);
    const rotated = await resumeSession(fresh.db, token, later(61));
    expect(rotated?.newToken).toBeTruthy();
    expect(await resumeSession(fresh.db, token, later(61.5))).not.toBeNull();
    expect(await resumeSession(fresh.db, token, later(63))).toBeNull();
    expect((await resumeSession(fresh.db, rotated?.newToken as string, later(63)))?.newToken).toBeNull();
  });

  it('rotate once, however many requests come at the same time', async () => {
    const token = await beginSession(fresh.db, person, now);
    const answers = await Promise.all(Array.from({ length: 4 }, () => resumeSession(fresh.db, token, later(90))));
    expect(answers.filter((answer) => answer?.newToken)).toHaveLength(1);
    expect(answers.every((answer) => answer !== null)).toBe(true);
  });

  it('end when unused for twelve hours, and after two weeks in any case', async () => {
    const idle = await beginSession(fresh.db, person, now);
    expect(await resumeSession(fresh.db, idle, later(12.1 * HOUR))).toBeNull();
    let token = await beginSession(fresh.db, person, now);
    for (let hours = 10; hours < 14 * 24; hours += 10) {
      token = (await resumeSession(fresh.db, token, later(hours * HOUR)))?.newToken ?? token;
    }
    expect(await resumeSession(fresh.db, token, later(14 * 24 * HOUR + 1))).toBeNull();
  });

  it('end sooner on a tablet that others use too, as the school says', async () => {
    await fresh.db('schools').update({ shared_idle_minutes: 30, idle_minutes: 90 });
    const [shared, own] = [
      await beginSession(fresh.db, person, now, { isShared: true }),
      await beginSession(fresh.db, person, now),
    ];
    expect(await resumeSession(fresh.db, shared, later(29))).not.toBeNull();
    expect(await resumeSession(fresh.db, shared, later(60))).toBeNull();
    expect(await resumeSession(fresh.db, own, later(60))).not.toBeNull();
    expect(await resumeSession(fresh.db, own, later(60 + 91))).toBeNull();
    await fresh.db('schools').update({ shared_idle_minutes: 60, idle_minutes: 720 });
  });

  it('end by signing out: this one, or all', async () => {
    const [a, b, c] = [
      await beginSession(fresh.db, person, now),
      await beginSession(fresh.db, person, now),
      await beginSession(fresh.db, person, now),
    ];
    await endSession(fresh.db, a);
    expect(await resumeSession(fresh.db, a, now)).toBeNull();
    expect(await resumeSession(fresh.db, b, now)).not.toBeNull();
    await endAllSessions(fresh.db, person, now);
    expect(await resumeSession(fresh.db, b, now)).toBeNull();
    expect(await resumeSession(fresh.db, c, now)).toBeNull();
  });
});

describe('too many tries', () => {
  const attempt = (
    password: string,
    { email = 'manager@school.example', address = '10.0.0.1', device = null as string | null } = {},
  ) => signIn(fresh.db, { email, password, address, device }, now);
  const kindOf = (answer: SignInAnswer) => Object.keys(answer)[0];
  beforeEach(async () => {
    await fresh.db('rate_limits').delete();
  });

  it('are counted before the password is looked at: a hundred at once are eight', async () => {
    vi.mocked(verify).mockClear();
    const answers = await Promise.all(Array.from({ length: 100 }, () => attempt('wrong')));
    const count = (kind: string) => answers.filter((answer) => kindOf(answer) === kind).length;
    expect([count('wrong'), count('waitMinutes')]).toEqual([8, 92]);
    expect(vi.mocked(verify)).toHaveBeenCalledTimes(8);
    expect(kindOf(await attempt('right one', { email: 'MANAGER@school.example' }))).toBe('waitMinutes');
  });

  it('from one address shut out nobody who signs in from another, nor anybody else there', async () => {
    for (let i = 0; i < 9; i++) await attempt('wrong');
    expect(kindOf(await attempt('right one', { address: '10.0.0.2' }))).toBe('person');
    await addPerson(fresh.db, 'colleague', await hashPassword('hers'));
    expect(kindOf(await attempt('hers', { email: 'colleague@school.example' }))).toBe('person');
  });

  it('leave a browser alone in which the person has signed in before', async () => {
    const device = await rememberDevice(fresh.db, person, null, now);
    expect(await rememberDevice(fresh.db, person, device, now)).toBe(device);
    for (let i = 0; i < 9; i++) await attempt('wrong');
    expect(kindOf(await attempt('right one'))).toBe('waitMinutes');
    expect(kindOf(await attempt('right one', { device }))).toBe('person');
    // The same browser is no friend of another account, and a made-up one of nobody.
    for (let i = 0; i < 9; i++) await attempt('wrong', { email: 'colleague@school.example' });
    expect(kindOf(await attempt('hers', { email: 'colleague@school.example', device }))).toBe('waitMinutes');
    expect(kindOf(await attempt('right one', { device: 'made up' }))).toBe('waitMinutes');
    for (let i = 0; i < 8; i++) await attempt('wrong', { device });
    expect(kindOf(await attempt('right one', { device }))).toBe('waitMinutes');
  });

  it('are forgotten by a right one', async () => {
    for (let i = 0; i < 30; i++) expect(kindOf(await attempt('right one'))).toBe('person');
  });

  it('close the door to an address that guesses links', async () => {
    for (let i = 0; i < 20; i++) {
      expect(await canOpenLink(fresh.db, '10.1.1.1')).toBe(true);
      await countUnknownLink(fresh.db, '10.1.1.1');
    }
    expect(await canOpenLink(fresh.db, '10.1.1.1')).toBe(false);
    expect(await canOpenLink(fresh.db, '10.1.1.2')).toBe(true);
  });
});
