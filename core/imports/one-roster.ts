import { readGrade, unknownGrade } from '../students/grade';
import { Unreadable } from './file-table';
import type { RosterEntry, RosterMapping } from './roster';

/** A file of the standard: its lines by heading. */
type Lines = Record<string, string>[];

/**
 * What we read of the open standard OneRoster 1.2, as its CSV binding has it: people, what they are at which school, classes and who is in
 * them. The names of files and columns are from memory of the standard.
 */
export interface OneRoster {
  orgs: { id: string; name: string }[];
  /** Of a school, with the terms that they are held in. */
  classes: { id: string; title: string; orgId: string; terms: string[] }[];
  people: Record<
    string,
    {
      firstName: string;
      lastName: string;
      email: string;
      grade: string;
      identifier?: string;
      isGone: boolean;
      orgId: string;
    }
  >;
  enrollments: { classId: string; personId: string; role: 'student' | 'teacher'; isPrimary: boolean }[];
}

const needed = [
  'users.csv',
  'roles.csv',
  'classes.csv',
  'enrollments.csv',
  'orgs.csv',
  'academicSessions.csv',
] as const;
const headings: Record<(typeof needed)[number], string[]> = {
  'users.csv': ['sourcedId', 'givenName', 'familyName'],
  'roles.csv': ['userSourcedId', 'role', 'orgSourcedId'],
  'classes.csv': ['sourcedId', 'title', 'schoolSourcedId', 'termSourcedIds'],
  'enrollments.csv': ['classSourcedId', 'userSourcedId', 'role'],
  'orgs.csv': ['sourcedId', 'name', 'type'],
  'academicSessions.csv': ['sourcedId', 'title', 'startDate', 'endDate'],
};

/** Whether the files of an archive are meant as OneRoster. */
export const isOneRoster = (names: readonly string[]) =>
  names.includes('manifest.csv') || names.filter((name) => (needed as readonly string[]).includes(name)).length >= 2;

/**
 * The files of a OneRoster archive as people, classes and who is in them.
 *
 * @param files  the lines of each file by its name, by heading
 * @param today  classes whose terms are all over, and enrollments that have ended, are left out
 * @throws Unreadable where a file or a column of it is missing, or it is of a version that is read otherwise
 */
export function readOneRoster(files: ReadonlyMap<string, Lines>, today: string): OneRoster {
  const version = files.get('manifest.csv')?.find(({ propertyName }) => propertyName === 'oneroster.version')?.value;
  if (version && !version.startsWith('1.2')) {
    throw new Unreadable(`This is OneRoster ${version}; 1.2 is read here. Ask for an export as 1.2.`);
  }
  for (const name of needed) {
    const lines = files.get(name);
    if (!lines) throw new Unreadable(`${name} is missing in the archive.`);
    const missing = headings[name].filter((heading) => lines.length > 0 && !(heading in (lines[0] ?? {})));
    if (missing.length > 0) throw new Unreadable(`${name} has no column ${missing.join(', ')}.`);
  }
  const lines = (name: (typeof needed)[number]) =>
    (files.get(name) ?? []).filter((line) => line.status !== 'tobedeleted');
  const isOver = (end: string | undefined) => Boolean(end) && (end ?? '') < today;
  const over = new Set(
    lines('academicSessions.csv').flatMap(({ sourcedId, endDate }) => (isOver(endDate) ? (sourcedId ?? []) : [])),
  );
  const orgOf = new Map(
    lines('roles.csv')
      .filter(({ role, endDate }) => role === 'student' && !isOver(endDate))
      .map(({ userSourcedId, orgSourcedId }) => [userSourcedId ?? '', orgSourcedId ?? '']),
  );
  return {
    orgs: lines('orgs.csv')
      .filter(({ type }) => type === 'school')
      .map(({ sourcedId = '', name = '' }) => ({ id: sourcedId, name })),
    classes: lines('classes.csv')
      .map(({ sourcedId = '', title = '', schoolSourcedId = '', termSourcedIds = '' }) => {
        return {
          id: sourcedId,
          title,
          orgId: schoolSourcedId,
          terms: termSourcedIds
            .split(',')
            .map((term) => term.trim())
            .filter(Boolean),
        };
      })
      .filter(({ terms }) => terms.length === 0 || terms.some((term) => !over.has(term))),
    people: Object.fromEntries(
      (files.get('users.csv') ?? []).map((line) => {
        const {
          sourcedId = '',
          identifier = '',
          givenName = '',
          familyName = '',
          email = '',
          grades = '',
          status,
          enabledUser,
        } = line;
        const grade = (grades.split(',')[0] ?? '').trim().replace(/^0(?=\d)/, '');
        const names = {
          firstName: line.preferredGivenName || givenName,
          lastName: line.preferredFamilyName || familyName,
        };
        const isGone = status === 'tobedeleted' || enabledUser === 'false';
        return [
          sourcedId,
          {
            ...names,
            email,
            grade: readGrade(grade) ?? grade,
            identifier: identifier.trim(),
            isGone,
            orgId: orgOf.get(sourcedId) ?? '',
          },
        ];
      }),
    ),
    enrollments: lines('enrollments.csv')
      .filter(({ role, endDate }) => (role === 'student' || role === 'teacher') && !isOver(endDate))
      .map(({ classSourcedId = '', userSourcedId = '', role, primary }) => {
        return {
          classId: classSourcedId,
          personId: userSourcedId,
          role: role === 'teacher' ? 'teacher' : 'student',
          isPrimary: primary === 'true',
        };
      }),
  };
}

