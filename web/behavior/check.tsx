import type { BehaviorView } from './behavior-view';
import { checkWords } from './words';

/** The numbers behind the page, and the command that gives its figures from them. */
export function Check({ check, studentId }: { check: NonNullable<BehaviorView['check']>; studentId: string }) {
  const here = `/students/${studentId}`;
  const files = [
    [check.incidents, checkWords.incidents],
    [`${here}/behavior/timetable.csv`, checkWords.timetable],
    [`${here}/behavior/windows.csv`, checkWords.windows],
  ] as const;
  return (
    <details className="no-print mt-8 max-w-3xl">
      <summary className="tap py-1.5 text-lg font-semibold link">{checkWords.checkItYourself}</summary>
      <p className="mt-0.5 text-small text-ink-2">{checkWords.dataOfThisPage}</p>
      <ul className="mt-1 flex flex-wrap gap-x-5 text-small">
        {files.map(([to, label]) => (
          <li key={to}>
            <a href={to} download className="tap link">
              {label}
            </a>
          </li>
        ))}
      </ul>
      <pre className="mt-1 overflow-x-auto rounded-field bg-wash px-3 py-2 text-small whitespace-pre-wrap">
        {`npm run --silent analyse -- abc incidents.csv ${check.options}`}
      </pre>
    </details>
  );
}
