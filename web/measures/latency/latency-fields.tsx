import { TextField } from '../../platform/ui/form-fields';
import { type MeasureProps, Nouns } from '../lists';

/** How long is too long is the criterion’s to say; the limit only says when nobody waits any longer. */
export function LatencyFields({ field }: MeasureProps<'latency'>) {
  const { cue, limitSeconds } = field.getFieldset();
  return (
    <>
      <Nouns field={cue} what="cue" />
      <TextField field={limitSeconds} label="No response after" type="figure" unit="seconds" className="w-20" />
    </>
  );
}
