import { type MeasureProps, Nouns } from '../lists';

/** How long is too long is the criterion’s to say. */
export function LatencyFields({ field }: MeasureProps<'latency'>) {
  return <Nouns field={field.getFieldset().cue} what="cue" />;
}
