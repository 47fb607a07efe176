import { passwordIsRight } from '../access/passwords';
import type { Database } from '../db/database';

export interface Person {
  id: string;
  name: string;
  shortName: string;
  initials: string;
  /** What they do at the school, in words. */
  work: string;
  email: string;
}

const columns = ['id', 'name', 'short_name as shortName', 'initials', 'work', 'email'];

/** The person with this e-mail address and password, or null: which of the two was wrong is not told. */
export async function personByPassword(db: Database, email: string, password: string): Promise<Person | null> {
  const row = await db('people')
    .whereRaw('lower(email) = lower(?)', [email])
    .first<Person & { password_hash: string }>([...columns, 'password_hash']);
  if (!(await passwordIsRight(row?.password_hash ?? null, password)) || !row) return null;
  const { password_hash: _, ...person } = row;
  return person;
}

/** The people that the sign-in page offers with one tap: none unless the school is the demo. */
export async function demoPeople(db: Database): Promise<Person[]> {
  return db('people')
    .whereNotNull('demo_order')
    .whereExists(db('school').where({ is_demo: true }))
    .orderBy('demo_order')
    .select<Person[]>(columns);
}
