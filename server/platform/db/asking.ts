import type { Knex } from 'knex';

/** Who asks: somebody who has signed in, or whoever came by a link to one student. */
export type Asking = { personId: string; today: string } | { doorTo: string };

/** Tells a transaction who asks: the database's policies then show what they may see. */
export async function tell(trx: Knex.Transaction, asking: Asking): Promise<void> {
  if ('doorTo' in asking) await trx.raw(`select set_config('app.door', ?, true)`, [asking.doorTo]);
  else {
    const { personId, today } = asking;
    await trx.raw(`select set_config('app.person', ?, true), set_config('app.today', ?, true)`, [personId, today]);
  }
}
