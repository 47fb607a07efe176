import { SubNav } from '../platform/ui/sub-nav';

/** The pages about who reads a student’s report. */
export function ReadersNav({ studentId }: { studentId: string }) {
  const of = `/students/${studentId}`;
  const views = [
    { to: `${of}/sharing`, label: 'Who can see this' },
    { to: `${of}/sharing/visibility`, label: 'What each reader sees' },
    { to: `${of}/sharing/links`, label: 'Share links' },
    { to: `${of}/sharing/access-log`, label: 'Access log' },
  ];
  return <SubNav label="About readers" views={views} />;
}
