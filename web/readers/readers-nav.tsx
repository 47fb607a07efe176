import { NavLink } from 'react-router';

/** The pages about who reads a student’s report. */
export function ReadersNav({ studentId }: { studentId: string }) {
  const views = [
    { to: 'readers', label: 'Who can see this' },
    { to: 'readers/rules', label: 'What whom' },
    { to: 'ways-in', label: 'Ways in' },
    { to: 'readings', label: 'Record of reading' },
  ];
  return (
    <nav aria-label="About readers" className="no-print mt-4 flex flex-wrap gap-x-5 text-small">
      {views.map(({ to, label }) => (
        <NavLink
          key={to}
          to={`/students/${studentId}/${to}`}
          end
          className="py-2 text-ink-2 underline-offset-4 aria-[current=page]:font-bold aria-[current=page]:text-ink aria-[current=page]:underline"
        >
          {label}
        </NavLink>
      ))}
    </nav>
  );
}
