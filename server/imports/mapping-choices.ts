import type { EntryFacts } from '~/core/imports/entries';
import { type FileTable, unmarked } from '~/core/imports/file-table';
import type { ImportKindName } from '~/core/imports/kinds';
import type { RosterCommand } from '~/core/imports/roster';
import type { Database } from '../platform/db/database';
import type { Actor } from '../school/school';
import { staffOf } from '../students/team';
import type { FileContent } from './read-file';

interface Named {
  id: string;
  name: string;
}

/** What the form chooses from that says what a file's columns hold. */
export interface MappingChoices {
  sheets: Named[];
  columns: { heading: string; samples: string[] }[];
  students: Named[];
  goals: (Named & { studentId: string })[];
  staff: Named[];
  /** Of OneRoster. */
  orgs: Named[];
  classes: Named[];
  /** Whom the file names as staff, and who does not work here yet: by their address. */
  invites: Named[];
}

const SAMPLES = 3;

export async function mappingChoices(
  db: Database,
  actor: Actor,
  kind: ImportKindName,
  {
    content,
    table,
    facts,
    commands,
  }: { content: FileContent; table: FileTable | null; facts: unknown; commands: readonly unknown[] },
): Promise<MappingChoices> {
  const roster = content.is === 'oneRoster' ? content.roster : null;
  // Each kind’s facts name its students; those of entries their goals too.
  const { students = [], goals = [] } = facts as Partial<Pick<EntryFacts, 'students' | 'goals'>>;
  const isOfStudents = kind !== 'roster';
  const nameOf = new Map(students.map(({ id, name }) => [id, name]));
  return {
    sheets: content.is === 'tables' ? content.tables.map(({ name }, at) => ({ id: String(at), name })) : [],
    columns: (table?.head ?? []).map((heading, at) => ({ heading: unmarked(heading), samples: samplesOf(table, at) })),
    students: isOfStudents ? students.map(({ id, name }) => ({ id, name })) : [],
    goals:
      kind === 'entries'
        ? goals.map(({ id, studentId, number, shortName }) => ({
            ...{ id, studentId, name: `${nameOf.get(studentId) ?? ''} · ${number} ${shortName}` },
          }))
        : [],
    staff:
      kind === 'roster'
        ? await staffOf(db, actor.schoolId, actor.today).orderBy('p.name').select<Named[]>('p.id', 'p.name')
        : [],
    orgs: roster?.orgs ?? [],
    classes: roster?.classes.map(({ id, title }) => ({ id, name: title })) ?? [],
    invites: kind === 'roster' ? awaitedIn(commands as readonly RosterCommand[]) : [],
  };
}

function awaitedIn(commands: readonly RosterCommand[]): Named[] {
  const all = commands.flatMap(({ awaited }) => awaited);
  const byAddress = new Map(
    all.map(({ name, email }) => [email.toLowerCase(), { id: email, name: `${name}, ${email}` }]),
  );
  return [...byAddress.values()].sort((a, b) => a.name.localeCompare(b.name));
}

/** What stands in a column, the first few different ones. */
function samplesOf(table: FileTable | null, at: number): string[] {
  const found = new Set<string>();
  for (const row of table?.rows ?? []) {
    const text = unmarked(row[at] ?? '');
    if (text) found.add(text.length > 40 ? `${text.slice(0, 39)}…` : text);
    if (found.size === SAMPLES) break;
  }
  return [...found];
}
