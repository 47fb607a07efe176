import { Link } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { counted } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { accessLogOf } from '~/server/sharing/access-log';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { DataTable, sinceDay } from '../platform/ui/data-table';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/access-log';
import { readingRow } from './access-log-row';
import { ReadersNav } from './sharing-nav';
import { accessLogWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const readings = await accessLogOf(database(), actor, student.id);
  return {
    student: headerStudent(student, { discreet }),
    schoolName: school.name,
    today: actor.today,
    rows: readings.map((reading, i) => {
      const row = readingRow(reading, school.timeZone);
      return { id: String(i), ...row, who: discreet && reading.kind !== null ? accessLogWords.aReader : row.who };
    }),
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: accessLogWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

type Row = Route.ComponentProps['loaderData']['rows'][number];

const columns = [
  {
    accessorKey: 'on',
    header: 'Day',
    cell: ({ row }: { row: { original: Row } }) => `${longDate(row.original.on)} ${row.original.time}`,
    filterFn: sinceDay<Row>,
  },
  { accessorKey: 'who', header: 'Who' },
  {
    accessorKey: 'by',
    header: accessLogWords.byAndWhatFor,
    cell: ({ row: { original } }: { row: { original: Row } }) => (
      <>
        {original.by}
        <span className="block whitespace-normal text-ink-3">{original.purpose}</span>
      </>
    ),
  },
  { accessorKey: 'what', header: 'What' },
  { accessorKey: 'how', header: 'How' },
];

export default function AccessLog({ loaderData: { student, schoolName, today, rows } }: Route.ComponentProps) {
  return (
    <Page
      marginName={accessLogWords.aboutThisLog}
      margin={
        <>
          <MarginTitle>{accessLogWords.aboutThisLog}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{accessLogWords.everyOpeningExportMessageAnd}</p>
            <p>{accessLogWords.aSchoolKeepsARecord}</p>
            <p>
              <Link
                to={`/students/${student.id}/sharing/access-log.csv`}
                reloadDocument
                className="font-semibold text-ink link"
              >
                {accessLogWords.theAccessLogAsA}
              </Link>{' '}
              <Link to={`/students/${student.id}/sharing/access-log.xlsx`} reloadDocument className="text-ink link">
                {accessLogWords.asASpreadsheet}
              </Link>
            </p>
          </div>
        </>
      }
    >
      <PrintSheet head={accessLogWords.printedHeading(student.shortName, schoolName, longDate(today))}>
        <StudentHeader student={student} />
        <ReadersNav studentId={student.id} />
        <h2 className="mt-5 mb-4 text-2xl">{accessLogWords.accessLog}</h2>
        {rows.length === 0 ? (
          <p className="py-6 text-ink-2">{accessLogWords.nobodyHasReadItYet}</p>
        ) : (
          <DataTable
            rows={rows}
            columns={columns}
            names="on"
            wide="what"
            filters={[
              { id: 'who', label: accessLogWords.who },
              { id: 'how', label: accessLogWords.how },
            ]}
            all={rows.length}
            noun={['line', 'lines']}
            caption={accessLogWords.theAccessLog}
            first={50}
          />
        )}
        <p className="mt-4 pb-20 text-small text-ink-3 print:pb-0">{counted(rows.length, 'line', 'lines')}.</p>
      </PrintSheet>
    </Page>
  );
}
