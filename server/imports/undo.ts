import { addDays } from '~/core/calendar/iso-date';
import type { ImportKindName } from '~/core/imports/kinds';
import type { RosterEntry } from '~/core/imports/roster';
import { withdrawObservation } from '../entries/change';
import { withdrawIncident } from '../entries/incidents/record-incident';
import { keepGoalRevision } from '../goals/goals';
import type { Database } from '../platform/db/database';
import type { ImportPartsRow } from '../platform/db/tables';
import { NotFound } from '../platform/failures';
import { requireSchoolAdmin, type SchoolAdmin } from '../school/administrators';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { can, canChange } from '../students/rights';
import { editStudent, setArchived } from '../students/roster';
import { takeBackJoin } from '../students/staff';
import { caseManagerIdOf } from '../students/stays';
import { studentsOf } from '../students/students';
import { partsOf } from './parts';
import type { KnownStudent } from './roster';

const WHY = 'The import that it came in with was undone.';

interface Undone {
  /** How many of what came in were taken back, and how many stay: they were changed since, or belong to what was. */
  takenBack: number;
  stay: number;
}

/**
 * Takes back what came in with a file, as a whole: entries are withdrawn, goals retired, students archived, and what was changed is what it
 * was. What was recorded or changed since stays, and with it what it belongs to. Asked twice, it is undone once.
 *
 * @throws NotFound for somebody else's import, and for one that did not come in
 */
export async function undoImport(db: Database, actor: Actor, id: string, now: Date): Promise<Undone> {
  return db.transaction(async (trx) => {
    const row = await trx('imports').where({ id, school_id: actor.schoolId }).forUpdate().first();
    if (!row?.done_at) throw new NotFound('No such import.');
    if (row.kind === 'roster') await requireSchoolAdmin(trx, actor);
    else if (row.made_by !== actor.personId) throw new NotFound('No such import.');
    if (row.undone_at) return { takenBack: 0, stay: 0 };
    const parts = await partsOf(trx, id);
    const undone = await undoOf[row.kind](trx, actor, parts, now);
    await trx('imports').where({ id }).update({ undone_at: now, undone_by: actor.personId });
    const said = { file: row.file_name, kind: row.kind };
    const change = { before: { ...said, state: 'came in' }, after: { ...said, state: 'undone', ...undone } };
    await writeChange(trx, actor.personId, { what: 'import', schoolId: actor.schoolId, ...change }, now);
    return undone;
  });
}

type Undo = (db: Database, actor: Actor, parts: readonly ImportPartsRow[], now: Date) => Promise<Undone>;

const undoOf: Record<ImportKindName, Undo> = {
  roster: undoRoster,
  goals: undoGoals,
  entries: undoEntries,
  incidents: undoEntries,
};

async function undoEntries(db: Database, actor: Actor, parts: readonly ImportPartsRow[], now: Date): Promise<Undone> {
  const [first] = parts;
  const done = first && (await db('imports').where({ id: first.import_id }).first('done_at'));
  const ageInDays = (now.getTime() - (done?.done_at ?? now).getTime()) / 86_400_000;
  const students = new Set(
    (await studentsOf(db, actor))
      .filter((one) => canChange(one, { isOwn: true, ageInDays }))
      .map(({ id }) => id as string),
  );
  const ids = parts
    .filter(({ kind, student_id }) => kind === 'entry' && students.has(student_id ?? ''))
    .map(({ row_id }) => row_id);
  const all = parts.filter(({ kind }) => kind === 'entry').length;
  // What was corrected since says what somebody knew better.
  const asCameIn = () => db('entries').whereIn('id', ids).where({ version: 1, withdrawn: false });
  const paired = await db('entries').whereIn('pairs_with', ids).pluck('pairs_with');
  const alone = await asCameIn()
    .where({ kind: 'goal', pairs_with: null })
    .whereNotIn('id', paired)
    .update({ withdrawn: true, version: 2, changed_by: actor.personId, changed_at: now, change_reason: WHY });
  const others = await asCameIn().select('id', 'student_id', 'kind');
  for (const { id, student_id: studentId, kind } of others) {
    const change = { version: 1, why: WHY };
    if (kind === 'goal') await withdrawObservation(db, actor, { studentId, entryId: id }, change, now);
    else await withdrawIncident(db, actor, { studentId, noteId: id }, change, now);
  }
  await retireChoices(db, parts, students);
  const takenBack = alone + others.length;
  return { takenBack, stay: all - takenBack };
}

/** Choices that came in are offered no longer, unless an incident that stands names them. */
async function retireChoices(
  db: Database,
  parts: readonly ImportPartsRow[],
  students: ReadonlySet<string>,
): Promise<void> {
  const ids = parts
    .filter(({ kind, student_id }) => kind === 'choice' && students.has(student_id ?? ''))
    .map(({ row_id }) => row_id);
  if (ids.length === 0) return;
  for (const table of ['behavior_targets', 'behavior_options'] as const) {
    const column = table === 'behavior_targets' ? 'target_id' : 'option_id';
    const inUse = db('incident_choices as c')
      .join('entries as e', (on) => on.on('e.id', 'c.entry_id').andOn('e.version', 'c.version'))
      .where({ 'e.withdrawn': false })
      .whereIn(`c.${column}`, ids)
      .select(`c.${column}`);
    await db(table).whereIn('id', ids).whereNotIn('id', inUse).update({ state: 'retired' });
  }
}

