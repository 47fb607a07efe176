import type { Database } from '../db/database';
import { Invalid, NotFound } from '../failures';
import { type Actor, type Student, studentFor, studentsOf } from '../students/students';

/** The papers of several students in one file. */
export interface Batch {
  id: string;
  label: string;
  what: 'progress' | 'running';
  madeAt: Date;
  state: 'waiting' | 'making' | 'ready' | 'failed';
  problem: string | null;
  done: number;
  of: number;
  pages: number | null;
}

interface BatchWanted {
  id: string;
  /** A class group by its name; null for all students. */
  group: string | null;
  what: Batch['what'];
}

/** The batches that somebody has asked for, newest first. */
export async function batchesOf(db: Database, actor: Actor): Promise<Batch[]> {
  const found = await db.raw<{ rows: Batch[] }>(
    `select b.id, b.label, b.what, b.made_at as "madeAt", b.state, b.problem,
            count(p.pdf)::int as done, count(*)::int as of, sum(p.pages)::int as pages
       from batches b join batch_parts p on p.batch_id = b.id
      where b.made_by = ? group by b.id order by b.made_at desc limit 20`,
    [actor.personId],
  );
  return found.rows;
}

/**
 * Asks for the papers of a class group in one file, sorted by group and name: of the students whose report one may share. It is
 * made in the background. Asked twice, it is made once.
 *
 * @throws Invalid when there is nobody in it
 */
export async function askForBatch(db: Database, actor: Actor, wanted: BatchWanted, now: Date): Promise<void> {
  const all = await studentsOf(db, actor);
  const members = all.filter(({ groups }) => wanted.group === null || groups.includes(wanted.group));
  const students: Student[] = [];
  for (const student of members) {
    const mine = await studentFor(db, actor, student.id, 'share').catch(() => null);
    if (mine) students.push(mine);
  }
  if (students.length === 0) throw new Invalid({ group: 'There is nobody in this group whose report you share.' });
  const byGroup = ({ groups, lastName, firstName }: Student) => `${groups[0] ?? '\uffff'}\n${lastName}\n${firstName}`;
  students.sort((a, b) => byGroup(a).localeCompare(byGroup(b)));
  await db.transaction(async (trx) => {
    const written = await trx('batches')
      .insert({
        ...{ id: wanted.id, label: wanted.group ?? 'All students', what: wanted.what },
        ...{ made_by: actor.personId, made_at: now },
      })
      .onConflict('id')
      .ignore()
      .returning('id');
    if (written.length === 0) return;
    await trx('batch_parts').insert(
      students.map(({ id }, position) => ({ batch_id: wanted.id, student_id: id, position })),
    );
    await trx('readings').insert(
      students.map(({ id }) => ({
        ...{ student_id: id, person_id: actor.personId, read_at: now, how: 'exported' },
        what: wanted.what === 'progress' ? 'progress report (PDF of a group)' : 'report (PDF of a group)',
      })),
    );
  });
}

/**
 * The finished file.
 *
 * @throws NotFound when it is somebody else’s, or not ready
 */
export async function batchFile(db: Database, actor: Actor, id: string): Promise<{ label: string; file: Buffer }> {
  const row = await db('batches').where({ id, made_by: actor.personId, state: 'ready' }).first('label', 'file');
  if (!row) throw new NotFound('No such file.');
  return row;
}

/** The batches that are to be made, or were left half made. */
export const openBatches = (db: Database): Promise<{ id: string }[]> =>
  db('batches').whereIn('state', ['waiting', 'making']).orderBy('made_at').select('id');
