import { SubNav } from '../platform/ui/sub-nav';
import { reportViewsWords } from './words';

/** The two kinds of report of a student: the individual report, and those of a period. */
export function ReportViews({ studentId }: { studentId: string }) {
  const views = [
    { to: `/students/${studentId}/individual-report`, label: reportViewsWords.individualReport },
    { to: `/students/${studentId}/progress-report`, label: reportViewsWords.progressReports },
  ];
  return <SubNav label={reportViewsWords.kindsOfReport} views={views} />;
}
