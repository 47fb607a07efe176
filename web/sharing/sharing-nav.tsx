import { SubNav } from '../platform/ui/sub-nav';

/** The pages about who reads a student’s report. */
export function ReadersNav({ studentId }: { studentId: string }) {
  const of = `/students/${studentId}`;
  const views = [
    { to: `${of}/sharing`, label: 'Who can see this' },
    { to: `${of}/sharing/visibility`, label: 'What whom' },
    { to: `${of}/sharing/links`, label: 'Ways in' },
    { to: `${of}/sharing/access-log`, label: 'Record of reading' },
  ];
  return <SubNav label="About readers" views={views} />;
}
