import type { Database } from '../db/database';

/** What is written down of a change of rights: what it was about, and how it was before and after. */
export interface Change {
  studentId: string | null;
  what: 'case manager' | 'member of the team' | 'invitation';
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
}

/** Writes down a change of who may do what; it is never changed again. Call it in the transaction of the change itself. */
export async function writeChange(db: Database, personId: string, change: Change, now: Date): Promise<void> {
  const { studentId, what, before, after } = change;
  if (JSON.stringify(before) === JSON.stringify(after)) return;
  await db('changes').insert({
    ...{ student_id: studentId, what, changed_by: personId, changed_at: now },
    ...{ before: before && JSON.stringify(before), after: after && JSON.stringify(after) },
  });
}
