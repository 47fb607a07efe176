import type { Database } from '../platform/db/database';
import { existing, Invalid } from '../platform/failures';
import { countTry, uncountTry } from './attempts';
import { passwordIsRight } from './passwords';

/**
 * Asks somebody who is signed in for their password, before something of their account is changed: whoever merely finds a device open does
 * not have it.
 *
 * @param field  where a wrong one is told
 * @throws Invalid where it is wrong, or was too often
 */
export async function expectOwnPassword(
  db: Database,
  personId: string,
  password: string,
  field: 'password' | 'current' = 'password',
): Promise<void> {
  const wait = await countTry(db, 'pin', personId, 'password');
  if (wait !== null) throw new Invalid({ [field]: `Too many tries. Wait ${wait} min, then try again.` });
  const { password_hash } = existing(await db('people').where({ id: personId }).first('password_hash'));
  if (!(await passwordIsRight(password_hash, password))) throw new Invalid({ [field]: 'This is not your password.' });
  await uncountTry(db, 'pin', personId, 'password');
}
