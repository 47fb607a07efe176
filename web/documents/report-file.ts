import { redirect } from 'react-router';
import { v5 as nameId } from 'uuid';
import { fileName } from '~/core/documents/file-name';
import { discreetGoal } from '~/core/goals/discreet';
import { counted } from '~/core/words/counting';
import { askForReport } from '~/server/documents/batches';
import { goalsOf } from '~/server/goals/goals';
import { reportSize } from '~/server/individual-report/individual-report';
import { database } from '~/server/platform/db/current';
import { recordAccess } from '~/server/sharing/access-log';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { reportSearch } from '../individual-report/report-search';
import { teamReader } from '../individual-report/team-reader';
import { arrangementCookie, readCookie, sayNext, texts } from '../platform/http/cookies';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/report-file';
import { documentFile, formatFrom } from './file-answer';
import { reportContents } from './report-contents';
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
  const asked = reportSearch(new URL(request.url).searchParams, goals, reader.rule, chosen ?? {});
  const { wanted, arrangement, find, from, to } = asked;
  const isPaper = format === 'pdf' || format === 'docx';
  const isWhole = wanted.only === null && find.trim() === '' && !discreet && isPaper;
  if (isWhole && can(student, 'share')) {
    const size = await reportSize(database(), student.id, reader, wanted);
    if (size > MOST_AT_ONCE) {
      const minute = now.toISOString().slice(0, 16);
      const about = JSON.stringify([actor.personId, student.id, from, to, arrangement, minute]);
      const file = { id: nameId(about, LARGE_REPORTS), from, to, arrangement };
      await askForReport(database(), actor, student, file, now);
      const text = reportFileWords.thatIsSoLongA(counted(size, 'entry', 'entries'));
      throw redirect('/reports', { headers: await sayNext({ text }) });
    }
  }
  const { shortName } = headerStudent(student, { discreet });
  const contents = await reportContents({
    ...{ studentId: student.id, shortName, school, today: actor.today },
    ...{ goals, reader, asked, format },
  });
  const what = reportFileWords.report(format.toUpperCase());
  await recordAccess(database(), { personId: actor.personId }, { studentId: student.id, what, how: 'exported' }, now);
  return documentFile(format, fileName(shortName, 'individual report', actor.today), contents);
});
