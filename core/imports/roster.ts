import { z } from 'zod';
import { emailField } from '../people/account-input';
import { readGrade, unknownGrade } from '../students/grade';
import { nearDuplicates } from '../students/near-duplicates';
import { type FileField, type FileTable, filledDown, guessColumns, plainText, rowCells } from './file-table';
import type { Planned, PreviewRow } from './preview';

export const rosterFields = [
  { key: 'firstName', headings: ['first name', 'first', 'given name', 'givenname', 'forename'] },
  { key: 'lastName', headings: ['last name', 'last', 'family name', 'familyname', 'surname'] },
  { key: 'name', headings: ['name', 'student', 'student name', 'full name', 'pupil', 'learner'] },
  { key: 'sourcedId', headings: ['student id', 'id', 'number', 'student number', 'sourcedid', 'sis id', 'local id'] },
  { key: 'grade', headings: ['grade', 'year', 'grades', 'level', 'grade level', 'gr'] },
  { key: 'groups', headings: ['group', 'groups', 'class', 'classes', 'homeroom', 'class group', 'section'] },
  { key: 'manager', headings: ['case manager', 'teacher', 'manager', 'special education teacher', 'sped teacher'] },
  {
    key: 'managerEmail',
    headings: ['case manager email', 'teacher email', 'manager email', 'email of case manager', 'staff email'],
  },
] as const satisfies readonly FileField[];
export type RosterFieldKey = (typeof rosterFields)[number]['key'];

/** What is said of a file of the roster. */
export const rosterMapping = z.object({
  sheet: z.number().int().min(0).default(0),
  columns: z.array(z.enum(['', ...rosterFields.map(({ key }) => key)]).default('')).max(200),
  /** Who has the students whose case manager the file does not name, or who has not joined yet. */
  managerId: z.uuid().nullable().default(null),
  /** Whether the file is of everybody: who came in before and is not in it is archived. */
  isWhole: z.boolean().default(false),
  /** Rows of which it was asked whether they are somebody who is there, and that are not. */
  isSomeoneElse: z.boolean().default(false),
  /** Rows whose number is on the roster under another name are the same students. */
  isRenamed: z.boolean().default(false),
  /** Addresses of those who are asked to join the staff: each was said to be staff. */
  invites: z.array(z.string().max(200)).max(500).default([]),
  fillsDown: z.boolean().default(false),
  /** The school of the file, and its classes, that are carried in: of OneRoster. */
  org: z.string().max(200).nullable().default(null),
  classes: z.array(z.string().max(200)).max(2000).default([]),
});
export type RosterMapping = z.infer<typeof rosterMapping>;

/** A student as a file has them. */
export interface RosterEntry {
  row: number | null;
  firstName: string;
  lastName: string;
  grade: string;
  /** The school's own number of them. */
  sourcedId: string | null;
  /** What another system calls them besides. */
  otherId?: string | null;
  groups: { name: string; sourcedId: string | null }[];
  /** Those who teach them; the first is their case manager. */
  teachers: { name: string; email: string }[];
  messages: string[];
}

/** A student as the roster has them. */
export interface RosterKnown {
  id: string;
  firstName: string;
  lastName: string;
  grade: string;
  sourcedId: string | null;
  groups: string[];
  isArchived: boolean;
  managerId: string | null;
}

export interface RosterFacts {
  students: RosterKnown[];
  /** Who works here. */
  staff: { id: string; name: string; email: string }[];
}

export interface RosterCommand {
  /** Null where the student is new. */
  id: string | null;
  entry: RosterEntry;
  /** Who is their case manager from now on; null where that stays as it is. */
  managerId: string | null;
  /** Who is to be it as soon as they have joined, and who else is to be on the team: staff, or an address. */
  awaited: { name: string; email: string; role: 'caseManager' | 'educator' }[];
  teachers: string[];
  does: 'add' | 'change' | 'archive';
}

