import { Check, Eye, Triangle } from 'lucide-react';
import type { Cell } from '~/core/desk/board';
import type { StepState, StepWords } from '~/core/school/step-words';
import { boardCellWords } from './words';

const box = 'flex h-full min-h-11 items-center gap-1.5 rounded-field border px-3 text-small whitespace-nowrap';

/** What waits for somebody stands out by its shape, its word and its border; what is done is quiet. */
const cellLook: Record<StepState, string> = {
  notBegun: `${box} border-dashed border-rule text-ink-3`,
  atIt: `${box} border-rule bg-sheet`,
  stuck: `${box} border-2 border-clay bg-clay-wash font-bold text-clay-deep`,
  pleaseLook: `${box} border-2 border-primary bg-sheet font-bold text-fern-text`,
  done: `${box} border-transparent bg-fern-wash text-fern-text`,
};
const seenLook = `${box} border-rule bg-sheet text-ink-2`;

type BoardCellProps = Pick<Cell, 'state' | 'isSeen' | 'word'> & { minutes: number; words: StepWords };

/** One step of one student on the board. */
export function BoardCell({ state, isSeen, minutes, word, words }: BoardCellProps) {
  const waits = state === 'stuck' || state === 'pleaseLook';
  const look = waits && isSeen ? seenLook : cellLook[state];
  return (
    <span className={look} title={word || undefined}>
      {state === 'stuck' && <Triangle size={12} fill="currentColor" aria-hidden />}
      {state === 'pleaseLook' && <Eye size={14} aria-hidden />}
      {state === 'done' && <Check size={14} aria-hidden />}
      {words[state]}
      {waits && (isSeen ? boardCellWords.seen : boardCellWords.minutes(minutes))}
    </span>
  );
}
