import { Undo2 } from 'lucide-react';
import type { CSSProperties } from 'react';
import type { CriterionDefinition } from '~/core/goals/criterion-definition';
import { asCount } from '~/core/measures/score';
import { unsupportedOutcomes, unsupportedWords } from '~/core/measures/support-levels';
import { scoreTrials, type TrialsDefinition } from '~/core/measures/trials';
import { percent } from '~/core/words/counting';
import { toneOf } from '../ui/outcome-tones';

/** The keys of the pads, in their order. */
export const padKeys = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '-'];

/** As many pads stand in one row. */
const ONE_ROW = 7;

/** What one chance can come to, in the order of the pads: the goal's levels, then what is no success at any level. */
export function padsOf(definition: TrialsDefinition): { key: string; label: string }[] {
  return [
    ...definition.levels.map(({ key, label }) => ({ key, label })),
    ...unsupportedOutcomes.map((key) => ({ key, label: unsupportedWords[key].label })),
  ];
}

interface Strip {
  definition: TrialsDefinition;
  criterion: CriterionDefinition;
  trials: readonly string[];
  /** The bead that the next tap replaces. */
  selected: number | null;
  /** Whether the digit keys go to this strip. */
  showsKeys: boolean;
  onMark: (outcome: string) => void;
  onSelect: (at: number | null) => void;
  onTakeBack: () => void;
}

/** Each tap lays a bead on the string: its colour is the level, its place the chance. */
export function TrialsStrip({
  definition,
  criterion,
  trials,
  selected,
  showsKeys,
  onMark,
  onSelect,
  onTakeBack,
}: Strip) {
  const pads = padsOf(definition);
  // One row, or two of the same length.
  const columns = pads.length <= ONE_ROW ? pads.length : Math.ceil(pads.length / 2);
  const labels = new Map(pads.map(({ key, label }) => [key, label]));
  const stillOpen = Math.max(0, (definition.planned ?? 0) - trials.length);
  return (
    <>
      <fieldset
        className="grid grid-cols-3 gap-2 sm:grid-cols-[repeat(var(--columns),minmax(0,1fr))]"
        style={{ '--columns': columns } as CSSProperties}
      >
        <legend className="sr-only">{selected === null ? 'Next chance' : `Chance ${selected + 1}`}</legend>
        {pads.map(({ key, label }, i) => (
          <button
            key={key}
            type="button"
            // A tap leaves the focus where it was, so that Enter goes on meaning “save”.
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => onMark(key)}
            className={`relative h-14.5 rounded-field px-1 font-semibold leading-tight transition-transform active:scale-97 ${showsKeys ? 'pointer-fine:pt-4' : ''} ${toneOf(definition, key)}`}
          >
            {label}
            {showsKeys && (
              <kbd aria-hidden className="keycap absolute top-1 right-1">
                {padKeys[i]}
              </kbd>
            )}
          </button>
        ))}
      </fieldset>
      <div className="mt-3.5 flex min-h-11 flex-wrap items-center gap-x-4 gap-y-2">
        <ol className="flex flex-wrap gap-1.5">
          {trials.map((outcome, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a trial is its place
            <li key={at}>
              <button
                type="button"
                aria-label={`Chance ${at + 1}: ${labels.get(outcome)}. Change it`}
                aria-pressed={selected === at}
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => onSelect(selected === at ? null : at)}
                className={`bead grid size-8 place-items-center text-xs font-bold pointer-coarse:size-11 ${toneOf(definition, outcome)} ${selected === at ? 'outline-2 outline-offset-2 outline-clay' : ''}`}
              >
                {at + 1}
              </button>
            </li>
          ))}
          {Array.from({ length: stillOpen }, (_, i) => (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: an empty place has nothing but its place
              key={`open ${i}`}
              aria-hidden
              className="size-8 rounded-full border border-dashed border-ink-3/60 pointer-coarse:size-11"
            />
          ))}
        </ol>
        {trials.length > 0 && (
          <button
            type="button"
            onMouseDown={(event) => event.preventDefault()}
            onClick={onTakeBack}
            className="flex min-h-9 items-center gap-1.5 text-small text-ink-2 pointer-coarse:min-h-11"
          >
            <Undo2 size={15} aria-hidden /> Take back {showsKeys && <kbd className="keycap">U</kbd>}
          </button>
        )}
        <SoFar definition={definition} criterion={criterion} trials={trials} />
      </div>
      {selected !== null && (
        <p className="text-small text-clay-deep">Chance {selected + 1} is chosen: the next tap replaces it.</p>
      )}
    </>
  );
}

function SoFar({ definition, criterion, trials }: Pick<Strip, 'definition' | 'criterion' | 'trials'>) {
  const score = trials.length > 0 ? scoreTrials(definition, { trials: [...trials] }) : null;
  const chances = Math.max(definition.planned ?? 0, score?.value != null ? score.weight : 0);
  const needs =
    chances > 0 ? `${asCount(criterion.value, chances, criterion.comparison)} of ${chances}` : `${criterion.value}%`;
  return (
    <p aria-live="polite" className="ml-auto text-small text-ink-2">
      {score?.value != null && <span className="display mr-1.5 text-2xl text-ink">{percent(score.value)}</span>}
      {score?.value != null && 'so far · '}
      {criterion.comparison === 'atLeast' ? 'needs' : 'at most'} {needs}
    </p>
  );
}
