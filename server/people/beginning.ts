import { randomUUID } from 'node:crypto';
import { wallTime } from '~/core/calendar/zone';
import type { BeginningInput } from '~/core/people/beginning-input';
import type { Database } from '../platform/db/database';
import { Invalid, NotFound } from '../platform/failures';
import { writeChange } from '../school/changes';
import { schoolIfAny } from '../school/school';
import { countTry } from './attempts';
import { newCode, plainCode } from './codes';
import { expectStrong, hashPassword } from './passwords';
import { namesOf } from './people';
import { hashToken } from './tokens';

/**
 * A code that opens the set-up of an installation that has no school yet, once; the one before it no longer does.
 *
 * @returns the code, of 80 random bits, the only time it is known
 */
export async function newSetUpCode(db: Database, now: Date): Promise<string> {
  const code = newCode(4);
  const row = { code_hash: hashToken(plainCode(code)), made_at: now };
  await db('set_up_codes').insert(row).onConflict('only_one').merge(row);
  return code;
}

/**
 * Begins with a school, its time zone and its first administrator. Of several at once, one does.
 *
 * @returns the administrator
 * @throws NotFound where there is a school already; Invalid for a wrong code, or too many tries
 */
export async function beginSchool(db: Database, input: BeginningInput, now: Date): Promise<string> {
  if (await schoolIfAny(db)) throw new NotFound('There is a school already.');
  const wait = await countTry(db, 'setUp');
  if (wait !== null) throw new Invalid({ code: `Too many tries. Wait ${wait} min, then try again.` });
  await expectStrong(input, input.password);
  const passwordHash = await hashPassword(input.password);
  return db.transaction(async (trx) => {
    const known = await trx('set_up_codes')
      .where({ code_hash: hashToken(plainCode(input.code)) })
      .forUpdate()
      .first();
    if (await schoolIfAny(trx)) throw new NotFound('There is a school already.');
    if (!known) throw new Invalid({ code: 'This is not the code that the start command printed last.' });
    await trx('set_up_codes').delete();
    const schoolId = randomUUID();
    await trx('schools').insert({
      id: schoolId,
      name: input.school,
      time_zone: input.timeZone,
      weekdays: [1, 2, 3, 4, 5],
    });
    const personId = randomUUID();
    await trx('people').insert({
      ...{ id: personId, name: input.name, work: input.work, email: input.email, ...namesOf(input.name) },
      ...{ password_hash: passwordHash, email_proven_at: now },
    });
    const { on: from_date } = wallTime(now, input.timeZone);
    await trx('school_staff').insert({ school_id: schoolId, person_id: personId, is_admin: true, from_date });
    const after = { name: input.name, email: input.email, setsUp: true };
    const account = { what: 'account', schoolId, personId, before: null, after } as const;
    await writeChange(trx, personId, account, now);
    return personId;
  });
}