const NOT_STAFF =
  /\b(parents?|guardians?|famil(y|ies)|mother|father|mom|dad|home|contact|students?|pupils?|learners?)\b/;

/** A number as it is compared: a spreadsheet drops the zeros it begins with. */
export const numberKey = (number: string): string =>
  number
    .trim()
    .replace(/^0+(?=\d)/, '')
    .toLowerCase();

const gradeKey = (grade: string): string => readGrade(grade) ?? plainText(grade);

export function guessRoster(table: FileTable): RosterMapping {
  const columns = guessColumns(table.head, rosterFields).map((key, at) => {
    const heading = plainText(table.head[at] ?? '');
    // Of whose family an address is, or of which student, is never taken for a member of staff; nor is an address a name.
    if (key.startsWith('manager') && NOT_STAFF.test(heading)) return '';
    return /\be ?mail\b/.test(heading) && key !== 'managerEmail' ? '' : key;
  });
  return rosterMapping.parse({ columns });
}

/** The students of a table, a row each. */
export function rosterEntries(table: FileTable, mapping: RosterMapping): RosterEntry[] {
  const rows = mapping.fillsDown
    ? filledDown(table.rows, mapping.columns, ['grade', 'groups', 'manager', 'managerEmail'])
    : table.rows;
  return rows.flatMap((row, at) => {
    if (row.every((cell) => cell === '')) return [];
    const cells = rowCells(row, mapping.columns);
    const messages: string[] = [];
    const { firstName, lastName } = namesFrom(cells);
    if (!firstName || !lastName) messages.push('Name: first and last name, please.');
    if (firstName.length > 60 || lastName.length > 60) messages.push('Name: keep each to 60 characters.');
    const grade = readGrade(cells.grade ?? '');
    if (!cells.grade) messages.push('Grade: say which.');
    else if (grade === null) messages.push(`Grade: “${cells.grade.slice(0, 30)}” is none. ${unknownGrade}`);
    if ((cells.sourcedId ?? '').length > 200) messages.push('Student id: keep it to 200 characters.');
    const groups = (cells.groups ?? '')
      .split(/[;|]/)
      .map((name) => name.trim())
      .filter(Boolean);
    if (groups.some((name) => name.length > 60)) messages.push('Group: keep its name to 60 characters.');
    const email = cells.managerEmail ?? '';
    if (email && !emailField.safeParse(email).success)
      messages.push(`Email: “${email}” does not look like an address.`);
    const manager = cells.manager ?? '';
    return [
      {
        ...{ row: table.firstRow + at, firstName, lastName, grade: grade ?? cells.grade ?? '' },
        ...{ sourcedId: cells.sourcedId || null, messages },
        groups: groups.map((name) => ({ name, sourcedId: null })),
        teachers: manager || email ? [{ name: manager || email, email }] : [],
      },
    ];
  });
}

/** “Ansel Dorsey” and “Dorsey, Ansel”, where first and last name share a column. */
function namesFrom({ firstName = '', lastName = '', name = '' }: Record<string, string>) {
  if (firstName || lastName || name === '') return { firstName, lastName };
  const [last, first] = name.split(',').map((part) => part.trim());
  if (first && last) return { firstName: first, lastName: last };
  const words = name.split(' ');
  return { firstName: words.slice(0, -1).join(' '), lastName: words.at(-1) ?? '' };
}

/**
 * What becomes of each student of a file: who is new, changed or there already; of a file that is of everybody, also who is gone. A student
 * is found by the number that another system has for them, else by name and grade; one whose name is near another’s is asked about.
 *
 * @param elsewhere  numbers of those whom the other system knows, and who are not carried in: they are not gone
 */
