import type { ComponentType } from 'react';
import type { MeasureData, MeasureDefinition } from '~/core/measures/measure';
import { CountStrip } from './count-strip';
import { DurationStrip } from './duration-strip';
import { IntervalsStrip } from './intervals-strip';
import { ItemsStrip } from './items-strip';
import { LatencyStrip } from './latency-strip';
import { ReadingStrip } from './reading-strip';
import { RubricStrip } from './rubric-strip';
import { RunningTotalStrip } from './running-total-strip';
import { StepsStrip } from './steps-strip';
import type { StripProps } from './strip';
import { TrialsStrip } from './trials-strip';

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
