import { type ReactNode, useState } from 'react';
import { MarginTitle } from '../platform/ui/page';
import { useKey } from '../platform/ui/use-key';
import type { EntryVersion } from './change-messages';
import { WithdrawalForm } from './withdrawal-form';
import { recordChangesWords } from './words';

/** The margin of a record: every version of it, the one that stands first. */
export function HowItCameAbout({ versions }: { versions: readonly EntryVersion[] }) {
  return (
    <>
      <MarginTitle>{recordChangesWords.history}</MarginTitle>
      <ol>
        {versions.toReversed().map((version, i) => (
          <VersionInMargin key={version.version} version={version} isNow={i === 0} />
        ))}
      </ol>
    </>
  );
}

/** One version of a record: who wrote it, why, and what it says. */
function VersionInMargin({ version, isNow }: { version: EntryVersion; isNow: boolean }) {
  const { written, why, isWithdrawn, sentence, note, about } = version;
  const verb = isWithdrawn ? 'Withdrawn' : version.version === 1 ? 'Recorded' : 'Corrected';
  return (
    <li className="border-b border-dotted border-ink-3/50 py-3.5 first:pt-0">
      <p className="text-small text-ink-2">
        {verb}
        {recordChangesWords.by}
        {written}
        {isNow && !isWithdrawn && recordChangesWords.standsNow}
      </p>
      {why && <p className="mt-1 font-semibold">“{why}”</p>}
      {!isWithdrawn && (
        <div className={`mt-1 text-small ${isNow ? '' : 'text-ink-2'}`}>
          <p>{about}</p>
          <p>{sentence}</p>
          {note && <p>{note}</p>}
        </div>
      )}
    </li>
  );
}

/** Says of a record that was withdrawn that it was, and why. */
export function WithdrawnNotice({ now }: { now: EntryVersion }) {
  if (!now.isWithdrawn) return null;
  return (
    <p className="mt-4 alert alert-error alert-soft block">
      <strong>{recordChangesWords.withdrawnBy(now.written)}</strong> {now.why}
      {recordChangesWords.itCountsInNoFigure}
    </p>
  );
}

interface RecordChangesProps {
  action: string;
  version: number;
  /** The form that corrects it; null for what is not put otherwise. */
  correcting: ((close: () => void) => ReactNode) | null;
}

/** What can be done to a record: to correct it, or to take it out of every figure. */
export function RecordChanges({ action, version, correcting }: RecordChangesProps) {
  const [open, setOpen] = useState<'correct' | 'withdraw' | null>(null);
  const close = () => setOpen(null);
  // What the key opens, it must not write into.
  useKey('c', () => correcting && open === null && setOpen('correct'), { takesOver: true });
  if (open === 'correct' && correcting) return correcting(close);
  if (open === 'withdraw') return <WithdrawalForm action={action} version={version} onDone={close} />;
  return (
    <div className="no-print mt-6 flex gap-2">
      {correcting && (
        <button type="button" className="btn" onClick={() => setOpen('correct')}>
          {recordChangesWords.correctEntry}{' '}
          <kbd aria-hidden className="keycap">
            C
          </kbd>
        </button>
      )}
      <button type="button" className="btn" onClick={() => setOpen('withdraw')}>
        {recordChangesWords.withdrawEntry}
      </button>
    </div>
  );
}
