import { changeMessagesWords } from './words'; /** One version of an entry, in words. */
export interface EntryVersion {
  version: number;
  about: string;
  sentence: string;
  note: string;
  tones: string[];
  /** Who wrote this version, when, and why if it replaced another. */
  written: string;
  why: string | null;
  isWithdrawn: boolean;
}

/** What a change to an entry answers. */
export type ChangeAnswer =
  | { saved: number }
  | { messages: Record<string, string> }
  | { conflict: EntryVersion }
  | { unreachable: true };

/** What stands in the way of a change, besides messages at the fields. */
export function ChangeMessages({
  answer,
  isUnreachable,
}: {
  answer: ChangeAnswer | undefined;
  isUnreachable: boolean;
}) {
  const conflict = answer && 'conflict' in answer ? answer.conflict : null;
  return (
    <>
      {isUnreachable && (
        <p role="status" className="mt-3 font-semibold text-clay-deep">
          {changeMessagesWords.theServerCannotBeReached}
        </p>
      )}
      {conflict && (
        <div role="alert" className="mt-3 alert alert-error alert-soft block">
          <p className="font-semibold">
            {conflict.written} {conflict.isWithdrawn ? 'withdrew' : 'changed'}
            {changeMessagesWords.thisEntryInTheMeantime}
            {conflict.why && `: “${conflict.why}”`}
          </p>
          {!conflict.isWithdrawn && (
            <p className="mt-1">{changeMessagesWords.itNowSays(conflict.about, conflict.sentence, conflict.note)}</p>
          )}
          <p className="mt-1">
            {conflict.isWithdrawn ? changeMessagesWords.yoursWasNotSavedIf : changeMessagesWords.yoursWasNotSavedAnd}
          </p>
        </div>
      )}
    </>
  );
}

/** The version that the next try replaces: after a conflict, the one that was shown. */
export function versionToReplace(version: number, answer: ChangeAnswer | undefined): number {
  return answer && 'conflict' in answer ? answer.conflict.version : version;
}

/** Messages by field of an answer; none of any other answer. */
export function messagesOf(answer: ChangeAnswer | undefined): Record<string, string> {
  return answer && 'messages' in answer ? answer.messages : {};
}
