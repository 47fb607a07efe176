import { TOTP } from 'otpauth';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { makeAdmin, now, type SmallSchool, schoolId, smallSchool } from '~/tests/database/small-school';
import { Invalid, NotFound } from '../platform/failures';
import { hashPassword } from './passwords';
import {
  beginHalf,
  beginSecondFactor,
  completeHalf,
  confirmSecondFactor,
  endSecondFactor,
  isHalfway,
  secondFactorOf,
} from './second-factor';
import { beginSession, resumeSession } from './sessions';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});
beforeEach(async () => {
  await fresh.db('rate_limits').delete();
  await fresh.db('recovery_codes').delete();
  await fresh.db('second_factors').delete();
});

const HALF_MINUTE = 30_000;
const on = (halfMinutes: number) => new Date(now.getTime() + halfMinutes * HALF_MINUTE);
/** What an authenticator shows at a moment: made by the package, whose values are held against the standard below. */
const shown = (secret: string, at: Date) => new TOTP({ secret }).generate({ timestamp: at.getTime() });
const me = () => ({ id: school.manager, email: 'ada@school.example' });

async function inUse() {
  const { secret } = (await beginSecondFactor(fresh.db, me(), now))!;
  const codes = await confirmSecondFactor(fresh.db, school.manager, shown(secret, now), now);
  return { secret, codes };
}
const half = (code: string, at: Date) =>
  beginHalf(fresh.db, school.manager, false, at).then((token) => completeHalf(fresh.db, token, code, at));

describe('a code beside the password', () => {
  it('is as RFC 6238, appendix B, has it', async () => {
    // The secret of the appendix is “12345678901234567890”, in base 32; its eight digits end in the six that authenticators show.
    const secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
    const values = { 59: '94287082', 1111111109: '07081804', 1111111111: '14050471', 20000000000: '65353130' };
    for (const [second, code] of Object.entries(values)) {
      const at = new Date(Number(second) * 1000);
      await fresh.db('second_factors').insert({ person_id: school.manager, secret, made_at: at });
      await confirmSecondFactor(fresh.db, school.manager, code.slice(2), at);
      await fresh.db('second_factors').delete();
    }
  });

  it('is in use once its first code was typed, and the secret stays the same until then', async () => {
    const begun = (await beginSecondFactor(fresh.db, me(), now))!;
    expect(begun.uri).toMatch(/^otpauth:\/\/totp\/Gentle%20Margin:ada%40school\.example\?/);
    expect((await beginSecondFactor(fresh.db, me(), now))?.secret).toBe(begun.secret);
    expect((await secondFactorOf(fresh.db, school.manager)).isOn).toBe(false);
    await expect(confirmSecondFactor(fresh.db, school.manager, '000000', now)).rejects.toThrow(Invalid);
    const codes = await confirmSecondFactor(fresh.db, school.manager, shown(begun.secret, now), now);
    expect(new Set(codes).size).toBe(8);
    expect(await secondFactorOf(fresh.db, school.manager)).toEqual({ isOn: true, codesLeft: 8 });
    expect(await beginSecondFactor(fresh.db, me(), now)).toBeNull();
  });

  it('may be of a clock that is off by half a minute, and is taken once', async () => {
    const { secret } = await inUse();
    // The one it was taken into use with was taken.
    expect(await half(shown(secret, now), now)).toEqual({ isWrong: true });
    expect(await half(shown(secret, on(5)), on(4))).toMatchObject({ personId: school.manager });
    expect(await half(shown(secret, on(5)), on(5))).toEqual({ isWrong: true });
    expect(await half(shown(secret, on(7)), on(8))).toMatchObject({ personId: school.manager });
    expect(await half(shown(secret, on(10)), on(12))).toEqual({ isWrong: true });
  });

  it('is stood in for by a recovery code, once, in any case', async () => {
    const { codes } = await inUse();
    const first = codes[0]!.toLowerCase().replaceAll('-', '');
    expect(await half(first, on(3))).toMatchObject({ personId: school.manager, isShared: false });
    expect(await half(first, on(4))).toEqual({ isWrong: true });
    expect(await secondFactorOf(fresh.db, school.manager)).toEqual({ isOn: true, codesLeft: 7 });
  });

  it('is guessed ten times in a quarter of an hour, and waited for ten minutes', async () => {
    const { secret } = await inUse();
    const token = await beginHalf(fresh.db, school.manager, true, now);
    for (let i = 0; i < 10; i++)
      expect(await completeHalf(fresh.db, token, '000000', on(2))).toEqual({ isWrong: true });
    expect(await completeHalf(fresh.db, token, shown(secret, on(2)), on(2))).toEqual({
      waitMinutes: expect.any(Number),
    });
    expect(await isHalfway(fresh.db, token, on(21))).toBe(false);
    await expect(completeHalf(fresh.db, token, shown(secret, on(21)), on(21))).rejects.toThrow(NotFound);
  });

  it('is turned off with the password', async () => {
    await inUse();
    await fresh
      .db('people')
      .where({ id: school.manager })
      .update({ password_hash: await hashPassword('nine brown hills') });
    await expect(endSecondFactor(fresh.db, school.manager, 'a guess', now)).rejects.toThrow(Invalid);
    await endSecondFactor(fresh.db, school.manager, 'nine brown hills', now);
    expect((await secondFactorOf(fresh.db, school.manager)).isOn).toBe(false);
  });

  it('is asked for by a school of whoever shares reports, or administers, and of nobody else', async () => {
    await fresh.db('schools').where({ id: schoolId }).update({ asks_second_factor: true });
    const needs = async (id: string) =>
      (await resumeSession(fresh.db, await beginSession(fresh.db, id, now), now))?.needsFactor;
    expect([await needs(school.manager), await needs(school.aide), await needs(school.stranger)]).toEqual([
      true,
      false,
      false,
    ]);
    await makeAdmin(fresh.db, school.stranger);
    expect(await needs(school.stranger)).toBe(true);
    await inUse();
    expect(await needs(school.manager)).toBe(false);
    await fresh.db('schools').where({ id: schoolId }).update({ asks_second_factor: false });
  });
});
