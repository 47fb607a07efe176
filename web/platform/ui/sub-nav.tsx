import { NavLink } from 'react-router';

interface SubNavProps {
  label: string;
  views: readonly { to: string; label: string }[];
}

/** The pages that belong together, below the views of a student. */
export function SubNav({ label, views }: SubNavProps) {
  return (
    <nav aria-label={label} className="tabs no-print mt-2 gap-x-5">
      {views.map((view) => (
        <NavLink
          key={view.to}
          to={view.to}
          end
          className="tab [--tab-p:0rem] text-small text-ink-2 underline-offset-4 aria-[current=page]:font-bold aria-[current=page]:text-ink aria-[current=page]:underline"
        >
          {view.label}
        </NavLink>
      ))}
    </nav>
  );
}
