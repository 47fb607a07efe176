import { Link } from 'react-router';

/** What of a new student is there already. */
export interface FirstStepsDone {
  plan: boolean;
  goals: boolean;
  baseline: boolean;
  team: boolean;
}

interface FirstStepsProps {
  studentId: string;
  done: FirstStepsDone;
  /** The first goal that has none yet: where it is set. */
  withoutBaseline: string | null;
}

/** What to do for a new student, in order. It goes away with the first entry. */
export function FirstSteps({ studentId, done, withoutBaseline }: FirstStepsProps) {
  const here = `/students/${studentId}`;
  const steps = [
    { label: 'Plan dates and reporting periods', to: `${here}/edit`, isDone: done.plan },
    { label: 'Goals, word for word as in the plan', to: `${here}/goals/new`, isDone: done.goals },
    {
      label: 'A baseline for each goal',
      to: `${here}/goals/${withoutBaseline ? `${withoutBaseline}/edit` : 'new'}`,
      isDone: done.baseline,
    },
    { label: 'The support team', to: `${here}/team`, isDone: done.team },
    { label: 'The first entry', to: `${here}/observe`, isDone: false },
  ];
  const next = steps.find(({ isDone }) => !isDone);
  return (
    <section aria-label="First steps" className="mt-5 max-w-2xl rounded-box border border-rule bg-sheet p-5">
      <h2 className="text-lg">First steps</h2>
      <ol className="mt-2">
        {steps.map((step) => (
          <li key={step.label} className="flex items-center gap-3 py-1">
            <span aria-hidden className={`w-5 text-center ${step.isDone ? 'text-fern' : 'text-ink-3'}`}>
              {step.isDone ? '✓' : '○'}
            </span>
            {step.isDone ? (
              <span className="text-ink-2">
                {step.label} <span className="sr-only">(done)</span>
              </span>
            ) : (
              <Link to={step.to} className={`link ${step === next ? 'font-semibold' : ''}`}>
                {step.label}
              </Link>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