async function undoGoals(db: Database, actor: Actor, parts: readonly ImportPartsRow[], now: Date): Promise<Undone> {
  const students = new Set(
    (await studentsOf(db, actor)).filter((one) => can(one, 'editGoals')).map(({ id }) => id as string),
  );
  let takenBack = 0;
  for (const { row_id: id, student_id } of parts) {
    if (!students.has(student_id ?? '')) continue;
    const goal = await db('goals').where({ id, retired_on: null }).forUpdate().first('starts_on');
    const hasEntries = await db('entries').where({ goal_id: id, withdrawn: false }).first('id');
    if (!goal || hasEntries) continue;
    await keepGoalRevision(db, id, actor.personId, now);
    // One that was to begin later ends on the day on which it would have begun.
    const retired_on = [goal.starts_on, actor.today].sort().at(-1);
    await db('goals')
      .where({ id })
      .update({ retired_on, retired_how: 'discontinued', retired_note: WHY, edited_at: now });
    takenBack++;
  }
  return { takenBack, stay: parts.length - takenBack };
}

async function undoRoster(db: Database, actor: Actor, parts: readonly ImportPartsRow[], now: Date): Promise<Undone> {
  const admin = await requireSchoolAdmin(db, actor);
  const ids = parts.flatMap(({ kind, row_id }) => (kind === 'student' ? [row_id] : []));
  const begun = new Set(
    (await db.raw<{ rows: { id: string }[] }>(`select students_begun(?) as id`, [ids])).rows.map(({ id }) => id),
  );
  let takenBack = 0;
  let stay = 0;
  for (const { kind, row_id: id, student_id: studentId, before, after } of parts) {
    if (kind === 'archived') {
      await setArchived(db, admin, { studentId: id, isArchived: false }, now);
      takenBack++;
    } else if (kind === 'student' && before === null) {
      if (begun.has(id)) stay++;
      else {
        await setArchived(db, admin, { studentId: id, isArchived: true }, now);
        // Another import may bring the same number again, as somebody new.
        await db('students').where({ id }).update({ sourced_id: null, undone_at: now });
        await db('awaited_members').where({ student_id: id }).delete();
        await db('student_groups').where({ student_id: id }).delete();
        takenBack++;
      }
    } else if (kind === 'student') {
      const isBack = await changeBack(
        db,
        id,
        { before: before as KnownStudent, after: after as After },
        { actor: admin, now },
      );
      if (isBack) takenBack++;
      else stay++;
    } else if (kind === 'member' && studentId) await leaveTeam(db, actor, { studentId, personId: id }, now);
    else if (kind === 'staff') await takeBackIfOpen(db, admin, id, now);
    else if (kind === 'group') await removeIfEmpty(db, id);
  }
  return { takenBack, stay };
}

type After = RosterEntry & { managerId: string | null };

/** What the roster said of a student, where nobody has changed it since. @returns whether it is so again */
async function changeBack(
  db: Database,
  id: string,
  { before, after }: { before: KnownStudent; after: After },
  { actor, now }: { actor: SchoolAdmin; now: Date },
): Promise<boolean> {
  const present = await db('students').where({ id }).first('first_name', 'last_name', 'grade', 'archived_at');
  const isAsCameIn =
    present?.first_name === after.firstName && present.last_name === after.lastName && present.grade === after.grade;
  if (!isAsCameIn) return false;
  const groups = await db('class_groups')
    .where({ school_id: actor.schoolId })
    .whereIn('name', before.groups)
    .pluck('id');
  const { firstName, lastName, grade, shortName, initials } = before;
  const manager = await caseManagerIdOf(db, id, actor.today);
  const caseManagerId = manager === after.managerId ? before.managerId : manager;
  const input = { id, firstName, lastName, grade, shortName, initials, groupIds: groups, isSomeoneElse: true };
  await editStudent(db, actor, { ...input, caseManagerId }, now);
  await db('students').where({ id }).update({ sourced_id: before.sourcedId });
  if (before.isArchived && present.archived_at === null)
    await setArchived(db, actor, { studentId: id, isArchived: true }, now);
  return true;
}

async function leaveTeam(
  db: Database,
  { today, personId: by }: Actor,
  of: { studentId: string; personId: string },
  now: Date,
) {
  const stays = () => db('team_members').where({ student_id: of.studentId, person_id: of.personId, role: 'educator' });
  await stays().where('from_date', '>=', today).delete();
  await stays()
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .update({ until_date: addDays(today, -1), changed_by: by, changed_at: now });
}

async function takeBackIfOpen(db: Database, admin: SchoolAdmin, id: string, now: Date): Promise<void> {
  const open = await db('account_links').where({ id, used_at: null, withdrawn_at: null }).first('id');
  if (open) await takeBackJoin(db, admin, id, now);
}

async function removeIfEmpty(db: Database, id: string): Promise<void> {
  await db.raw(
    `delete from class_groups g where g.id = ?
        and not exists (select from student_groups m where m.group_id = g.id)
        and not exists (select from timetable_blocks b where b.group_id = g.id)
        and not exists (select from opened_devices d where d.group_id = g.id) and not exists (select from rules r where r.group_id = g.id)`,
    [id],
  );
}
