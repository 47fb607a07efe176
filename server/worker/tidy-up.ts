import { BATCH_DAYS } from '~/core/progress-report/input';
import type { Database } from '../platform/db/database';

/** A browser that nobody has signed in from for so long is not known any more. */
const DEVICE_DAYS = 180;
/** However a session is used, it ends after this long: see `sessions.ts`. */
const SESSION_DAYS = 14;
/** A file that was looked through and did not come in is forgotten: it is full of names. */
const FILE_DAYS = 14;
const DAY = 24 * 3_600_000;

/** Clears what is over and opens nothing any more: ended sign-ins, used passes and links, counters of tries, files of groups. */
export async function tidyUp(db: Database, now: Date): Promise<void> {
  const before = (days: number) => new Date(now.getTime() - days * DAY);
  await db('sign_in_sessions')
    .where('created_at', '<', before(SESSION_DAYS))
    .orWhere('seen_at', '<', before(1))
    .delete();
  await db('half_sign_ins').where('made_at', '<', before(1)).delete();
  await db('share_link_passes').where('ends_at', '<', now).delete();
  await db('known_devices').where('seen_at', '<', before(DEVICE_DAYS)).delete();
  await db('imports').whereNull('done_at').where('made_at', '<', before(FILE_DAYS)).delete();
  await db('record_arrivals').whereNull('done_at').where('made_at', '<', before(FILE_DAYS)).delete();
  await db('rate_limits').where('expire', '<', now.getTime()).delete();
  await db.raw(
    `delete from share_link_tokens t using share_links l
      where l.id = t.link_id and (l.withdrawn_at is not null or l.ends_on < :day)`,
    { day: before(1) },
  );
  await db.raw(
    `delete from invitation_tokens t using invitations i
      where i.id = t.invitation_id
        and (i.accepted_at is not null or i.withdrawn_at is not null or i.declined_at is not null or i.ends_on < :day)`,
    { day: before(1) },
  );
  await db.raw(
    `delete from account_link_tokens t using account_links l
      where l.id = t.link_id and (l.used_at is not null or l.withdrawn_at is not null or l.ends_at < :at)`,
    { at: before(1) },
  );
  await db.transaction(async (trx) => {
    const over = await trx('document_batches')
      .whereNot({ state: 'over' })
      .where('made_at', '<', before(BATCH_DAYS))
      .update({ state: 'over' })
      .returning('id');
    const ids = over.map(({ id }) => id);
    if (ids.length > 0)
      await trx('document_batch_parts').whereIn('batch_id', ids).update({ document: null, pdf: null });
  });
}
