// The house as its imports tell it: floors, the rooms on them in their order, and who uses whom.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../..', import.meta.url));

/** The floors, each with those it stands on. */
export const floors: Record<string, readonly string[]> = {
  core: [],
  server: ['core'],
  web: ['server', 'core'],
};

/** The rooms in order, the same on each floor: one may use those that stand before it, and nothing after. */
export const rooms: Record<string, string> = {
  statistics: 'What is computed of numbers, whatever they are of',
  calendar: 'Days, times and school days',
  words: 'Counting in words, names, rich text, refusals',
  platform: 'What everything stands on: the database, the clock, HTTP, pieces of screens, what waits on a device',
  school: 'The school: its calendar, places and administrators, and what was changed',
  people: 'Accounts, signing in and out, beginning with an empty installation',
  students: 'The roster, plans, timetables and the support team with its rights',
  measures: 'The kinds of measure, each with its score, its words and its data sheet; how far two observers agree',
  goals: 'Goals with their versions and criteria; the goal bank',
  entries: 'What is recorded: sessions, incidents, counts, corrections, rounds, work samples, files',
  progress: 'Series, trend, phases and decision of a goal',
  behavior: 'What is computed of incidents and counts; patterns across students',
  rules: 'Rules: what marks an entry and what follows from it; follow-ups',
  sharing: 'Share links, what each reader sees, the access log, comments, other children’s names',
  'individual-report': 'Every entry of one student, as one reader may see it',
  'progress-report': 'What is frozen for a reporting period',
  documents: 'PDF, text documents, CSV, and files for several students',
  messages: 'What leaves by email: templates, frequency, delivery, the test mail server',
  imports: 'Files carried in: looked through row by row, imported, and taken back as a whole',
  'student-record': 'All that is held of one student, carried out and read in by another installation',
  desk: 'The students’ own pages',
  today: 'What to do next, all students at a glance, and the frame around every page',
};

/** What stands on a floor besides its rooms, above all of them: commands of their own that use any room. */
export const above: Record<string, readonly string[]> = { core: ['analyse'], server: ['worker', 'threads'], web: [] };

export function* sourcesOf(folder: string): Generator<string> {
  for (const entry of readdirSync(join(root, folder), { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sourcesOf(path);
    else if (/\.tsx?$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name)) yield path;
  }
}

/** What a file imports, as it is written there. */
export function importsOf(path: string): string[] {
  const text = readFileSync(join(root, path), 'utf8');
  return [...text.matchAll(/(?:\bfrom\s+|\bimport\s*\(?\s*)'([^'\n]+)'/g)].map((match) => match[1] as string);
}

/**
 * Where in the project an import leads; null for a package.
 *
 * @example target('web/today/today.tsx', '../platform/ui/page') // 'web/platform/ui/page'
 */
export function target(from: string, specifier: string): string | null {
  if (specifier.startsWith('~/')) return specifier.slice(2);
  if (!specifier.startsWith('.') || specifier.includes('+types/')) return null;
  return relative(root, resolve(root, dirname(from), specifier));
}

/** Floor and room of a path; no room for what stands beside the rooms. */
export function place(path: string): { floor: string; room: string | null } {
  const [floor = '', room = null, file] = path.split('/');
  return { floor, room: file === undefined ? null : room };
}

/** How often each room of a floor uses each other one. */
export function usesOn(floor: string): Map<string, Map<string, number>> {
  const uses = new Map<string, Map<string, number>>();
  for (const path of sourcesOf(floor)) {
    const { room } = place(path);
    if (!room) continue;
    const of = uses.get(room) ?? new Map<string, number>();
    uses.set(room, of);
    for (const specifier of importsOf(path)) {
      const to = target(path, specifier);
      const there = to && place(to);
      if (!there || there.floor !== floor || !there.room || there.room === room) continue;
      of.set(there.room, (of.get(there.room) ?? 0) + 1);
    }
  }
  return uses;
}

/** The page that tells of the house: its rooms, and one drawing for each floor. */
export function housePage(): string {
  const order = Object.keys(rooms);
  const list = order.map((room) => {
    const on = Object.keys(floors).filter((floor) => usesOn(floor).has(room));
    return `- **\`${room}\`** (${on.join(', ') || 'to come'}): ${rooms[room]}`;
  });
  const drawings = Object.keys(floors).map((floor) => {
    const uses = usesOn(floor);
    const names = [...order, ...(above[floor] as string[])].filter((room) => uses.has(room));
    const arrows = names.flatMap((from) =>
      names.flatMap((to) => (uses.get(from)?.has(to) ? [`  ${from} --> ${to}`] : [])),
    );
    return `## ${floor}/\n\n\`\`\`mermaid\nflowchart BT\n${names.map((name) => `  ${name}`).join('\n')}\n${arrows.join('\n')}\n\`\`\`\n`;
  });
  return `${head}\n${list.join('\n')}\n\n${drawings.join('\n')}`;
}

const head = `# The house

Drawn from the imports by \`npm run docs:house\`; a test fails when it is stale.

Three floors, the same rooms on each, under the same names and in the same order. \`core/\` is pure: no React, no database, no clock. \`server/\` is
what stands on Node. \`web/\` is routes and screens. A floor uses the floors below it; a room uses the rooms before it in this list, and
nothing after. \`tests/house/\` holds both.

A school comes before people: somebody signs in at a school, and may do there what its administrators gave them.
`;
