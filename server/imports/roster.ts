import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { oneRosterEntries } from '~/core/imports/one-roster';
import {
  guessRoster,
  planRoster,
  type RosterCommand,
  type RosterFacts,
  rosterEntries,
  rosterMapping,
} from '~/core/imports/roster';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { requireSchoolAdmin, type SchoolAdmin } from '../school/administrators';
import type { Actor } from '../school/school';
import { addStudent, editStudent, setArchived, setCaseManager } from '../students/roster';
import { askToJoin, openJoins } from '../students/staff';
import { caseManagerIdOf, changeRole } from '../students/stays';
import { staffOf } from '../students/team';
import { importKind, type Moment } from './kind';
import type { Part } from './parts';

const knownRow = z.object({
  id: z.string(),
  firstName: z.string(),
  lastName: z.string(),
  grade: z.string(),
  sourcedId: z.string().nullable(),
  groups: z.array(z.string()),
  isArchived: z.boolean(),
  managerId: z.string().nullable(),
  shortName: z.string(),
  initials: z.string(),
});
/** A student as the roster has them, and as they are called. */
export type KnownStudent = z.infer<typeof knownRow>;

async function factsOf(
  db: Database,
  actor: Actor,
): Promise<RosterFacts & { students: KnownStudent[]; actor: SchoolAdmin }> {
  const admin = await requireSchoolAdmin(db, actor);
  const [students, staff] = await Promise.all([
    rowsOf(
      db,
      knownRow,
      `select s.id, s.first_name as "firstName", s.last_name as "lastName", s.grade, s.sourced_id as "sourcedId",
              s.short_name as "shortName", s.initials,
              s.archived_at is not null as "isArchived",
              array(select g.name from student_groups m join class_groups g on g.id = m.group_id where m.student_id = s.id) as groups,
              (select m.person_id from team_members m where m.student_id = s.id and m.role = 'caseManager'
                  and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today limit 1) as "managerId"
         from students s where s.school_id = :schoolId and s.undone_at is null`,
      { schoolId: admin.schoolId, today: admin.today },
    ),
    staffOf(db, admin.schoolId, admin.today).select<RosterFacts['staff']>('p.id', 'p.name', 'p.email'),
  ]);
  return { students, staff, actor: admin };
}

/** Students, their groups and who teaches them: a table, or OneRoster 1.2. */
export const rosterImport = importKind({
  mapping: rosterMapping,
  facts: factsOf,
  guess: ({ table, roster }) => {
    // Nobody has them until it is said who, or until whom the file names has joined.
    if (!roster) return guessRoster(table);
    const org = roster.orgs.length === 1 ? (roster.orgs[0]?.id ?? null) : null;
    return rosterMapping.parse({
      columns: [],
      org,
      classes: roster.classes.map(({ id }) => id),
    });
  },
  plan: ({ table, roster }, mapping, facts) => {
    const entries = roster ? oneRosterEntries(roster, mapping) : rosterEntries(table, mapping);
    const elsewhere = roster ? Object.keys(roster.people).filter((id) => !roster.people[id]?.isGone) : [];
    return planRoster(entries, mapping, facts, new Set(elsewhere));
  },
  carryIn: async (db, _, commands, moment, mapping, { actor, students }) => {
    const parts: Part[] = [];
    const ids = new Map<RosterCommand, string>();
    const managers = new Map(students.map(({ id, managerId }) => [id, managerId]));
    const groups = await groupsFor(db, actor, commands, parts);
    for (const command of commands) {
      const before = students.find(({ id }) => id === command.id);
      const studentId = command.id ?? randomUUID();
      if (command.does === 'archive') {
        await setArchived(db, actor, { studentId, isArchived: true }, moment.now);
        parts.push({ kind: 'archived', studentId, rowId: studentId });
        continue;
      }
      ids.set(command, studentId);
      await writeStudent(db, actor, { command, studentId, groupIds: groups(command) }, moment);
      parts.push({
        kind: 'student',
        studentId,
        rowId: studentId,
        before,
        after: { ...command.entry, managerId: command.managerId },
      });
      for (const personId of command.teachers) {
        if (await joinTeam(db, actor, { studentId, personId }, moment.now)) {
          parts.push({ kind: 'member', studentId, rowId: personId });
        }
      }
    }
    const passOn = await awaitStaff(db, actor, commands, { moment, parts, ids, managers, invites: mapping.invites });
    return { parts, passOn };
  },
});

