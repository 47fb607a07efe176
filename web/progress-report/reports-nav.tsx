import { NavLink } from 'react-router';
import { reportsNavWords } from './words';

/** The pages about what goes out: progress reports, and messages. */
export function ReportsNav({ setsUp }: { setsUp: boolean }) {
  const views = [
    { to: '/reports', label: reportsNavWords.progressReports },
    { to: '/messages', label: reportsNavWords.messages },
    ...(setsUp ? [{ to: '/messages/templates', label: reportsNavWords.messageTemplates }] : []),
  ];
  return (
    <nav
      aria-label={reportsNavWords.whatGoesOut}
      className="tabs tabs-border no-print mb-5 gap-x-6 border-b border-rule"
    >
      {views.map(({ to, label }) => (
        <NavLink
          key={to}
          to={to}
          end
          className="tab [--tab-p:0rem] text-ink-2 aria-[current=page]:font-bold aria-[current=page]:text-ink"
        >
          {label}
        </NavLink>
      ))}
    </nav>
  );
}
