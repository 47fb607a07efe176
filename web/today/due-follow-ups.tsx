import { Link } from 'react-router';
import { type IsoDate, shortDate } from '~/core/calendar/iso-date';
import type { FollowUp } from '~/server/rules/follow-ups';
import { todayWords } from './words';

/** As many stand on Today; the others are one tap away. */
const SHOWN = 4;

interface Due {
  due: { id: string; studentId: string; student: string; what: string; when: string; isOverdue: boolean }[];
  open: number;
}

/** Of what is open, what is due by today, the longest due first. */
export function dueFollowUps(
  open: readonly FollowUp[],
  { today, names, discreet }: { today: IsoDate; names: ReadonlyMap<string, string>; discreet: boolean },
): Due {
  const due = open.filter(({ dueOn }) => dueOn <= today).slice(0, SHOWN);
  return {
    due: due.map(({ id, studentId, what, dueOn }) => ({
      ...{
        id,
        studentId,
        what: discreet ? todayWords.hiddenFollowUp : what,
        student: names.get(studentId) ?? '',
        isOverdue: dueOn < today,
      },
      when: dueOn < today ? todayWords.wasDue(shortDate(dueOn)) : todayWords.isDueToday,
    })),
    open: open.length,
  };
}

/** What somebody is to do because of what was recorded; nothing while nothing is open. */
export function DueFollowUps({ due, open }: Due) {
  if (open === 0) return null;
  return (
    <section className="mt-8">
      <h2 className="border-b border-rule pb-2 text-lg">{todayWords.followUps}</h2>
      <ul>
        {due.map(({ id, studentId, student, what, when, isOverdue }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule py-2.5">
            <Link
              to={`/students/${studentId}/follow-ups`}
              className="flex tap items-center display w-32 text-lg hover:underline"
            >
              {student}
            </Link>
            <span className="min-w-0 grow basis-60">{what}</span>
            <span className={`text-small ${isOverdue ? 'font-semibold text-clay-deep' : 'text-ink-2'}`}>{when}</span>
          </li>
        ))}
      </ul>
      <p className="mt-3 text-small">
        <Link to="/follow-ups" className="text-ink-2 link">
          {todayWords.allFollowUps(open)}
        </Link>
      </p>
    </section>
  );
}
