import type { Database } from '../db/database';
import { NotFound } from '../failures';
import type { Actor } from '../students/students';

/**
 * Lets only those go on who set up the school.
 *
 * @throws NotFound for everyone else: for them there is nothing here
 */
export async function mustSetUp(db: Database, { personId }: Actor): Promise<void> {
  const row = await db('people').where({ id: personId, sets_up: true }).first('id');
  if (!row) throw new NotFound('There is nothing to set up here.');
}
