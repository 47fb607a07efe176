import { CompactEncrypt, importJWK } from 'jose';
import { readWaiting } from '~/core/entries/waiting';
import { counted } from '~/core/words/counting';
import { useAtFoot } from '../ui/at-foot';
import { provideReading } from './device-store';
import { provideSealing } from './locked';
import { whyWords } from './send';
import { useWaiting } from './waiting';
import { saveBarWords } from './words';

// What keeps an entry without network has to be there before the network goes: with the bar that saves it.
provideSealing({ CompactEncrypt, importJWK });
provideReading(readWaiting);

interface SaveBarProps {
  isBusy: boolean;
  message: string | undefined;
  onSave: () => void;
  /** Saves and begins anew with the same date, place and observer: for a pile of paper. */
  onSaveAndAnother?: () => void;
}

/** Where the thumb is on a phone, at the foot of the margin elsewhere. */
export function SaveBar({ isBusy, message, onSave, onSaveAndAnother }: SaveBarProps) {
  useAtFoot('save-bar');
  const { list, whys } = useWaiting();
  const waiting = list.filter(({ problem }) => problem === null);
  const waits = waiting.length;
  const why = waiting.map(({ id }) => whys[id]).find(Boolean) ?? 'unreachable';
  return (
    <div className="save-bar z-20 mt-auto pt-4 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:border-t max-lg:border-rule max-lg:bg-sheet max-lg:p-3 max-lg:pb-[calc(env(safe-area-inset-bottom)+0.75rem)]">
      {waits > 0 && !isBusy && (
        <p role="status" className="mb-2 text-small font-semibold text-clay-deep">
          {saveBarWords.nothingIsLostOnThis(
            whyWords[why].happened,
            counted(waits, saveBarWords.recordWaits, saveBarWords.recordsWait),
            whyWords[why].next,
          )}
        </p>
      )}
      {message && (
        <p role="alert" className="mb-2 text-small font-semibold text-clay-deep">
          {message}
        </p>
      )}
      <div className="grid grid-cols-[1fr_auto] gap-2 lg:grid-cols-1">
        <button type="button" onClick={onSave} disabled={isBusy} className="btn btn-primary btn-lg text-base">
          {isBusy ? saveBarWords.saving : saveBarWords.save} <kbd className="keycap">↵</kbd>
        </button>
        {onSaveAndAnother && (
          <button
            type="button"
            onClick={onSaveAndAnother}
            disabled={isBusy}
            className="btn btn-lg px-3 text-base lg:btn-md"
          >
            <span className="max-lg:sr-only">{saveBarWords.saveAndAddAnother}</span>
            <span aria-hidden className="lg:hidden">
              {saveBarWords.another}
            </span>
          </button>
        )}
      </div>
    </div>
  );
}
