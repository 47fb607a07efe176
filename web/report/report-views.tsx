import { NavLink } from 'react-router';

/** The two reports of a student: the running one, and those of a period. */
export function ReportViews({ studentId }: { studentId: string }) {
  return (
    <nav aria-label="Kinds of report" className="no-print mt-4 flex flex-wrap gap-x-5 text-small">
      {[
        { to: 'report', label: 'Running report' },
        { to: 'progress', label: 'Progress reports' },
      ].map(({ to, label }) => (
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
