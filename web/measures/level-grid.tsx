import { padKeys } from './sheet';

interface Part {
  key: string;
  label: string;
}

interface LevelGridProps {
  /** Items, or the steps of a task analysis in their order. */
  parts: readonly Part[];
  isNumbered?: boolean;
  outcomes: readonly Part[];
  outcomeOf: (part: string) => string | null;
  toneOf: (outcome: string) => string;
  /** The part that the digits mark next, where they do. */
  next: string | null;
  onMark: (part: string, outcome: string | null) => void;
}

/** Each part with every outcome it may have: one tap each; another tap on it leaves the part open again. */
export function LevelGrid({ parts, isNumbered = false, outcomes, outcomeOf, toneOf, next, onMark }: LevelGridProps) {
  // Few outcomes leave room for two parts beside each other.
  const isNarrow = outcomes.length <= 4;
  return (
    <ol className={`grid gap-x-6 gap-y-2.5 ${isNarrow ? '@3xl:grid-cols-2' : ''}`}>
      {parts.map(({ key, label }, at) => (
        <li key={key} data-open={outcomeOf(key) === null || undefined}>
          <fieldset className="flex flex-wrap items-center gap-x-2 gap-y-1">
            <legend className="sr-only">{label}</legend>
            <span
              aria-hidden
              className={`w-full text-small @lg:w-40 ${next === key ? 'font-semibold' : ''} ${isNarrow ? '@3xl:w-28' : ''}`}
            >
              {isNumbered && `${at + 1}. `}
              {label}
            </span>
            <span className={isNarrow ? narrowRow : wideRow}>
              {outcomes.map((outcome, i) => {
                const isChosen = outcomeOf(key) === outcome.key;
                return (
                  <button
                    key={outcome.key}
                    type="button"
                    aria-pressed={isChosen}
                    // A tap leaves the focus where it was, so that Enter goes on meaning “save”.
                    onMouseDown={(event) => event.preventDefault()}
                    onClick={() => onMark(key, isChosen ? null : outcome.key)}
                    className={`relative min-h-11 rounded-field px-1 text-small leading-tight font-semibold active:scale-97 ${isChosen ? toneOf(outcome.key) : 'border border-rule font-normal text-ink-2'}`}
                  >
                    {outcome.label}
                    {next === key && padKeys[i] && (
                      <kbd aria-hidden className="keycap absolute top-0.5 right-0.5">
                        {padKeys[i]}
                      </kbd>
                    )}
                  </button>
                );
              })}
            </span>
          </fieldset>
        </li>
      ))}
    </ol>
  );
}

const narrowRow = 'grid w-full auto-cols-fr grid-flow-col gap-1.5 @lg:w-auto @lg:flex-1';
const wideRow = 'grid w-full grid-cols-[repeat(auto-fit,minmax(5.25rem,1fr))] gap-1.5 @lg:w-auto @lg:flex-1';
