import { Secret, TOTP } from 'otpauth';
import type { Database } from '../platform/db/database';
import { existing, Invalid, NotFound } from '../platform/failures';
import { writeChange } from '../school/changes';
import { countTry, uncountTry } from './attempts';
import { newCode, plainCode } from './codes';
import { expectOwnPassword } from './own-password';
import { hashToken, newToken } from './tokens';

/** As authenticators take it for granted (RFC 6238, and common practice): six digits, every half minute, SHA-1. */
const usual = { algorithm: 'SHA1', digits: 6, period: 30 } as const;
/** A clock may be off by so many half minutes. */
const OFF_BY = 1;
const CODES = 8;
/** A right password waits so long for its code. */
const HALF_MINUTES = 10;

const totpOf = (secret: string, label = '') =>
  new TOTP({ ...usual, issuer: 'Gentle Margin', label, secret: Secret.fromBase32(secret) });

/** Whether somebody types a code beside their password, and how many recovery codes are left. */
export async function secondFactorOf(db: Database, personId: string): Promise<{ isOn: boolean; codesLeft: number }> {
  const [row, codes] = await Promise.all([
    db('second_factors').where({ person_id: personId }).whereNotNull('confirmed_at').first('person_id'),
    db('recovery_codes').where({ person_id: personId, used_at: null }).pluck('code_hash'),
  ]);
  return { isOn: row !== undefined, codesLeft: row ? codes.length : 0 };
}

/**
 * What an authenticator needs to begin: the same until a code of it was typed.
 *
 * @returns an address in the form `otpauth://totp/…`, and its secret to be typed where no picture can be read; null where one is in use
 */
export async function beginSecondFactor(
  db: Database,
  person: { id: string; email: string },
  now: Date,
): Promise<{ uri: string; secret: string } | null> {
  const fresh = { secret: new Secret({ size: 20 }).base32, made_at: now };
  await db('second_factors')
    .insert({ person_id: person.id, ...fresh })
    .onConflict('person_id')
    .ignore();
  const { secret, confirmed_at } = existing(await db('second_factors').where({ person_id: person.id }).first());
  return confirmed_at ? null : { secret, uri: totpOf(secret, person.email).toString() };
}

/**
 * Takes an authenticator into use, once a code of it was typed.
 *
 * @returns recovery codes, each of which stands in for a code once: the only time they are known
 * @throws Invalid for a wrong code
 */
export async function confirmSecondFactor(db: Database, personId: string, code: string, now: Date): Promise<string[]> {
  return db.transaction(async (trx) => {
    const row = await trx('second_factors').where({ person_id: personId, confirmed_at: null }).forUpdate().first();
    if (!row) throw new NotFound('Nothing was begun.');
    const step = stepOf(row.secret, code, now);
    if (step === null) throw new Invalid({ code: 'This is not the code that the authenticator shows now.' });
    await trx('second_factors')
      .where({ person_id: personId })
      .update({ confirmed_at: now, last_step: String(step) });
    const codes = Array.from({ length: CODES }, () => newCode(3));
    await trx('recovery_codes').where({ person_id: personId }).delete();
    await trx('recovery_codes').insert(
      codes.map((one) => ({ person_id: personId, code_hash: hashToken(plainCode(one)) })),
    );
    await writeFactor(trx, personId, personId, true, now);
    return codes;
  });
}

/**
 * Does without a code again.
 *
 * @throws Invalid for a wrong password, or after too many tries
 */
export async function endSecondFactor(db: Database, personId: string, password: string, now: Date): Promise<void> {
  await expectOwnPassword(db, personId, password);
  await db.transaction((trx) => removeSecondFactor(trx, personId, personId, now));
}

/** Takes somebody's authenticator out of use, who lost it with their codes. Ask whether `by` may. */
export async function removeSecondFactor(db: Database, personId: string, by: string, now: Date): Promise<void> {
  await db('recovery_codes').where({ person_id: personId }).delete();
  const was = await db('second_factors').where({ person_id: personId }).delete();
  if (was > 0) await writeFactor(db, personId, by, false, now);
}

const writeFactor = (db: Database, personId: string, by: string, isOn: boolean, now: Date) =>
  writeChange(
    db,
    by,
    { what: 'account', personId, before: { codeBesidePassword: !isOn }, after: { codeBesidePassword: isOn } },
    now,
  );

/** The half minute that a code is of, in those since 1970; null for a wrong one. */
function stepOf(secret: string, code: string, now: Date): number | null {
  const delta = totpOf(secret).validate({ token: code.replace(/\s/g, ''), timestamp: now.getTime(), window: OFF_BY });
  return delta === null ? null : Math.floor(now.getTime() / 1000 / usual.period) + delta;
}

/** Holds a code against somebody's authenticator, or their recovery codes; each is good once. */
async function takeCode(db: Database, personId: string, code: string, now: Date): Promise<boolean> {
  return db.transaction(async (trx) => {
    const row = await trx('second_factors').where({ person_id: personId }).forUpdate().first();
    if (!row?.confirmed_at) return false;
    const step = stepOf(row.secret, code, now);
    if (step !== null) {
      if (row.last_step !== null && step <= Number(row.last_step)) return false;
      await trx('second_factors')
        .where({ person_id: personId })
        .update({ last_step: String(step) });
      return true;
    }
    const used = await trx('recovery_codes')
      .where({ person_id: personId, code_hash: hashToken(plainCode(code)), used_at: null })
      .update({ used_at: now });
    if (used === 0) return false;
    const left = await trx('recovery_codes').where({ person_id: personId, used_at: null }).pluck('code_hash');
    const after = { recoveryCode: `used, ${left.length} left` };
    await writeChange(trx, personId, { what: 'account', personId, before: null, after }, now);
    return true;
  });
}

/** Remembers whose password was right, until their code is. @returns the token of it */
export async function beginHalf(
  db: Database,
  personId: string,
  isShared: boolean,
  now: Date,
  deviceId: string | null = null,
): Promise<string> {
  const token = newToken();
  await db('half_sign_ins').insert({
    ...{ token_hash: hashToken(token), person_id: personId, is_shared: isShared, made_at: now, device_id: deviceId },
  });
  return token;
}

/** Whether a half sign-in is still waiting for its code. */
export async function isHalfway(db: Database, token: string, now: Date): Promise<boolean> {
  return (await halfOf(db, token, now)) !== undefined;
}

const halfOf = (db: Database, token: string, now: Date) =>
  db('half_sign_ins')
    .where({ token_hash: hashToken(token) })
    .where('made_at', '>', new Date(now.getTime() - HALF_MINUTES * 60_000))
    .first();

export type HalfAnswer =
  /** With the shared device at which it was begun by a PIN. */
  { personId: string; isShared: boolean; deviceId: string | null } | { waitMinutes: number } | { isWrong: true };

/**
 * Completes a sign-in with a code of the authenticator, or a recovery code.
 *
 * @throws NotFound where there is none that waits, or no longer
 */
export async function completeHalf(db: Database, token: string, code: string, now: Date): Promise<HalfAnswer> {
  const half = await halfOf(db, token, now);
  if (!half) throw new NotFound('The sign-in took too long. Begin again.');
  const personId = half.person_id;
  const waitMinutes = await countTry(db, 'secondFactor', personId);
  if (waitMinutes !== null) return { waitMinutes };
  if (!(await takeCode(db, personId, code, now))) return { isWrong: true };
  await uncountTry(db, 'secondFactor', personId);
  await db('half_sign_ins').where({ person_id: personId }).delete();
  return { personId, isShared: half.is_shared, deviceId: half.device_id };
}
