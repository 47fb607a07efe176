import { NavLink } from 'react-router';

interface SubNavProps {
  label: string;
  views: readonly { to: string; label: string }[];
}

/** The pages that belong together, below the views of a student. */
export function SubNav({ label, views }: SubNavProps) {
  return (
    <nav aria-label={label} className="no-print mt-4 flex flex-wrap gap-x-5 text-small">
      {views.map((view) => (
        <NavLink
          key={view.to}
          to={view.to}
          end
          className="py-2 text-ink-2 underline-offset-4 aria-[current=page]:font-bold aria-[current=page]:text-ink aria-[current=page]:underline"
        >
          {view.label}
        </NavLink>
      ))}
    </nav>
  );
}
