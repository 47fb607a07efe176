import { counted } from '~/core/words/counting';

/** What has happened since a report was issued; it never changes the report. */
export function IssuedMarks({ correctedSince, replacedBy }: { correctedSince: number; replacedBy: number | null }) {
  if (correctedSince === 0 && replacedBy === null) return null;
  return (
    <div role="note" className="mt-3 max-w-3xl alert alert-error alert-soft block text-small">
      {replacedBy !== null && <p className="font-semibold">No. {replacedBy} was issued in place of this report.</p>}
      {correctedSince > 0 && (
        <p>
          {counted(correctedSince, 'entry', 'entries')} that it was made from {correctedSince === 1 ? 'was' : 'were'}{' '}
          corrected or withdrawn since. The report says what stood when it was issued.
        </p>
      )}
    </div>
  );
}
