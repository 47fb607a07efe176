import { useState } from 'react';
import { v4 as newId } from 'uuid';
import { outsideKinds, readerWords } from '~/core/sharing/reader-kind';
import { counted } from '~/core/words/counting';
import { Dialog } from '../platform/ui/dialog';
import { issueDialogWords } from './words';

interface IssueDialogProps {
  number: number;
  missing: number;
  replaces: number | null;
  isBusy: boolean;
  onClose: () => void;
  onIssue: (id: string, readers: string[]) => void;
}

/** Asks once more, and for whom: what is issued does not change any more. */
export function IssueDialog({ number, missing, replaces, isBusy, onClose, onIssue }: IssueDialogProps) {
  const [id] = useState(() => newId());
  const [readers, setReaders] = useState<string[]>(['family']);
  return (
    <Dialog title={issueDialogWords.issueThisReport} onClose={onClose}>
      <div className="grid gap-3 p-6">
        <h2 className="text-xl">{issueDialogWords.issueItAsNo(number)}</h2>
        <p>
          {issueDialogWords.itIsDatedTodayAnd}
          {replaces !== null && issueDialogWords.itReplacesNoWhichStays(replaces)}
        </p>
        {missing > 0 && (
          <p className="font-semibold">
            {issueDialogWords.missingSeeTheMargin(
              counted(missing, issueDialogWords.thingIs, issueDialogWords.thingsAre),
            )}
          </p>
        )}
        <fieldset className="grid gap-1">
          <legend className="mb-1 text-small font-semibold">{issueDialogWords.besidesTheTeamFor}</legend>
          {outsideKinds.map((kind) => (
            <label key={kind} className="flex tap items-center gap-2.5">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={readers.includes(kind)}
                onChange={(event) =>
                  setReaders(event.target.checked ? [...readers, kind] : readers.filter((one) => one !== kind))
                }
              />
              {readerWords[kind].label}
            </label>
          ))}
        </fieldset>
        <p className="text-small text-ink-2">{issueDialogWords.readersWhoHaveAnEmail}</p>
        <div className="mt-2 flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            {issueDialogWords.notYet}
          </button>
          <button type="button" className="btn btn-primary" disabled={isBusy} onClick={() => onIssue(id, readers)}>
            {issueDialogWords.issueIt}
          </button>
        </div>
      </div>
    </Dialog>
  );
}
