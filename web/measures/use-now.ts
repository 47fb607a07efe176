import { useEffect, useState } from 'react';

/** The present instant, read again four times a second while something is timed, and when the page is looked at again. */
export function useNow(isTicking: boolean): number {
  const [now, setNow] = useState(0);
  useEffect(() => {
    const read = () => setNow(Date.now());
    read();
    if (!isTicking) return;
    const timer = setInterval(read, 250);
    document.addEventListener('visibilitychange', read);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', read);
    };
  }, [isTicking]);
  return now;
}
