import type { EntryMark, MarkLook } from '~/core/rules/rule';
import { entryMarksWords } from './words';

const looks: Record<MarkLook, string> = {
  line: 'border border-ink-3',
  wash: 'border border-transparent bg-wash font-semibold',
  bold: 'border border-ink font-bold',
};

/** What rules say of an entry, in their words: quiet, and never by colour alone. */
export function EntryMarks({ marks }: { marks: readonly EntryMark[] | undefined }) {
  if (!marks?.length) return null;
  return (
    <span className="my-0.5 flex flex-wrap gap-1.5">
      <span className="sr-only">{entryMarksWords.markedBy}</span>
      {marks.map(({ word, look }) => (
        <span key={word} className={`rounded-field px-1.5 text-small leading-5 text-ink ${looks[look]}`}>
          {word}
        </span>
      ))}
    </span>
  );
}
