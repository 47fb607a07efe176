import type { ComponentType } from 'react';
import type { MeasureData, MeasureDefinition } from '~/core/measures/measure';
import { CountStrip } from './strips/count-strip';
import { DurationStrip } from './strips/duration-strip';
import { IntervalsStrip } from './strips/intervals-strip';
import { ItemsStrip } from './strips/items-strip';
import { LatencyStrip } from './strips/latency-strip';
import { ReadingStrip } from './strips/reading-strip';
import { RubricStrip } from './strips/rubric-strip';
import { RunningTotalStrip } from './strips/running-total-strip';
import { StepsStrip } from './strips/steps-strip';
import type { StripProps } from './strips/strip';
import { TrialsStrip } from './strips/trials-strip';

/** One strip for each kind of measure. */
const strips: Record<MeasureDefinition['kind'], unknown> = {
  trials: TrialsStrip,
  items: ItemsStrip,
  count: CountStrip,
  duration: DurationStrip,
  latency: LatencyStrip,
  intervals: IntervalsStrip,
  rubric: RubricStrip,
  runningTotal: RunningTotalStrip,
  steps: StepsStrip,
  readingAloud: ReadingStrip,
};

/** The strip of a goal's measure; it takes the room it is given, wide or narrow. */
export function MeasureStrip(props: StripProps<MeasureDefinition, MeasureData>) {
  const Strip = strips[props.definition.kind] as ComponentType<typeof props>;
  return (
    <div className="@container">
      <Strip {...props} />
    </div>
  );
}
