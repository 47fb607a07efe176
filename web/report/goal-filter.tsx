interface GoalFilterProps {
  goals: readonly { id: string; number: string; shortName: string }[];
  chosen: string | null;
  onChoose: (goalId: string | null) => void;
}

/** Shows one goal's entries, or all. */
export function GoalFilter({ goals, chosen, onChoose }: GoalFilterProps) {
  return (
    <label className="no-print flex items-center gap-2 text-small">
      <span className="font-semibold">Show</span>
      <select className="select w-56" value={chosen ?? ''} onChange={(event) => onChoose(event.target.value || null)}>
        <option value="">All goals</option>
        {goals.map(({ id, number, shortName }) => (
          <option key={id} value={id}>
            {number} · {shortName}
          </option>
        ))}
      </select>
    </label>
  );
}
