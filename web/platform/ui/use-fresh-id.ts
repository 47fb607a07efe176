import { useEffect, useState } from 'react';
import { v4 as newId } from 'uuid';

/**
 * An id for what a form sends: sent twice, it is one thing. It comes from the browser, after hydration; until then it is empty.
 *
 * @param renewedBy  when this changes, the next thing is another one
 */
export function useFreshId(renewedBy?: unknown): string {
  const [id, setId] = useState('');
  // biome-ignore lint/correctness/useExhaustiveDependencies: each change asks for a fresh one
  useEffect(() => setId(newId()), [renewedBy]);
  return id;
}
