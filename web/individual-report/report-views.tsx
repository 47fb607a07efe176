import { SubNav } from '../platform/ui/sub-nav';

/** The two reports of a student: the running one, and those of a period. */
export function ReportViews({ studentId }: { studentId: string }) {
  const views = [
    { to: `/students/${studentId}/individual-report`, label: 'Individual report' },
    { to: `/students/${studentId}/progress-report`, label: 'Progress reports' },
  ];
  return <SubNav label="Kinds of report" views={views} />;
}
