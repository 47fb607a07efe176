import { counted } from '~/core/words/counting';
import { issuedMarksWords } from './words';

/** What has happened since a report was issued; it never changes the report. */
export function IssuedMarks({ correctedSince, replacedBy }: { correctedSince: number; replacedBy: number | null }) {
  if (correctedSince === 0 && replacedBy === null) return null;
  return (
    <div role="note" className="mt-3 max-w-3xl alert alert-error alert-soft block text-small">
      {replacedBy !== null && <p className="font-semibold">{issuedMarksWords.noWasIssuedInPlace(replacedBy)}</p>}
      {correctedSince > 0 && (
        <p>
          {issuedMarksWords.thatItWasMadeFrom(
            counted(correctedSince, 'entry', 'entries'),
            correctedSince === 1 ? 'was' : 'were',
          )}
        </p>
      )}
    </div>
  );
}
