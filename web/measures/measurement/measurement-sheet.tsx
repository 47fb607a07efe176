import { useState } from 'react';
import {
  type MeasurementData,
  type MeasurementDefinition,
  measurement,
  scoreMeasurement,
} from '~/core/measures/measurement/measurement';
import { Live, NumberField, needsOf, type SheetProps, TakeOut } from '../sheet';
import { measurementSheetWords } from './words';

type Fields = readonly (number | null)[];
const filled = (fields: Fields) => fields.filter((value) => value !== null);

/** A field for each number, and an empty one for the next: what is typed counts at once. */
export function MeasurementSheet(props: SheetProps<MeasurementDefinition, MeasurementData>) {
  const { definition, criterion, data, onMark } = props;
  const { unit, reading } = definition;
  const readings = data?.readings ?? [];
  const [typed, setTyped] = useState<Fields>(readings);
  // A field may stand empty while its number is typed anew; what came from elsewhere replaces what was typed.
  const fields = filled(typed).join() === readings.join() ? typed : readings;
  const change = (to: Fields) => {
    setTyped(to);
    const left = filled(to);
    onMark(left.length === 0 ? null : { readings: left });
  };
  const score = data && scoreMeasurement(definition, data);
  return (
    <div className="flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
      {[...fields, null].map((value, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a measurement is its place
        <span key={at} className="flex items-center gap-1">
          <NumberField
            label={
              at === fields.length
                ? `${at === 0 ? measurementSheetWords.the : measurementSheetWords.another} ${reading.one}`
                : `${at + 1}.`
            }
            unit={unit}
            step="any"
            value={value}
            onChange={(to) => change([...fields.slice(0, at), to, ...fields.slice(at + 1)])}
          />
          {at < fields.length && (
            <TakeOut what={`${reading.one} ${at + 1}`} onPress={() => change(fields.toSpliced(at, 1))} />
          )}
        </span>
      ))}
      <Live figure={score?.value == null ? null : measurement.said(definition, score.value)}>
        {readings.length > 1 && `${definition.of} · `}
        {needsOf(definition, criterion)}
      </Live>
    </div>
  );
}
