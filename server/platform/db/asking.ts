import type { Knex } from 'knex';

/** Who asks: somebody who has signed in, or whoever came by a link to one student. */
export type Asking = { personId: string; today: string; isByPin?: boolean } | { doorTo: string };

/** Tells a transaction who asks: the database's policies then show what they may see. */
export async function tell(trx: Knex, asking: Asking): Promise<void> {
  if ('doorTo' in asking) await trx.raw(`select set_config('app.door', ?, true)`, [asking.doorTo]);
  else {
    const { personId, today, isByPin } = asking;
    await trx.raw(
      `select set_config('app.person', ?, true), set_config('app.today', ?, true), set_config('app.by_pin', ?, true)`,
      [personId, today, isByPin ? 'yes' : ''],
    );
  }
}

/**
 * Does something at the door of another student, within the transaction of one who came by their own: what a classmate says of who
 * presents is written among the presenter's rows. The caller has checked that the one has to do with the other.
 */
export async function throughDoor(
  trx: Knex,
  { to, from }: { to: string; from: string },
  work: () => Promise<void>,
): Promise<void> {
  const door = (student: string) => trx.raw(`select set_config('app.door', ?, true)`, [student]);
  await door(to);
  await work();
  await door(from);
}
