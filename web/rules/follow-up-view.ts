import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import type { Database } from '~/server/platform/db/database';
import { changesOfFollowUps, type FollowUp } from '~/server/rules/follow-ups';
import { pageOf } from '../entries/page-of';
import { followUpsWords } from './words';

/** A follow-up as lists show it. */
export interface ShownFollowUp {
  id: string;
  version: number;
  studentId: string;
  student: string;
  what: string;
  due: string;
  isOverdue: boolean;
  isDone: boolean;
  forPerson: string;
  /** Whom it is for, and where it comes from. */
  about: string;
  /** What it is because of; null where that is nothing that has a page. */
  because: { to: string; label: string } | null;
  isWithdrawn: boolean;
  history: string[];
}

interface Around {
  today: string;
  timeZone: string;
  discreet: boolean;
  /** What students are called, by id. */
  names: ReadonlyMap<string, string>;
}

function becauseOf({ studentId, entryId, entryKind, goalId }: FollowUp): ShownFollowUp['because'] {
  if (entryId && entryKind) {
    const kind = entryKind === 'goal' ? 'observation' : entryKind;
    return { to: pageOf({ id: entryId, studentId, kind }), label: followUpsWords.becauseOf };
  }
  return goalId ? { to: `/students/${studentId}/goals/${goalId}`, label: followUpsWords.ofGoal } : null;
}

/** Follow-ups with what was done with them; in the discreet view without words and names of rules. */
export async function shownFollowUps(
  db: Database,
  followUps: readonly FollowUp[],
  { today, timeZone, discreet, names }: Around,
): Promise<ShownFollowUp[]> {
  const changes =
    followUps.length > 0
      ? await changesOfFollowUps(
          db,
          followUps.map(({ id }) => id),
        )
      : [];
  return followUps.map((one) => {
    const isOverdue = !one.isDone && one.dueOn < today;
    const due = followUpsWords[isOverdue ? 'overdue' : 'due'](shortDate(one.dueOn));
    const from = one.rule ? !discreet && followUpsWords.byRule(one.rule) : followUpsWords.by(one.madeBy ?? '');
    return {
      ...{ id: one.id, version: one.version, studentId: one.studentId, isDone: one.isDone, forPerson: one.forPerson },
      student: names.get(one.studentId) ?? '',
      // A text of somebody's own, as notes are.
      what: discreet ? followUpsWords.hiddenInDiscreet : one.what,
      due: one.dueOn === today && !one.isDone ? followUpsWords.dueToday : due,
      isOverdue,
      about: [followUpsWords.forName(one.forName), from, !discreet && one.goal, one.inReport && followUpsWords.inReport]
        .filter(Boolean)
        .join(' · '),
      because: becauseOf(one),
      isWithdrawn: one.isWithdrawn,
      history: changes
        .filter(({ followUpId }) => followUpId === one.id)
        .map(({ what, word, by, at, forName, dueOn }) => {
          const on = shortDate(wallTime(at, timeZone).on);
          const said = followUpsWords.changed[what](by, on, forName ?? shortDate(dueOn ?? today));
          return word && !discreet ? `${said}: ${word}` : said;
        }),
    };
  });
}
