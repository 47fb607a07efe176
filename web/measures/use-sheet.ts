import { useState } from 'react';
import type { MeasureData } from '~/core/measures/measure';
import { type Clock, stoppedClock } from './clock';

/** What is marked on a data sheet that stands by itself, outside of a session. */
export function useSheet(initial: MeasureData | null) {
  const [data, setData] = useState(initial);
  const [clock, setClock] = useState<Clock>(stoppedClock);
  const [selected, setSelected] = useState<number | null>(null);
  const onMark = (marked: MeasureData | null, newClock?: Clock) => {
    setData(marked);
    if (newClock) setClock(newClock);
    setSelected(null);
  };
  return { data, clock, selected, onMark, onSelect: setSelected, isActive: false, openedAt: null, soFar: null };
}
