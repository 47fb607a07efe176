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
      return { id: String(i), ...row, who: discreet && reading.kind !== null ? 'A reader' : row.who };
    }),
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Access log, ${loaderData?.student.shortName ?? 'a student'} · Gentle Margin` },
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
    header: 'By, and what for',
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
      marginName="About this log"
      margin={
        <>
          <MarginTitle>About this log</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>
              Every opening, export, message and issued report of this student: by or to whom, by which share link, and
              what for. What the team opens is written once a day; what a reader from outside opens, each time, except
              again within ten minutes.
            </p>
            <p>
              A school keeps a record of who was shown a student’s records: 34 CFR 99.32. Nothing is taken out of it.
            </p>
            <p>
              <Link
                to={`/students/${student.id}/sharing/access-log.csv`}
                reloadDocument
                className="font-semibold text-ink link"
              >
                The access log as a file (CSV)
              </Link>
            </p>
          </div>
        </>
      }
    >
      <PrintSheet head={`${student.shortName} · access log · ${schoolName} · ${longDate(today)}`}>
        <StudentHeader student={student} />
        <ReadersNav studentId={student.id} />
        <h2 className="mt-5 mb-4 text-2xl">Access log</h2>
        {rows.length === 0 ? (
          <p className="py-6 text-ink-2">Nobody has read it yet.</p>
        ) : (
          <DataTable
            rows={rows}
            columns={columns}
            names="on"
            wide="what"
            filters={[
              { id: 'who', label: 'Who' },
              { id: 'how', label: 'How' },
            ]}
            all={rows.length}
            noun={['reading', 'readings']}
            caption="The access log"
            first={50}
          />
        )}
        <p className="mt-4 pb-20 text-small text-ink-3 print:pb-0">{counted(rows.length, 'reading', 'readings')}.</p>
      </PrintSheet>
    </Page>
  );
}
