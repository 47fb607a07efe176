import { z } from 'zod';
import { roles } from '~/core/students/roles';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { passwordIsRight } from './passwords';

/** Somebody who may sign in. */
export interface Account {
  id: string;
  name: string;
  shortName: string;
  initials: string;
  /** What they do at the school, in words. */
  work: string;
  email: string;
}

/** Somebody who has signed in, at one of their schools. */
export interface Person extends Account {
  /** Whether they are an administrator of the school they are at: they keep its roster, its calendar and its goal bank. */
  isSchoolAdmin: boolean;
}

const columns = ['id', 'name', 'short_name as shortName', 'initials', 'work', 'email'];

/** How somebody is called in lists and beside entries: “O. Marchetti”, “OM”. */
export function namesOf(name: string): { short_name: string; initials: string } {
  const words = name.split(/\s+/).filter(Boolean);
  const letters = [words[0], words.length > 1 ? words.at(-1) : undefined].map((word) =>
    (Array.from(word ?? '')[0] ?? '').toUpperCase(),
  );
  return { initials: letters.join(''), short_name: words.length > 1 ? `${letters[0]}. ${words.at(-1)}` : name };
}

/** The person with this email address and password, or null: which of the two was wrong is not told. */
export async function personByPassword(db: Database, email: string, password: string): Promise<Account | null> {
  const row = await db('people')
    .whereRaw('lower(email) = lower(?)', [email])
    .first<Account & { password_hash: string }>([...columns, 'password_hash']);
  if (!(await passwordIsRight(row?.password_hash ?? null, password)) || !row) return null;
  const { password_hash: _, ...person } = row;
  return person;
}

/** Everybody’s short name by id, for entries that name somebody who has left the team. */
export async function peopleById(db: Database): Promise<Map<string, string>> {
  const people = await db('people').select<{ id: string; short_name: string }[]>('id', 'short_name');
  return new Map(people.map(({ id, short_name }) => [id, short_name]));
}

const demoPersonRow = z.object({
  id: z.string(),
  name: z.string(),
  initials: z.string(),
  work: z.string(),
  /** What they are on some student's team, and on how many. */
  roles: z.array(z.object({ role: z.enum(roles), students: z.number() })),
});
export type DemoPerson = z.infer<typeof demoPersonRow>;

/** The people that the sign-in page offers with one tap: none unless the school is the demo. */
export async function demoPeople(db: Database): Promise<DemoPerson[]> {
  return rowsOf(
    db,
    demoPersonRow,
    `select p.id, p.name, p.initials, p.work,
            (select coalesce(json_agg(r order by r.students desc), '[]')
               from (select d.role, d.students from demo_roles() d where d.person_id = p.id) r) as roles
       from people p
      where p.demo_order is not null and exists (select from school_staff a join schools c on c.id = a.school_id where a.person_id = p.id and c.is_demo)
      order by p.demo_order`,
  );
}
