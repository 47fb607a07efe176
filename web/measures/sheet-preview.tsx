import type { CriterionDefinition } from '~/core/measures/criterion-definition';
import { type MeasureDefinition, measureOf } from '~/core/measures/measure';
import { DataSheet } from './data-sheet';
import { useSheet } from './use-sheet';

interface SheetPreviewProps {
  measure: MeasureDefinition;
  criterion: CriterionDefinition;
}

/** The data sheet as the observer will get it, to be tried out. */
export function SheetPreview({ measure, criterion }: SheetPreviewProps) {
  const sheet = useSheet(null);
  const { data } = sheet;
  return (
    <>
      <DataSheet definition={measure} criterion={criterion} {...sheet} />
      {data !== null && measureOf(measure).data.safeParse(data).success && (
        <p className="mt-3 text-small text-ink-2">{measureOf(measure).sentence(data)}</p>
      )}
    </>
  );
}
