import type { IsoDate } from '~/core/calendar/iso-date';
import { entryTables } from '~/core/documents/entry-tables';
import type { Format } from '~/core/documents/file-name';
import { answerLines, individualReportDocument } from '~/core/documents/individual-report-document';
import { discreetEntry } from '~/core/goals/discreet';
import { groupEntries } from '~/core/individual-report/groups';
import { stretchWords } from '~/core/individual-report/report';
import { type Goal, goalsWorkedOn, measureAt } from '~/server/goals/goals';
import { individualReport, type Reader } from '~/server/individual-report/individual-report';
import { remarksOn } from '~/server/individual-report/remarks';
import { database } from '~/server/platform/db/current';
import { goalsAtFirst } from '~/server/progress-report/goal-reports';
import type { School } from '~/server/school/school';
import type { StudentAccess } from '~/server/students/access';
import { BEHAVIOR } from '../individual-report/goal-filter';
import type { reportSearch } from '../individual-report/report-search';
import type { Contents } from './file-answer';
import { reportFileWords } from './words';

interface AsLookedAt {
  studentId: StudentAccess<'read'>;
  /** As it stands on the paper. */
  shortName: string;
  school: School;
  today: IsoDate;
  goals: readonly Goal[];
  reader: Reader;
  /** What the page is narrowed to, and how it is laid out. */
  asked: ReturnType<typeof reportSearch>;
  format: Format;
}

/** An individual report as a file, as the page shows it to the one who asks: all its pages, in its order and groups. */
export async function reportContents({
  studentId,
  shortName,
  school,
  today,
  goals,
  reader,
  asked,
  format,
}: AsLookedAt): Promise<Contents> {
  const { wanted, arrangement, find, goal, from, to } = asked;
  const whole = { ...wanted, page: 'all' as const, day: null };
  const { entries, threads } = await individualReport(database(), studentId, goals, reader, whole);
  const shown = reader.discreet ? entries.map(discreetEntry) : entries;
  const groups = groupEntries(shown, arrangement.grouping, goals, today);
  const narrowed = goals.find(({ id }) => id === goal);
  const about = [
    narrowed && `${narrowed.number} · ${narrowed.shortName}`,
    goal === BEHAVIOR && 'behavior',
    find && reportFileWords.with(find),
    stretchWords(from, to, today),
  ];
  const said = reader.discreet ? {} : threads;
  const where = { schoolId: school.id, today };
  const remarks = reader.discreet ? {} : await remarksOn(database(), where, studentId, reader.kind, entries);
  // What is narrowed to one goal, or to a word, is no report that begins with all goals.
  const isNarrowed = wanted.only !== null || find.trim() !== '';
  const isPaper = format === 'pdf' || format === 'docx';
  const present = isNarrowed || !isPaper ? [] : goalsWorkedOn(goals);
  const atFirst = await goalsAtFirst(database(), studentId, present, reader, { school, today: to ?? today });
  const goalOf = new Map(goals.map((one) => [one.id, one]));
  return {
    school,
    paper: () =>
      individualReportDocument({
        ...{ studentShortName: shortName, schoolName: school.name, today, atFirst },
        ...{ groups, remarks, threads: said, about: about.filter(Boolean).join(' · '), layout: arrangement.layout },
      }),
    tables: () =>
      entryTables(
        groups.flatMap((group) => group.entries),
        {
          goals,
          measureAt: ({ goalId, goalVersion }) => {
            const of = goalId === null ? undefined : goalOf.get(goalId);
            return of ? measureAt(of, goalVersion) : null;
          },
          answersTo: ({ id }) => answerLines(said[id] ?? [], remarks[id]),
        },
      ),
  };
}
