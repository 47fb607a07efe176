import { goalFilterWords } from './words';

interface GoalFilterProps {
  goals: readonly { id: string; number: string; shortName: string }[];
  chosen: string | null;
  /** Whether there are incidents or counts to show alone. */
  hasBehavior: boolean;
  onChoose: (goalId: string | null) => void;
}

/** Chosen in place of a goal: incidents and counts. */
export const BEHAVIOR = 'behavior';

/** Shows one goal's entries, those of behavior, or all. */
export function GoalFilter({ goals, chosen, hasBehavior, onChoose }: GoalFilterProps) {
  return (
    <label className="no-print flex items-center gap-2 text-small">
      <span className="font-semibold">{goalFilterWords.show}</span>
      <select className="select w-56" value={chosen ?? ''} onChange={(event) => onChoose(event.target.value || null)}>
        <option value="">{goalFilterWords.everything}</option>
        {goals.map(({ id, number, shortName }) => (
          <option key={id} value={id}>
            {number} · {shortName}
          </option>
        ))}
        {hasBehavior && <option value={BEHAVIOR}>{goalFilterWords.behavior}</option>}
      </select>
    </label>
  );
}
