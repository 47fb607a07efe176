import type { CriterionDefinition } from '~/core/measures/criterion-definition';
import { type MeasureDefinition, measureOf } from '~/core/measures/measure';
import { MeasureStrip } from './measure-strip';
import { useStrip } from './use-strip';

interface StripPreviewProps {
  measure: MeasureDefinition;
  criterion: CriterionDefinition;
}

/** The strip as the observer will get it, to be tried out. */
export function StripPreview({ measure, criterion }: StripPreviewProps) {
  const strip = useStrip(null);
  const { data } = strip;
  return (
    <>
      <MeasureStrip definition={measure} criterion={criterion} {...strip} />
      {data !== null && measureOf(measure).data(measure).safeParse(data).success && (
        <p className="mt-3 text-small text-ink-2">{measureOf(measure).sentence(measure, data)}</p>
      )}
    </>
  );
}
