import { SubNav } from '../platform/ui/sub-nav';
import { sharingNavWords } from './words';

/** The pages about who reads a student’s report. */
export function ReadersNav({ studentId }: { studentId: string }) {
  const of = `/students/${studentId}`;
  const views = [
    { to: `${of}/sharing`, label: sharingNavWords.whoCanSeeThis },
    { to: `${of}/sharing/visibility`, label: sharingNavWords.whatEachReaderSees },
    { to: `${of}/sharing/links`, label: sharingNavWords.shareLinks },
    { to: `${of}/desk`, label: sharingNavWords.desk },
    { to: `${of}/sharing/access-log`, label: sharingNavWords.accessLog },
    { to: `${of}/sharing/record`, label: sharingNavWords.wholeRecord },
  ];
  return <SubNav label={sharingNavWords.aboutReaders} views={views} />;
}
