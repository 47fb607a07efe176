import { SubNav } from '../platform/ui/sub-nav';

/** The pages about who reads a student’s report. */
export function ReadersNav({ studentId }: { studentId: string }) {
  const of = `/students/${studentId}`;
  const views = [
    { to: `${of}/readers`, label: 'Who can see this' },
    { to: `${of}/readers/rules`, label: 'What whom' },
    { to: `${of}/ways-in`, label: 'Ways in' },
    { to: `${of}/readings`, label: 'Record of reading' },
  ];
  return <SubNav label="About readers" views={views} />;
}
