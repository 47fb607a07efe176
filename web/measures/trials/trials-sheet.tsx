import { type CSSProperties, useState } from 'react';
import { asCount } from '~/core/measures/score';
import { outcomesOf } from '~/core/measures/support-levels';
import { type CountedTrials, scoreTrials, type TrialsData, type TrialsDefinition } from '~/core/measures/trials/trials';
import { percent } from '~/core/words/counting';
import { toneOf } from '../../platform/ui/outcome-tones';
import { Live, NumberField, Pad, type SheetProps, TakeBack, TextButton, usePads } from '../sheet';
import { firstLevel, SessionLevelSheet } from './session-level-sheet';
import { trialsSheetWords } from './words';

/** As many pads stand in one row. */
const ONE_ROW = 7;

/** A new trial at the end, or in place of the selected one. */
export function withTrial(trials: readonly string[], selected: number | null, outcome: string): string[] {
  if (selected === null || selected >= trials.length) return [...trials, outcome];
  return trials.map((old, at) => (at === selected ? outcome : old));
}

type Sheet = SheetProps<TrialsDefinition, TrialsData>;

/** Trial by trial as trial marks, or as counts that must add up. */
export function TrialsSheet(props: Sheet) {
  const { definition, data, onMark } = props;
  const [level, setLevel] = useState<string | null>(null);
  const begin = { counts: {}, opportunities: definition.planned ?? 0 };
  if (data && 'counts' in data) {
    if (level === null) return <CountsSheet {...props} data={data} />;
    return (
      <>
        <SessionLevelSheet definition={definition} level={level} data={data} onLevel={setLevel} onMark={onMark} />
        <SoFar {...props} data={level in data.counts ? data : null} />
      </>
    );
  }
  return (
    <>
      <MarksSheet {...props} trials={data?.trials ?? []} />
      {data === null && (
        <span className="flex flex-wrap gap-x-4">
          <TextButton
            onPress={() => {
              setLevel(null);
              onMark(begin);
            }}
          >
            {trialsSheetWords.enterCountsInstead}
          </TextButton>
          <TextButton
            onPress={() => {
              setLevel(firstLevel(definition));
              onMark(begin);
            }}
          >
            {trialsSheetWords.oneLevelForTheSession}
          </TextButton>
        </span>
      )}
    </>
  );
}

/** Each tap lays a trial mark on the string: its colour is the level, its place the opportunity. */
function MarksSheet({
  definition,
  criterion,
  trials,
  selected,
  isActive,
  onMark,
  onSelect,
}: Sheet & { trials: readonly string[] }) {
  const pads = outcomesOf(definition);
  // One row, or two of the same length.
  const columns = pads.length <= ONE_ROW ? pads.length : Math.ceil(pads.length / 2);
  const labels = new Map(pads.map(({ key, label }) => [key, label]));
  const stillOpen = Math.max(0, (definition.planned ?? 0) - trials.length);
  const mark = (outcome: string) => onMark({ trials: withTrial(trials, selected, outcome) });
  const takeBack = () => onMark(trials.length > 1 ? { trials: trials.slice(0, -1) } : null);
  usePads(
    isActive,
    pads.map(
      ({ key }) =>
        () =>
          mark(key),
    ),
    takeBack,
  );
  return (
    <>
      <fieldset
        className="grid grid-cols-3 gap-2 @lg:grid-cols-4 @2xl:grid-cols-[repeat(var(--columns),minmax(0,1fr))]"
        style={{ '--columns': columns } as CSSProperties}
      >
        <legend className="sr-only">
          {selected === null ? trialsSheetWords.nextOpportunity : trialsSheetWords.opportunity(selected + 1)}
        </legend>
        {pads.map(({ key, label }, i) => (
          <Pad key={key} at={i} showsKey={isActive} onPress={() => mark(key)} className={toneOf(definition, key)}>
            {label}
          </Pad>
        ))}
      </fieldset>
      <div className="mt-3.5 flex min-h-11 flex-wrap items-center gap-x-4 gap-y-2">
        <ol className="flex flex-wrap gap-1.5">
          {trials.map((outcome, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a trial is its place
            <li key={at}>
              <button
                type="button"
                aria-label={trialsSheetWords.changeOpportunity(at + 1, labels.get(outcome) ?? '')}
                aria-pressed={selected === at}
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => onSelect(selected === at ? null : at)}
                className={`trial-mark grid size-8 place-items-center text-xs font-bold pointer-coarse:size-11 ${toneOf(definition, outcome)} ${selected === at ? 'outline-2 outline-offset-2 outline-clay' : ''}`}
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
        {trials.length > 0 && <TakeBack showsKey={isActive} onPress={takeBack} />}
        <SoFar
          definition={definition}
          criterion={criterion}
          data={trials.length > 0 ? { trials: [...trials] } : null}
        />
      </div>
      {selected !== null && (
        <p className="text-small text-clay-deep">{trialsSheetWords.opportunityIsChosenTheNext(selected + 1)}</p>
      )}
    </>
  );
}

/** How many at each level, and how many there were altogether. */
function CountsSheet({ definition, criterion, data, onMark }: Sheet & { data: CountedTrials }) {
  const accounted = Object.values(data.counts).reduce((sum, n) => sum + n, 0);
  const set = (key: string, n: number | null) => {
    const { [key]: _, ...rest } = data.counts;
    onMark({ ...data, counts: n === null ? rest : { ...rest, [key]: n } });
  };
  const { many } = definition.opportunity;
  return (
    <>
      <div className="grid justify-items-end gap-x-6 gap-y-2 @sm:grid-cols-2 @sm:justify-items-start @lg:grid-cols-3">
        {outcomesOf(definition).map(({ key, label }) => (
          <NumberField key={key} label={label} value={data.counts[key] ?? null} onChange={(n) => set(key, n)} />
        ))}
      </div>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        <NumberField
          label={trialsSheetWords.ofHowMany(many)}
          value={data.opportunities || null}
          onChange={(n) => onMark({ ...data, opportunities: n ?? 0 })}
        />
        <p role="status" className="text-small text-ink-2">
          {trialsSheetWords.ofAccountedFor(accounted, data.opportunities)}
        </p>
        <TextButton onPress={() => onMark(null)}>{trialsSheetWords.oneByOneInstead}</TextButton>
        <SoFar definition={definition} criterion={criterion} data={accounted > 0 ? data : null} />
      </div>
    </>
  );
}

function SoFar({ definition, criterion, data }: Pick<Sheet, 'definition' | 'criterion' | 'data'>) {
  const score = data === null ? null : scoreTrials(definition, data);
  const opportunities = Math.max(definition.planned ?? 0, score?.value != null ? score.weight : 0);
  const needs =
    opportunities > 0
      ? trialsSheetWords.of(asCount(criterion.value, opportunities, criterion.comparison), opportunities)
      : `${criterion.value}%`;
  return (
    <Live figure={score?.value == null ? null : percent(score.value)}>
      {score?.value != null && trialsSheetWords.soFar}
      {criterion.comparison === 'atLeast' ? 'needs' : trialsSheetWords.atMost} {needs}
    </Live>
  );
}
