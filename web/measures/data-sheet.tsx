import { cumulativeTotal } from '~/core/measures/cumulative-total/cumulative-total';
import { duration } from '~/core/measures/duration/duration';
import { frequency } from '~/core/measures/frequency/frequency';
import { intervalRecording } from '~/core/measures/interval-recording/interval-recording';
import { itemCheck } from '~/core/measures/item-check/item-check';
import { latency } from '~/core/measures/latency/latency';
import type { MeasureData, MeasureDefinition } from '~/core/measures/measure';
import { own } from '~/core/measures/measure-of-goal';
import { measurement } from '~/core/measures/measurement/measurement';
import { oralReading } from '~/core/measures/oral-reading/oral-reading';
import { rubric } from '~/core/measures/rubric/rubric';
import { taskAnalysis } from '~/core/measures/task-analysis/task-analysis';
import { trials } from '~/core/measures/trials/trials';
import { CumulativeTotalSheet } from './cumulative-total/cumulative-total-sheet';
import { DurationSheet } from './duration/duration-sheet';
import { FrequencySheet } from './frequency/frequency-sheet';
import { IntervalRecordingSheet } from './interval-recording/interval-recording-sheet';
import { ItemCheckSheet } from './item-check/item-check-sheet';
import { LatencySheet } from './latency/latency-sheet';
import { MeasurementSheet } from './measurement/measurement-sheet';
import { OralReadingSheet } from './oral-reading/oral-reading-sheet';
import { RubricSheet } from './rubric/rubric-sheet';
import type { SheetProps } from './sheet';
import { TaskAnalysisSheet } from './task-analysis/task-analysis-sheet';
import { TrialsSheet } from './trials/trials-sheet';

/** The data sheet of a goal's measure; it takes the room it is given, wide or narrow. */
export function DataSheet(props: SheetProps<MeasureDefinition, MeasureData>) {
  return (
    <div className="@container">
      <SheetOfKind {...props} />
    </div>
  );
}

/** One data sheet for each kind of measure. */
function SheetOfKind({ definition, data, ...rest }: SheetProps<MeasureDefinition, MeasureData>) {
  switch (definition.kind) {
    case 'trials':
      return <TrialsSheet {...rest} definition={definition} data={data && own(trials, data)} />;
    case 'itemCheck':
      return <ItemCheckSheet {...rest} definition={definition} data={data && own(itemCheck, data)} />;
    case 'frequency':
      return <FrequencySheet {...rest} definition={definition} data={data && own(frequency, data)} />;
    case 'duration':
      return <DurationSheet {...rest} definition={definition} data={data && own(duration, data)} />;
    case 'latency':
      return <LatencySheet {...rest} definition={definition} data={data && own(latency, data)} />;
    case 'intervalRecording':
      return <IntervalRecordingSheet {...rest} definition={definition} data={data && own(intervalRecording, data)} />;
    case 'rubric':
      return <RubricSheet {...rest} definition={definition} data={data && own(rubric, data)} />;
    case 'cumulativeTotal':
      return <CumulativeTotalSheet {...rest} definition={definition} data={data && own(cumulativeTotal, data)} />;
    case 'taskAnalysis':
      return <TaskAnalysisSheet {...rest} definition={definition} data={data && own(taskAnalysis, data)} />;
    case 'measurement':
      return <MeasurementSheet {...rest} definition={definition} data={data && own(measurement, data)} />;
    case 'oralReading':
      return <OralReadingSheet {...rest} definition={definition} data={data && own(oralReading, data)} />;
  }
}
