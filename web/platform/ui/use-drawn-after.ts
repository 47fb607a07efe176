import { useEffect, useState } from 'react';

/**
 * A value as it was before the last picture: what depends on it is worked out once a tap has been drawn, so that no tap waits for it.
 * In a tab that draws nothing it follows at once.
 */
export function useDrawnAfter<Value>(value: Value): Value {
  const [drawn, setDrawn] = useState(value);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const follow = () => setDrawn(() => value);
    if (document.hidden) return follow();
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(follow);
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [value]);
  return drawn;
}
