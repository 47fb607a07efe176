import { Ellipsis, LayoutGrid, type LucideIcon, NotebookText, Sun, Users } from 'lucide-react';
import { useState } from 'react';
import { NavLink } from 'react-router';
import { useAtFoot } from '../platform/ui/at-foot';
import { Dialog } from '../platform/ui/dialog';
import { shellWords } from './words';

interface Place {
  to: string;
  label: string;
  /** Of those that are under the thumb on a phone; the others are one tap further. */
  icon?: LucideIcon;
}

const places: Place[] = [
  { to: '/', label: shellWords.today, icon: Sun },
  { to: '/students', label: shellWords.students, icon: Users },
  { to: '/class', label: shellWords.class, icon: LayoutGrid },
  { to: '/patterns', label: shellWords.patterns },
  { to: '/reports', label: shellWords.reports, icon: NotebookText },
  { to: '/team', label: shellWords.team },
  { to: '/setup', label: shellWords.setup },
];

/** The main places, from tablets on: all of them in sight. */
export function Places() {
  return (
    <nav aria-label={shellWords.places} className="flex text-small whitespace-nowrap max-sm:hidden">
      {places.map(({ to, label }) => (
        <NavLink key={to} to={to} end={to === '/'} className={placeLink}>
          {label}
        </NavLink>
      ))}
    </nav>
  );
}

const placeLink =
  'tap grid items-center px-[7px] text-ink-2 md:px-2.5 aria-[current=page]:font-bold aria-[current=page]:text-ink';

/** The main places where the thumb is, on a phone. */
export function ThumbBar() {
  useAtFoot('thumb-bar');
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <nav aria-label={shellWords.places} className={thumbBar}>
        {places.map(
          ({ to, label, icon: Icon }) =>
            Icon && (
              <NavLink key={to} to={to} end={to === '/'} className={thumbLook}>
                <Icon size={20} aria-hidden />
                {label}
              </NavLink>
            ),
        )}
        <button type="button" aria-haspopup="dialog" className={thumbLook} onClick={() => setOpen(true)}>
          <Ellipsis size={20} aria-hidden />
          {shellWords.more}
        </button>
      </nav>
      {isOpen && (
        <Dialog title={shellWords.more} onClose={() => setOpen(false)}>
          <nav aria-label={shellWords.more} className="grid p-3">
            {[...places.filter(({ icon }) => !icon), ...besides].map(({ to, label }) => (
              <NavLink key={to} to={to} onClick={() => setOpen(false)} className={moreLink}>
                {label}
              </NavLink>
            ))}
          </nav>
        </Dialog>
      )}
    </>
  );
}

const besides: Place[] = [
  { to: '/rounds', label: shellWords.rounds },
  { to: '/incidents/new', label: shellWords.recordAnIncident },
  { to: '/follow-ups', label: shellWords.followUps },
];

const thumbBar =
  'thumb-bar no-print fixed inset-x-0 bottom-0 z-20 grid grid-cols-5 border-t border-rule bg-sheet sm:hidden';
const thumbLook =
  'grid h-14 content-center justify-items-center gap-0.5 text-xs text-ink-2 aria-[current=page]:font-bold aria-[current=page]:text-ink';
const moreLink = 'flex min-h-12 items-center rounded-field px-4 text-lg hover:bg-wash aria-[current=page]:font-bold';
