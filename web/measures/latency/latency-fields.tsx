import { TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns } from '../lists';
import { latencyFieldsWords } from './words';

/** How long is too long is the criterion’s to say; the limit only says when nobody waits any longer. */
export function LatencyFields({ field }: MeasureProps<'latency'>) {
  const { cue, limitSeconds } = field.getFieldset();
  return (
    <>
      <Nouns field={cue} what="cue" />
      <TextField
        field={limitSeconds}
        label={latencyFieldsWords.noResponseAfter}
        type="figure"
        unit="seconds"
        className="w-20"
      />
    </>
  );
}
