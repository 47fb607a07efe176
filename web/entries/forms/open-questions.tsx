import type { useNote } from './use-note';
import { openQuestionsWords } from './words';

/** Asked before saving where something that is wanted is open. */
export function OpenQuestions({ note: { messages, save } }: { note: ReturnType<typeof useNote> }) {
  if (!messages.open) return null;
  return (
    <div role="alert" className="mt-4 alert alert-error alert-soft block">
      <p>{messages.open}</p>
      <button type="button" className="btn btn-sm mt-2" onClick={() => void save({ leavesOpen: true })}>
        {openQuestionsWords.leaveOpen}
      </button>
    </div>
  );
}
