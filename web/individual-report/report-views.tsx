import { SubNav } from '../platform/ui/sub-nav';
import { reportViewsWords } from './words';

/** The two reports of a student: the running one, and those of a period. */
export function ReportViews({ studentId }: { studentId: string }) {
  const views = [
    { to: `/students/${studentId}/individual-report`, label: reportViewsWords.individualReport },
    { to: `/students/${studentId}/progress-report`, label: reportViewsWords.progressReports },
  ];
  return <SubNav label={reportViewsWords.kindsOfReport} views={views} />;
}
