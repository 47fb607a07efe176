import { Link, NavLink, useNavigate } from 'react-router';
import { type IsoDate, longDate, shortDate } from '~/core/calendar/iso-date';
import { useKey } from '../ui/use-key';

export interface HeaderStudent {
  id: string;
  shortName: string;
  grade: string;
  groups: string[];
  plan: { startsOn: IsoDate; endsOn: IsoDate; nextReportOn: IsoDate | null } | null;
  mayObserve: boolean;
  mayShare: boolean;
  maySetUp: boolean;
}

const withoutWeekday = (date: IsoDate) => longDate(date).replace(/^\w+, /, '');

/** Who the page is about, what can be done for them, and the views of them. */
export function StudentHeader({ student }: { student: HeaderStudent }) {
  const { id, shortName, grade, groups, plan, mayObserve, mayShare, maySetUp } = student;
  const navigate = useNavigate();
  useKey('o', () => mayObserve && navigate(`/students/${id}/observe`));
  const facts = [
    grade,
    ...groups,
    plan ? `Plan ${withoutWeekday(plan.startsOn)} – ${withoutWeekday(plan.endsOn)}` : 'No plan dates yet',
    ...(plan?.nextReportOn ? [`Next report ${shortDate(plan.nextReportOn)}`] : []),
  ];
  return (
    <header>
      <div className="flex items-start justify-between gap-4">
        <div>
          <h1 className="text-3xl">{shortName}</h1>
          <p className="mt-1.5 text-small text-ink-2">
            {facts.join(' · ')}
            {maySetUp && (
              <>
                {' · '}
                <Link to={`/students/${id}/edit`} className="no-print underline underline-offset-2">
                  edit
                </Link>
              </>
            )}
          </p>
        </div>
        {mayObserve && (
          <Link
            to={`/students/${id}/observe`}
            className="btn btn-primary h-11 px-5 text-base max-sm:fixed max-sm:inset-x-4 max-sm:bottom-4 max-sm:z-20 max-sm:h-13 no-print"
          >
            Observe <kbd className="keycap">O</kbd>
          </Link>
        )}
      </div>
      <nav aria-label={`Views of ${shortName}`} className="no-print mt-5 flex gap-6 border-b border-rule">
        <View to={`/students/${id}`}>Goals</View>
        <View to={`/students/${id}/report`}>Report</View>
        {mayShare && <View to={`/students/${id}/ways-in`}>Ways in</View>}
      </nav>
    </header>
  );
}

function View({ to, children }: { to: string; children: string }) {
  return (
    <NavLink
      to={to}
      end
      className="-mb-px border-b-2 border-transparent py-2.5 text-ink-2 aria-[current=page]:border-ink aria-[current=page]:font-bold aria-[current=page]:text-ink"
    >
      {children}
    </NavLink>
  );
}