/** The students of the chosen school and classes. The first teacher, the primary one before others, is who has them. */
export function oneRosterEntries(
  found: OneRoster,
  { org, classes }: Pick<RosterMapping, 'org' | 'classes'>,
): RosterEntry[] {
  const chosen = new Map(
    found.classes
      .filter(({ id, orgId }) => classes.includes(id) && (org === null || orgId === org))
      .map((one) => [one.id, one]),
  );
  const of = (role: 'student' | 'teacher') =>
    found.enrollments.filter((one) => one.role === role && chosen.has(one.classId));
  const teachers = grouped(
    of('teacher').toSorted((a, b) => Number(b.isPrimary) - Number(a.isPrimary)),
    ({ classId }) => classId,
  );
  const byStudent = grouped(of('student'), ({ personId }) => personId);
  return [...byStudent].flatMap(([id, enrolled]): RosterEntry[] => {
    const person = found.people[id];
    if (!person || person.isGone) return [];
    const taught = enrolled.flatMap(({ classId }) => teachers.get(classId) ?? []).map(({ personId }) => personId);
    const messages: string[] = [];
    if (!person.firstName || !person.lastName) messages.push('Name: first and last name, please.');
    if (!person.grade) messages.push('Grade: users.csv says none.');
    else if (readGrade(person.grade) === null)
      messages.push(`Grade: “${person.grade.slice(0, 30)}” is none. ${unknownGrade}`);
    return [
      {
        ...{
          row: null,
          firstName: person.firstName,
          lastName: person.lastName,
          grade: person.grade,
          // The number by which the school knows them; the other is the program's that wrote the file.
          sourcedId: person.identifier || id,
          otherId: id,
          messages,
        },
        groups: enrolled.map(({ classId }) => ({
          name: (chosen.get(classId)?.title ?? '').slice(0, 60),
          sourcedId: classId,
        })),
        teachers: [...new Set(taught)].flatMap((personId) => {
          const one = found.people[personId];
          return one && !one.isGone ? [{ name: `${one.firstName} ${one.lastName}`.trim(), email: one.email }] : [];
        }),
      },
    ];
  });
}

function grouped<T>(list: readonly T[], key: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of list) groups.set(key(one), [...(groups.get(key(one)) ?? []), one]);
  return groups;
}
