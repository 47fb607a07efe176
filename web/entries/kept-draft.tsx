import type { useKeptDraft } from './use-kept-draft';
import { keptDraftWords } from './words';

/** Says that what is being marked is kept on this device, or was picked up again there. */
export function KeptDraft(props: { kept: ReturnType<typeof useKeptDraft>; onStartOver: () => void }) {
  const { kept, onStartOver } = props;
  return (
    <p role="status" className="text-small text-ink-2 sm:ml-auto">
      {kept === 'kept' && keptDraftWords.keptOnThisDevice}
      {kept === 'broughtBack' && (
        <>
          {keptDraftWords.pickedUpWhereYouLeft}{' '}
          <button type="button" className="py-2 link" onClick={onStartOver}>
            {keptDraftWords.startOver}
          </button>
        </>
      )}
    </p>
  );
}
