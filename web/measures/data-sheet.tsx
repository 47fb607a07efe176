import type { ComponentType } from 'react';
import type { MeasureData, MeasureDefinition } from '~/core/measures/measure';
import { CountSheet } from './count-sheet';
import { DurationSheet } from './duration-sheet';
import { IntervalsSheet } from './intervals-sheet';
import { ItemsSheet } from './items-sheet';
import { LatencySheet } from './latency-sheet';
import { ReadingSheet } from './reading-sheet';
import { RubricSheet } from './rubric-sheet';
import { RunningTotalSheet } from './running-total-sheet';
import type { SheetProps } from './sheet';
import { StepsSheet } from './steps-sheet';
import { TrialsSheet } from './trials-sheet';

/** One strip for each kind of measure. */
const sheets: Record<MeasureDefinition['kind'], unknown> = {
  trials: TrialsSheet,
  items: ItemsSheet,
  count: CountSheet,
  duration: DurationSheet,
  latency: LatencySheet,
  intervals: IntervalsSheet,
  rubric: RubricSheet,
  runningTotal: RunningTotalSheet,
  steps: StepsSheet,
  readingAloud: ReadingSheet,
};

/** The strip of a goal's measure; it takes the room it is given, wide or narrow. */
export function DataSheet(props: SheetProps<MeasureDefinition, MeasureData>) {
  const Strip = sheets[props.definition.kind] as ComponentType<typeof props>;
  return (
    <div className="@container">
      <Strip {...props} />
    </div>
  );
}
