import { useState } from 'react';
import type { CriterionDefinition } from '~/core/goals/criterion-definition';
import { type MeasureData, type MeasureDefinition, measureOf } from '~/core/measures/measure';
import { type Clock, stoppedClock } from '../../observe/clock';
import { MeasureStrip } from '../../observe/measure-strip';

interface StripPreviewProps {
  measure: MeasureDefinition;
  criterion: CriterionDefinition;
}

/** The strip as the observer will get it, to be tried out. */
export function StripPreview({ measure, criterion }: StripPreviewProps) {
  const [data, setData] = useState<MeasureData | null>(null);
  const [clock, setClock] = useState<Clock>(stoppedClock);
  const [selected, setSelected] = useState<number | null>(null);
  return (
    <>
      <MeasureStrip
        definition={measure}
        criterion={criterion}
        data={data}
        clock={clock}
        selected={selected}
        isActive={false}
        openedAt={null}
        soFar={null}
        onMark={(marked, newClock) => {
          setData(marked);
          if (newClock) setClock(newClock);
          setSelected(null);
        }}
        onSelect={setSelected}
      />
      {data !== null && measureOf(measure).data(measure).safeParse(data).success && (
        <p className="mt-3 text-small text-ink-2">{measureOf(measure).sentence(measure, data)}</p>
      )}
    </>
  );
}
