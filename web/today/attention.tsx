import { Link } from 'react-router';
import type { Decision } from '~/core/progress/decision';
import { DecisionMark } from '../platform/ui/decision-mark';
import { attentionWords } from './words';

interface GoalInNeed extends Pick<Decision, 'is' | 'label' | 'reason'> {
  id: string;
  studentId: string;
  name: string;
  number: string;
  shortName: string;
}

/** The goals whose decision needs a closer look, each with its reason. */
export function Attention({ goals }: { goals: readonly GoalInNeed[] }) {
  if (goals.length === 0) return null;
  return (
    <section className="mt-8 pb-16">
      <h2 className="border-b border-rule pb-2 text-lg">{attentionWords.needsACloserLook}</h2>
      <ul>
        {goals.map(({ id, studentId, name, number, shortName, is, label, reason }) => (
          <li key={id} className="grid gap-x-4 border-b border-rule py-2.5 sm:grid-cols-[8rem_1fr_auto]">
            <span className="display text-lg">{name}</span>
            <span>
              <Link to={`/students/${studentId}/goals/${id}`} className="font-semibold hover:underline">
                {number} · {shortName}
              </Link>
              <span className="block text-small text-ink-2">{reason}</span>
            </span>
            <span className="text-small">
              <DecisionMark is={is} label={label} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
