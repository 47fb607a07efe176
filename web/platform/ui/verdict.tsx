import { type VerdictIs, verdictWords } from '~/core/progress/verdict-words';

/** A verdict as a mark and a word; clay only for what needs attention. */
export function VerdictMark({ is }: { is: VerdictIs }) {
  const { label, mark, needsAttention } = verdictWords[is];
  const quiet = is === 'tooEarly';
  return (
    <span
      className={`font-semibold whitespace-nowrap ${needsAttention ? 'text-clay-deep' : quiet ? 'text-ink-3' : 'text-fern'}`}
    >
      <span aria-hidden>{mark}</span> {label}
    </span>
  );
}
