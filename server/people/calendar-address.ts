import { z } from 'zod';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { writeChange } from '../school/changes';
import { hashToken, newToken } from './tokens';

/** Whether there is an address at which somebody's due dates are fetched, and whether it names students. */
export async function calendarAddressOf(db: Database, personId: string): Promise<{ hasNames: boolean } | null> {
  const row = await db('calendar_addresses').where({ person_id: personId }).first('has_names');
  return row ? { hasNames: row.has_names } : null;
}

/**
 * Makes an address of one's own for a calendar program; the one before opens nothing any more.
 *
 * @returns its token, the only time it is known
 */
export async function makeCalendarAddress(
  db: Database,
  personId: string,
  { hasNames }: { hasNames: boolean },
  now: Date,
): Promise<string> {
  const token = newToken();
  const content = { token_hash: hashToken(token), has_names: hasNames, made_at: now };
  await db.transaction(async (trx) => {
    await trx('calendar_addresses')
      .insert({ person_id: personId, ...content })
      .onConflict('person_id')
      .merge(content);
    const after = { calendar: hasNames ? 'an address, with names' : 'an address, with initials' };
    await writeChange(trx, personId, { what: 'account', personId, before: null, after }, now);
  });
  return token;
}

/** Ends it: whoever has it fetches nothing any more. */
export async function endCalendarAddress(db: Database, personId: string, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const was = await trx('calendar_addresses').where({ person_id: personId }).delete();
    if (was === 0) return;
    const after = { calendar: 'no address' };
    await writeChange(trx, personId, { what: 'account', personId, before: null, after }, now);
  });
}

const behindRow = z.object({ personId: z.string(), hasNames: z.boolean(), timeZone: z.string() });

/** Whose address it is, while they work at a school; null for one that was never given out, or was ended. */
export async function personBehindCalendar(db: Database, token: string, now: Date) {
  const [found] = await rowsOf(
    db,
    behindRow,
    `select a.person_id as "personId", a.has_names as "hasNames", c.time_zone as "timeZone"
       from calendar_addresses a join school_staff s on s.person_id = a.person_id join schools c on c.id = s.school_id
      where a.token_hash = :hash
            and coalesce(s.until_date, 'infinity') >= cast(cast(:now as timestamptz) at time zone c.time_zone as date)
      order by c.name limit 1`,
    { hash: hashToken(token), now },
  );
  return found ?? null;
}
