import { redirect } from 'react-router';
import { v5 as nameId } from 'uuid';
import { entryTables } from '~/core/documents/entry-tables';
import { fileName } from '~/core/documents/file-name';
import { goalAtFirst } from '~/core/documents/first-page';
import { entryLines, individualReportDocument } from '~/core/documents/individual-report-document';
import { discreetEntry, discreetGoal } from '~/core/goals/discreet';
import { groupEntries } from '~/core/individual-report/groups';
import { stretchWords } from '~/core/individual-report/report';
import { counted } from '~/core/words/counting';
import { askForReport } from '~/server/documents/batches';
import { goalsOf, goalsWorkedOn, measureAt } from '~/server/goals/goals';
import { individualReport, reportSize } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { standingsOf } from '~/server/progress-report/goal-reports';
import { recordAccess } from '~/server/sharing/access-log';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { BEHAVIOR } from '../individual-report/goal-filter';
import { reportSearch } from '../individual-report/report-search';
import { teamReader } from '../individual-report/team-reader';
import { arrangementCookie, readCookie, sayNext, texts } from '../platform/http/cookies';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/report-file';
import { documentFile, formatFrom } from './file-answer';
import { reportFileWords } from './words';

/** A file of more entries than this is made by the worker: nobody else’s page waits for it. */
const MOST_AT_ONCE = 1000;
/** The same file, asked for twice within a minute, is one; later, something may have been corrected. */
const LARGE_REPORTS = '5b0e4f0a-6a86-4f0e-9d2c-3c1d7a52e9f1';

/** The individual report as a file, as the page shows it to the one who asks: what it is narrowed to, in its order and groups. */
export const loader = withErrorsInTurn(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'read');
  const format = formatFrom(params.format);
  const [stored, reader, chosen] = await Promise.all([
    goalsOf(database(), [student.id]),
    teamReader(student, discreet),
    readCookie(request, arrangementCookie, texts),
  ]);
  const goals = discreet ? stored.map(discreetGoal) : stored;
  const { wanted, arrangement, find, goal, from, to } = reportSearch(
    new URL(request.url).searchParams,
    goals,
    reader.rule,
    chosen ?? {},
  );
  const isPaper = format === 'pdf' || format === 'docx';
  const isWhole = wanted.only === null && find.trim() === '' && !discreet && isPaper;
  if (isWhole && can(student, 'share')) {
    const size = await reportSize(database(), student.id, reader, wanted);
    if (size > MOST_AT_ONCE) {
      const minute = now.toISOString().slice(0, 16);
      const about = JSON.stringify([actor.personId, student.id, from, to, arrangement, minute]);
      const asked = { id: nameId(about, LARGE_REPORTS), from, to, arrangement };
      await askForReport(database(), actor, student, asked, now);
      const text = reportFileWords.thatIsSoLongA(counted(size, 'entry', 'entries'));
      throw redirect('/reports', { headers: await sayNext({ text }) });
    }
  }
  // All pages of it, whichever was looked at.
  const whole = { ...wanted, page: 'all' as const, day: null };
  const { entries, threads } = await individualReport(database(), student.id, goals, reader, whole);
  const shown = discreet ? entries.map(discreetEntry) : entries;
  const groups = groupEntries(shown, arrangement.grouping, goals, actor.today);
  const narrowed = goals.find(({ id }) => id === goal);
  const about = [
    narrowed && `${narrowed.number} · ${narrowed.shortName}`,
    goal === BEHAVIOR && 'behavior',
    find && reportFileWords.with(find),
    stretchWords(from, to, actor.today),
  ];
  const what = reportFileWords.report(format.toUpperCase());
  await recordAccess(database(), { personId: actor.personId }, { studentId: student.id, what, how: 'exported' }, now);
  const { shortName } = headerStudent(student, { discreet });
  const said = discreet ? {} : threads;
  const paper = () =>
    individualReportDocument({
      atFirst,
      ...{ studentShortName: shortName, schoolName: school.name, today: actor.today },
      ...{ groups, threads: said, about: about.filter(Boolean).join(' · ') },
      layout: arrangement.layout,
    });
  // What is narrowed to one goal, or to a word, is no report that begins with all goals.
  const isNarrowed = wanted.only !== null || find.trim() !== '';
  const present = isNarrowed || !isPaper ? [] : goalsWorkedOn(goals);
  const standings = await standingsOf(database(), student.id, present, { school, today: to ?? actor.today });
  const atFirst = standings.map((standing) => goalAtFirst(standing, reader.shows));
  const goalOf = new Map(goals.map((one) => [one.id, one]));
  const inOrder = groups.flatMap((group) => group.entries);
  const tables = () =>
    entryTables(inOrder, {
      goals,
      measureAt: ({ goalId, goalVersion }) => {
        const of = goalId === null ? undefined : goalOf.get(goalId);
        return of ? measureAt(of, goalVersion) : null;
      },
      answersTo: (entry) => entryLines({ ...entry, sentence: '', note: null }, said[entry.id] ?? []),
    });
  return documentFile(format, fileName(shortName, 'individual report', actor.today), { paper, tables, school });
});
