import { Link } from 'react-router';
import { firstStepsWords } from './words';

export interface FirstStep {
  label: string;
  to: string;
  isDone: boolean;
}

/** What to do first, in order, each with where it is done; the next one stands out. Nothing once all is done. */
export function FirstSteps({ steps }: { steps: readonly FirstStep[] }) {
  const next = steps.find(({ isDone }) => !isDone);
  if (!next) return null;
  return (
    <section
      aria-label={firstStepsWords.firstSteps}
      className="no-print mt-5 max-w-2xl rounded-box border border-rule bg-sheet p-5"
    >
      <h2 className="text-lg">{firstStepsWords.firstSteps}</h2>
      <ol className="mt-2">
        {steps.map((step) => (
          <li key={step.label} className="flex items-center gap-3 py-1">
            <span aria-hidden className={`w-5 text-center ${step.isDone ? 'text-fern' : 'text-ink-3'}`}>
              {step.isDone ? '✓' : '○'}
            </span>
            {step.isDone ? (
              <span className="text-ink-2">
                {step.label} <span className="sr-only">{firstStepsWords.done}</span>
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