export function planRoster(
  entries: readonly RosterEntry[],
  mapping: RosterMapping,
  facts: RosterFacts,
  elsewhere: ReadonlySet<string> = new Set(),
): Planned<RosterCommand> {
  const rows: PreviewRow[] = [];
  const commands: RosterCommand[] = [];
  const seen = new Set<string>();
  const named = new Map<string, number>();
  const alikeInFile = new Map<string, number>();
  for (const entry of entries) {
    const shown: PreviewRow = { row: entry.row, fate: 'wrong', ...saidOf(entry), messages: [...entry.messages] };
    rows.push(shown);
    const key = entry.sourcedId
      ? `# ${numberKey(entry.sourcedId)}`
      : plainText(`${entry.firstName} ${entry.lastName} ${entry.grade}`);
    const before = named.get(key);
    if (before !== undefined) {
      shown.messages.push(
        `Row ${before} is the same student.${entry.sourcedId ? '' : ' Where they are two, give each a student id.'}`,
      );
    }
    named.set(key, entry.row ?? 0);
    const who = knownAs(entry, facts, shown.messages);
    if (who && seen.has(who.id)) shown.messages.push('Another row is this student already.');
    if (who && !mapping.isRenamed) questionNumber(entry, who, shown.messages);
    if (!who && !mapping.isSomeoneElse) questionNamesakes(entry, facts, shown.messages);
    const alike = plainText(`${entry.firstName} ${entry.lastName} ${entry.grade}`);
    const namesake = alikeInFile.get(alike);
    if (!who && !mapping.isSomeoneElse && namesake !== undefined && entry.sourcedId) {
      shown.messages.push(`Name: row ${namesake} has the same name and grade. If they are two students, say so below.`);
    }
    alikeInFile.set(alike, entry.row ?? 0);
    const whose = teachersOf(entry, mapping, facts, shown.messages);
    if (shown.messages.length > 0) continue;
    if (who) seen.add(who.id);
    const managerId = whose.manager?.id ?? (who ? null : mapping.managerId);
    const changes = who ? changesOf(who, entry, managerId) : [];
    shown.fate = who ? (changes.length > 0 ? 'changed' : 'there') : 'new';
    if (who && changes.length > 0) shown.says = changes.join('; ');
    if (shown.fate === 'there') continue;
    const { awaited, teachers } = whose;
    commands.push({ id: who?.id ?? null, entry, managerId, awaited, teachers, does: who ? 'change' : 'add' });
  }
  if (mapping.isWhole)
    archiveGone(
      facts,
      {
        seen,
        ids: new Set(
          [...elsewhere, ...entries.flatMap(({ sourcedId, otherId }) => [sourcedId ?? [], otherId ?? []].flat())].map(
            numberKey,
          ),
        ),
      },
      { rows, commands },
    );
  return { rows, commands };
}

const saidOf = ({ firstName, lastName, grade, groups, teachers }: RosterEntry) => ({
  about: `${firstName} ${lastName}`.trim(),
  says: [grade, ...groups.map(({ name }) => name), teachers[0]?.name].filter(Boolean).join(' · '),
});

function knownAs(entry: RosterEntry, { students }: RosterFacts, messages: string[]): RosterKnown | null {
  const ids = new Set([entry.sourcedId, entry.otherId ?? null].flatMap((one) => (one ? numberKey(one) : [])));
  const byId = students.find(({ sourcedId }) => sourcedId !== null && ids.has(numberKey(sourcedId)));
  if (byId) return byId;
  const isNamed = (one: RosterKnown) =>
    plainText(`${one.firstName} ${one.lastName}`) === plainText(`${entry.firstName} ${entry.lastName}`);
  // Whoever has another number is somebody else.
  const all = students.filter((one) => isNamed(one) && (one.sourcedId === null || entry.sourcedId === null));
  if (all.length <= 1) return all[0] ?? null;
  const inGrade = all.filter(({ grade }) => gradeKey(grade) === gradeKey(entry.grade));
  if (inGrade.length === 1) return inGrade[0] ?? null;
  messages.push(`Name: ${all.length} students of the roster are called so. Give the student id that tells who it is.`);
  return null;
}

