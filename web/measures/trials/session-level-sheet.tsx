import { defined } from '~/core/defined';
import type { CountedTrials, TrialsDefinition } from '~/core/measures/trials/trials';
import { NumberField, TextButton } from '../sheet';
import { sessionLevelSheetWords } from './words';

interface SessionLevelProps {
  definition: TrialsDefinition;
  /** The support level of the whole session. */
  level: string;
  data: CountedTrials;
  onLevel: (level: string) => void;
  onMark: (data: CountedTrials | null) => void;
}

/** One support level for the whole session: how many went right with it, of how many. */
export function SessionLevelSheet({ definition, level, data, onLevel, onMark }: SessionLevelProps) {
  const right = data.counts[level] ?? null;
  const write = (key: string, n: number | null, of: number) => {
    const incorrect = n === null ? 0 : Math.max(0, of - n);
    onMark({
      counts: { ...(n !== null && { [key]: n }), ...(incorrect > 0 && { incorrect }) },
      opportunities: of,
    });
  };
  const { many } = definition.opportunity;
  return (
    <>
      <fieldset className="flex flex-wrap gap-1.5 text-small">
        <legend className="mb-1.5 font-semibold">{sessionLevelSheetWords.supportLevel}</legend>
        {definition.levels.map(({ key, label }) => (
          <button
            key={key}
            type="button"
            aria-pressed={level === key}
            onClick={() => {
              onLevel(key);
              write(key, right, data.opportunities);
            }}
            className={`tap rounded-full border px-3 ${level === key ? 'border-ink bg-wash font-semibold' : 'border-rule text-ink-2'}`}
          >
            {label}
          </button>
        ))}
      </fieldset>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        <NumberField
          label={sessionLevelSheetWords.right}
          value={right}
          onChange={(n) => write(level, n, data.opportunities)}
        />
        <NumberField
          label={sessionLevelSheetWords.ofHowMany(many)}
          value={data.opportunities || null}
          onChange={(n) => write(level, right, n ?? 0)}
        />
        <TextButton onPress={() => onMark(null)}>{sessionLevelSheetWords.oneByOneInstead}</TextButton>
      </div>
    </>
  );
}

/** The level that a session of one level begins with: the one with the most support that still counts. */
export const firstLevel = ({ mostSupport, levels }: TrialsDefinition) => mostSupport ?? defined(levels[0]).key;
