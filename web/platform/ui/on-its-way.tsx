import { useEffect, useState } from 'react';
import { useFetchers, useNavigation } from 'react-router';
import { onItsWayWords } from './words';

/** From when on a wait is felt, in milliseconds: what comes sooner needs no sign. */
const FELT_AFTER = 150;

/** Says that a page or a save is on its way, when it takes longer than a moment. */
export function OnItsWay() {
  const isSending = useFetchers().some(({ state }) => state === 'submitting');
  const isIdle = useNavigation().state === 'idle' && !isSending;
  const [isFelt, setFelt] = useState(false);
  useEffect(() => {
    if (isIdle) return setFelt(false);
    const timer = setTimeout(() => setFelt(true), FELT_AFTER);
    return () => clearTimeout(timer);
  }, [isIdle]);
  if (!isFelt) return null;
  return (
    <div role="status" className="no-print fixed inset-x-0 top-0 z-50">
      <progress aria-label={onItsWayWords.onItsWay} className="progress progress-accent block h-1 rounded-none" />
    </div>
  );
}