/** The same number and another name: a new name, or another student. */
function questionNumber(entry: RosterEntry, who: RosterKnown, messages: string[]): void {
  if (nearDuplicates(entry, [who]).length > 0) return;
  messages.push(
    `Number: ${entry.sourcedId} is ${who.firstName} ${who.lastName} (${who.grade}) on the roster. If it is the same student under a new name, say so below; else correct the number.`,
  );
}

function questionNamesakes(entry: RosterEntry, { students }: RosterFacts, messages: string[]): void {
  const near = nearDuplicates(entry, students).filter(
    (one) => one.sourcedId === null || entry.sourcedId === null || gradeKey(one.grade) === gradeKey(entry.grade),
  );
  if (near.length === 0) return;
  const names = near.map(({ firstName, lastName, grade }) => `${firstName} ${lastName} (${grade})`).join(' and ');
  messages.push(
    `Name: there is already ${names}. Correct the file where it is the same student; else say below that these are others.`,
  );
}

/** Who of those whom the file names works here, and who is to be asked. */
function teachersOf(entry: RosterEntry, { managerId }: RosterMapping, { staff }: RosterFacts, messages: string[]) {
  const awaited: RosterCommand['awaited'] = [];
  const teachers: string[] = [];
  let manager: RosterFacts['staff'][number] | null = null;
  for (const [i, { name, email }] of entry.teachers.entries()) {
    const byEmail = email ? staff.filter((one) => one.email.toLowerCase() === email.toLowerCase()) : [];
    const found =
      byEmail.length > 0 || email ? byEmail : staff.filter((one) => plainText(one.name) === plainText(name));
    const [one, ...others] = found;
    if (one && others.length === 0) {
      if (i === 0) manager = one;
      else teachers.push(one.id);
    } else if (one) messages.push(`Case manager: ${found.length} people are called ${name}. Give the email address.`);
    else if (email) awaited.push({ name, email, role: i === 0 ? 'caseManager' : 'educator' });
    else if (managerId === null) {
      messages.push(
        `Case manager: nobody here is called ${name}. Give their email address, and they are asked to join.`,
      );
    }
  }
  return { manager, awaited, teachers };
}

function changesOf(who: RosterKnown, entry: RosterEntry, managerId: string | null): string[] {
  const changed = (label: string, before: string, after: string) =>
    before === after ? [] : [`${label}: ${before} → ${after}`];
  const groups = entry.groups.map(({ name }) => name);
  const isSame = groups.length === 0 || [...groups].sort().join('|') === [...who.groups].sort().join('|');
  return [
    ...changed('Name', `${who.firstName} ${who.lastName}`, `${entry.firstName} ${entry.lastName}`),
    ...changed('Grade', readGrade(who.grade) ?? who.grade, entry.grade),
    ...(isSame ? [] : [`Groups: ${who.groups.join(', ') || 'none'} → ${groups.join(', ')}`]),
    ...(managerId !== null && managerId !== who.managerId ? [`Case manager: ${entry.teachers[0]?.name ?? ''}`] : []),
    ...(entry.sourcedId !== null && who.sourcedId === null ? [`Student id: ${entry.sourcedId}`] : []),
    ...(who.isArchived ? ['Was archived, and is back'] : []),
  ];
}

/** Those whom another system knew, and knows no longer: archived, never removed. */
function archiveGone(
  { students }: RosterFacts,
  { seen, ids }: { seen: ReadonlySet<string>; ids: ReadonlySet<string> },
  { rows, commands }: Planned<RosterCommand>,
): void {
  for (const one of students) {
    if (one.isArchived || one.sourcedId === null || seen.has(one.id) || ids.has(numberKey(one.sourcedId))) continue;
    const { id, firstName, lastName, grade, sourcedId } = one;
    const entry = { row: null, firstName, lastName, grade, sourcedId, groups: [], teachers: [], messages: [] };
    const about = `${firstName} ${lastName}`;
    rows.push({ row: null, fate: 'gone', about, says: 'Is in the file no longer, and is archived', messages: [] });
    commands.push({ id, entry, managerId: null, awaited: [], teachers: [], does: 'archive' });
  }
}
