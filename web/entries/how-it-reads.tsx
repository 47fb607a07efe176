import { shortDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { fidelitySentence } from '~/core/entries/fidelity';
import type { ObservedGoal, SessionChoices } from '~/core/entries/waiting';
import { outcomeSentence } from '~/core/individual-report/report';
import { measureOf } from '~/core/measures/measure';
import { noteWithDataWords } from '~/core/measures/words-in-data';
import { isRunning } from '../measures/clock';
import { finished } from '../measures/finished';
import { useNow } from '../measures/use-now';
import { isMarked, type SessionDraft } from './draft';
import { LastFive } from './last-five';
import { sessionSummary } from './session-line';
import { howItReadsWords, sessionLineWords } from './words';

interface HowItReadsProps {
  goals: readonly ObservedGoal[];
  draft: SessionDraft;
  choices: SessionChoices;
}

/** What has been marked so far, in the words of the report. */
export function HowItReads({ goals, draft, choices }: HowItReadsProps) {
  const now = useNow(Object.values(draft.goals).some(({ clock }) => isRunning(clock)));
  const marked = goals.filter(({ id }) => draft.goals[id] && isMarked(draft.goals[id]));
  if (marked.length === 0) return <p className="text-small text-ink-2">{howItReadsWords.nothingIsMarkedYetGoals}</p>;
  const { on, ...rest } = draft.session;
  const about = sessionSummary({ on: '', ...rest }, choices).replace(
    sessionLineWords.noDate,
    on ? shortDate(on) : sessionLineWords.noDate,
  );
  return (
    <ol className="grid gap-4 overflow-y-auto">
      {marked.map((goal) => {
        const goalDraft = defined(draft.goals[goal.id]);
        const { reason, note, fidelity } = goalDraft;
        const data = finished(goal.measure, goalDraft, now);
        const words = noteWithDataWords(note.trim(), data);
        return (
          <li key={goal.id} className="border-l-2 border-fern pl-3.5">
            <p className="text-small text-ink-2">{about}</p>
            <p className="mt-0.5 font-bold">
              {goal.number} · {goal.shortName}
            </p>
            <p className="text-small">
              {reason !== null
                ? outcomeSentence(goal.measure, { data: null, reason })
                : data === null
                  ? howItReadsWords.theClockIsRunning
                  : outcomeSentence(goal.measure, { data, reason: null })}
            </p>
            {fidelity && <p className="text-small text-ink-2">{fidelitySentence(fidelity)}</p>}
            {words && <p className="mt-1 text-small whitespace-pre-line text-ink-2">{words}</p>}
          </li>
        );
      })}
    </ol>
  );
}

/** The active goal’s session so far beside its last five points. */
export function BesideLastFive({ goal, draft }: { goal: ObservedGoal; draft: SessionDraft }) {
  const goalDraft = draft.goals[goal.id];
  const now = useNow(goalDraft !== undefined && isRunning(goalDraft.clock));
  const data = goalDraft ? finished(goal.measure, goalDraft, now) : null;
  const measure = measureOf(goal.measure);
  const value = data === null ? null : measure.score(data).value;
  return (
    <section className="mt-6">
      <h3 className="mb-2 font-sans text-small font-bold">
        {howItReadsWords.besideTheLast(goal.number, goal.last.length === 5 ? 'five' : goal.last.length)}
      </h3>
      <LastFive
        last={goal.last}
        now={value === null || !measure.accumulates ? value : value + (goal.soFar ?? 0)}
        max={measure.axis.max}
        said={(some) => measure.said(some)}
        target={goal.criterion.value}
        isUp={goal.criterion.comparison === 'atLeast'}
      />
    </section>
  );
}
