import { useCallback, useMemo, useState } from 'react';
import { z } from 'zod';
import { LONGEST_TOGETHER, type PhotographInput, photographInput } from '~/core/entries/photograph';
import { useKeptDraft } from '../use-kept-draft';

/** The photographs taken so far, by what they are of: the goal, or the incident. */
const taken = z.record(z.string(), z.array(photographInput));
type Taken = z.infer<typeof taken>;

const isAny = (photographs: Taken) => Object.keys(photographs).length > 0;
const NONE: readonly PhotographInput[] = [];

/** The photographs of a recording in the making, and how they change. */
export interface Photographs {
  kept: ReturnType<typeof useKeptDraft>;
  of: (of: string) => readonly PhotographInput[];
  change: (of: string, photographs: readonly PhotographInput[]) => void;
  /** Lets go of some: they are saved, or one starts over. */
  forget: (these: readonly string[]) => void;
  /** Whether one more of this length fits into one save. */
  hasRoomFor: (content: string) => boolean;
}

/**
 * Photographs taken while something is recorded. They are kept on the device beside the draft, not in it: they are large, and a tap on
 * a mark must not wait for them.
 *
 * @param draftKey  of the draft beside which they are kept
 */
export function usePhotographs(draftKey: string): Photographs {
  const [photographs, setPhotographs] = useState<Taken>({});
  const kept = useKeptDraft(`${draftKey} photographs`, taken, photographs, isAny, setPhotographs);
  const change = useCallback(
    (of: string, some: readonly PhotographInput[]) =>
      setPhotographs(({ [of]: _, ...others }) => (some.length > 0 ? { ...others, [of]: [...some] } : others)),
    [],
  );
  const forget = useCallback(
    (these: readonly string[]) =>
      setPhotographs((before) => Object.fromEntries(Object.entries(before).filter(([id]) => !these.includes(id)))),
    [],
  );
  return useMemo(() => {
    const length = Object.values(photographs)
      .flat()
      .reduce((sum, { content }) => sum + content.length, 0);
    return {
      kept,
      of: (of) => photographs[of] ?? NONE,
      change,
      forget,
      hasRoomFor: (content) => length + content.length <= LONGEST_TOGETHER,
    };
  }, [photographs, kept, change, forget]);
}