/** The class groups of the file by name, those that are not there yet made. */
async function groupsFor(db: Database, { schoolId }: SchoolAdmin, commands: readonly RosterCommand[], parts: Part[]) {
  const there = await db('class_groups').where({ school_id: schoolId }).select('id', 'name', 'sourced_id', 'position');
  const byName = new Map(there.map(({ id, name }) => [name.toLowerCase(), id]));
  const bySource = new Map(there.flatMap(({ id, sourced_id }) => (sourced_id ? [[sourced_id, id] as const] : [])));
  let position = there.length;
  for (const { name, sourcedId } of commands.flatMap(({ entry }) => entry.groups)) {
    const key = name.toLowerCase();
    if (bySource.has(sourcedId ?? '')) continue;
    const known = byName.get(key);
    if (known) {
      if (sourcedId) {
        await db('class_groups').where({ id: known, sourced_id: null }).update({ sourced_id: sourcedId });
        bySource.set(sourcedId, known);
      }
      continue;
    }
    const id = randomUUID();
    await db('class_groups').insert({ id, school_id: schoolId, name, position: position++, sourced_id: sourcedId });
    byName.set(key, id);
    if (sourcedId) bySource.set(sourcedId, id);
    parts.push({ kind: 'group', studentId: null, rowId: id });
  }
  return ({ entry }: RosterCommand) =>
    entry.groups.flatMap(
      ({ name, sourcedId }) => bySource.get(sourcedId ?? '') ?? byName.get(name.toLowerCase()) ?? [],
    );
}

interface Written {
  command: RosterCommand;
  studentId: string;
  groupIds: string[];
}

async function writeStudent(
  db: Database,
  actor: SchoolAdmin,
  { command, studentId, groupIds }: Written,
  { now }: Moment,
) {
  const { entry, managerId } = command;
  const { firstName, lastName, grade } = entry;
  if (command.does === 'add') {
    const input = { id: studentId, firstName, lastName, grade, groupIds, caseManagerId: managerId };
    await addStudent(db, actor, { ...input, isSomeoneElse: true }, now);
  } else {
    const was = await db('students')
      .where({ id: studentId })
      .first('archived_at', 'first_name', 'last_name', 'short_name', 'initials');
    if (was?.archived_at) await setArchived(db, actor, { studentId, isArchived: false }, now);
    const isSameName = was?.first_name === firstName && was?.last_name === lastName;
    const manager = managerId ?? (await caseManagerIdOf(db, studentId, actor.today));
    const input = { id: studentId, firstName, lastName, grade, caseManagerId: manager, isSomeoneElse: true };
    const called = isSameName ? { shortName: was?.short_name, initials: was?.initials } : {};
    const kept =
      entry.groups.length > 0
        ? groupIds
        : await db('student_groups').where({ student_id: studentId }).pluck('group_id');
    await editStudent(db, actor, { ...input, ...called, groupIds: kept }, now);
    if (managerId) await setCaseManager(db, { id: studentId, caseManagerId: managerId }, actor, { now, isNew: false });
  }
  if (entry.sourcedId) await db('students').where({ id: studentId }).update({ sourced_id: entry.sourcedId });
}

/** Puts somebody on a team who is not on it. @returns whether they were not */
async function joinTeam(
  db: Database,
  { personId: by, today }: Actor,
  { studentId, personId }: { studentId: string; personId: string },
  now: Date,
): Promise<boolean> {
  const there = await db('team_members')
    .where({ student_id: studentId, person_id: personId })
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .first('id');
  if (there) return false;
  await changeRole(db, { studentId, personId, role: 'educator' }, { by, today, now });
  return true;
}

interface Awaiting {
  moment: Moment;
  parts: Part[];
  /** The students of the commands, and who was the case manager of those who were there. */
  ids: ReadonlyMap<RosterCommand, string>;
  managers: ReadonlyMap<string, string | null>;
  /** Who was said to be staff: nobody else is asked. */
  invites: readonly string[];
}

/** Asks those of the file to join who do not work here yet, each once, and keeps whose teams they are to be on. */
async function awaitStaff(
  db: Database,
  admin: SchoolAdmin,
  commands: readonly RosterCommand[],
  { moment, parts, ids, managers, invites }: Awaiting,
): Promise<{ name: string; code: string }[]> {
  const wanted = new Set(invites.map((email) => email.toLowerCase()));
  const awaited = commands.flatMap((command) =>
    command.awaited
      .filter(({ email }) => wanted.has(email.toLowerCase()))
      .map((one) => ({
        ...one,
        studentId: ids.get(command),
        insteadOf: command.managerId ?? managers.get(command.id ?? '') ?? null,
      })),
  );
  if (awaited.length === 0) return [];
  const asked = new Set((await openJoins(db, admin, moment.now)).map(({ email }) => email.toLowerCase()));
  const passOn: { name: string; code: string }[] = [];
  for (const { name, email, role, studentId, insteadOf } of awaited) {
    if (!studentId) continue;
    await db('awaited_members')
      .insert({ school_id: admin.schoolId, student_id: studentId, email, role, instead_of: insteadOf })
      .onConflict(['student_id', 'email'])
      .merge(['role', 'instead_of']);
    if (asked.has(email.toLowerCase())) continue;
    asked.add(email.toLowerCase());
    const id = randomUUID();
    const code = await askToJoin(db, admin, { id, name, email, isAdmin: false }, moment);
    if (code) passOn.push({ name, code });
    parts.push({ kind: 'staff', studentId: null, rowId: id });
  }
  return passOn;
}
