import { Link, NavLink, useNavigate } from 'react-router';
import { type IsoDate, longDate, shortDate } from '~/core/calendar/iso-date';
import { UnderThumb } from '../platform/ui/at-foot';
import { useKey } from '../platform/ui/use-key';
import { NewEntries } from './new-entries';
import { studentHeaderWords } from './words';

export interface HeaderStudent {
  id: string;
  shortName: string;
  grade: string;
  groups: string[];
  plan: { startsOn: IsoDate; endsOn: IsoDate; nextReportOn: IsoDate | null } | null;
  /** Whether the pages that the report is made from are theirs to see. */
  maySee: boolean;
  mayObserve: boolean;
  mayShare: boolean;
  mayEditGoals: boolean;
  mayCarryOut: boolean;
  /** Archived: the record is read, and nothing is added to it. */
  hasLeft: boolean;
  isDiscreet: boolean;
}

const withoutWeekday = (date: IsoDate) => longDate(date).replace(/^\w+, /, '');

/**
 * Who the page is about, what can be done for them, and the views of them.
 *
 * @param isBehavior  whether the page is about behavior: then an incident is noted first, instead of a goal observed
 */
export function StudentHeader({ student, isBehavior = false }: { student: HeaderStudent; isBehavior?: boolean }) {
  const { id, shortName, grade, groups, plan, maySee, mayObserve, mayShare, mayEditGoals, isDiscreet } = student;
  const { mayCarryOut, hasLeft } = student;
  const navigate = useNavigate();
  useKey('o', () => {
    if (mayObserve) void navigate(`/students/${id}/observe`);
  });
  useKey('i', () => {
    if (mayObserve) void navigate(`/students/${id}/incidents/new`);
  });
  useKey('n', () => {
    if (mayObserve) void navigate(`/students/${id}/notes/new`);
  });
  const facts = [
    ...(hasLeft ? [studentHeaderWords.hasLeft] : []),
    grade,
    ...groups,
    plan
      ? studentHeaderWords.plan(withoutWeekday(plan.startsOn), withoutWeekday(plan.endsOn))
      : studentHeaderWords.noPlanDatesYet,
    ...(plan?.nextReportOn ? [studentHeaderWords.nextReport(shortDate(plan.nextReportOn))] : []),
  ];
  return (
    <header>
      <div className="flex flex-wrap items-start lg:flex-nowrap justify-between gap-x-4 gap-y-2">
        <div>
          <h1 className="text-3xl">{shortName}</h1>
          <p className="mt-1.5 text-small text-ink-2">
            {facts.join(' · ')}
            {mayEditGoals && (
              <>
                {' · '}
                <Link to={`/students/${id}/edit`} className="no-print link">
                  {studentHeaderWords.edit}
                </Link>
              </>
            )}
          </p>
        </div>
        {mayObserve && <MainActions studentId={id} isDiscreet={isDiscreet} isBehavior={isBehavior} />}
      </div>
      <nav
        aria-label={studentHeaderWords.viewsOf(shortName)}
        className="tabs tabs-border no-print mt-4 gap-x-6 border-b border-rule"
      >
        {maySee && <View to={`/students/${id}`}>{studentHeaderWords.goals}</View>}
        {maySee && (
          <View to={`/students/${id}/behavior`}>
            {isDiscreet ? studentHeaderWords.notes : studentHeaderWords.behavior}
          </View>
        )}
        <View to={`/students/${id}/individual-report`}>{studentHeaderWords.report}</View>
        {mayShare && <View to={`/students/${id}/sharing`}>{studentHeaderWords.sharing}</View>}
        {hasLeft && mayCarryOut && <View to={`/students/${id}/sharing/record`}>{studentHeaderWords.wholeRecord}</View>}
        {mayShare && <View to={`/students/${id}/team`}>{studentHeaderWords.team}</View>}
      </nav>
      <NewEntries key={id} studentId={id} />
    </header>
  );
}

function View({ to, children }: { to: string; children: string }) {
  return (
    <NavLink
      to={to}
      end
      className="tab [--tab-p:0rem] text-ink-2 aria-[current=page]:font-bold aria-[current=page]:text-ink"
    >
      {children}
    </NavLink>
  );
}

interface MainActionsProps {
  studentId: string;
  isDiscreet: boolean;
  isBehavior: boolean;
}

/** What is done most, where the thumb is on a phone. */
function MainActions({ studentId, isDiscreet, isBehavior }: MainActionsProps) {
  const observe = { to: 'observe', label: studentHeaderWords.observe, key: 'O' };
  const incident = { to: 'incidents/new', label: isDiscreet ? 'Note' : studentHeaderWords.recordAnIncident, key: 'I' };
  const count = { to: 'counts/new', label: studentHeaderWords.count, key: '' };
  const note = { to: 'notes/new', label: studentHeaderWords.note(isDiscreet), key: 'N' };
  const [first, ...others] = isBehavior ? [incident, count] : [observe, incident, note];
  return (
    <UnderThumb>
      {others.map(({ to, label, key }) => (
        <Link
          key={to}
          to={`/students/${studentId}/${to}`}
          className="btn px-4 text-base max-sm:h-12 max-sm:shrink max-sm:px-2.5 max-sm:text-small max-sm:leading-tight"
        >
          {label} {key && <kbd className="keycap">{key}</kbd>}
        </Link>
      ))}
      {first && (
        <Link
          to={`/students/${studentId}/${first.to}`}
          className="btn btn-primary px-5 text-base max-sm:h-12 max-sm:grow max-sm:px-3"
        >
          {first.label} <kbd className="keycap">{first.key}</kbd>
        </Link>
      )}
    </UnderThumb>
  );
}
