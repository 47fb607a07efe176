import { type DecisionIs, decisionWords } from '~/core/progress/decision-words';

/** A decision as a mark and a word; clay only for what needs attention. */
export function DecisionMark({ is, label }: { is: DecisionIs; label: string }) {
  const { mark, needsAttention } = decisionWords[is];
  const quiet = is === 'tooEarly';
  return (
    <span
      className={`font-semibold text-balance ${needsAttention ? 'text-clay-deep' : quiet ? 'text-ink-3' : 'text-fern'}`}
    >
      <span aria-hidden>{mark}</span> {label}
    </span>
  );
}
