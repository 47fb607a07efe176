/** An entry's trials as a row of trial marks. The sentence beside them says the same in words. */
export function TrialMarks({ tones }: { tones: readonly string[] }) {
  if (tones.length === 0) return null;
  return (
    <span aria-hidden className="my-1.5 flex flex-wrap gap-1">
      {tones.map((tone, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a trial is its place
        <span key={i} className={`trial-mark size-3 ${tone}`} />
      ))}
    </span>
  );
}
