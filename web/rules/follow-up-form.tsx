import { useState } from 'react';
import { FieldMessage } from '../platform/ui/fields';
import { LabelledInput, LabelledSelect } from '../platform/ui/labelled';
import { Unsaved } from '../platform/ui/unsaved';
import { useSaving } from '../platform/ui/use-saving';
import { followUpsWords } from './words';

interface Begun {
  id: string;
  entryId: string | null;
  forPerson: string;
  dueOn: string;
}

type Answer = { messages: Record<string, string> } | { made: string } | { unreachable: true };

/** A follow-up by hand. */
export function FollowUpForm(props: { studentId: string; begun: Begun; team: { id: string; name: string }[] }) {
  const { studentId, begun, team } = props;
  const [what, setWhat] = useState('');
  const [forPerson, setForPerson] = useState<string | null>(begun.forPerson);
  const [dueOn, setDueOn] = useState(begun.dueOn);
  const [inReport, setInReport] = useState(false);
  const { answer, isBusy, isUnreachable, save } = useSaving<Answer>(`/students/${studentId}/follow-ups`);
  const messages = answer && 'messages' in answer ? answer.messages : {};
  return (
    <form
      className="mt-6 grid max-w-3xl gap-3 rounded-box border border-rule bg-sheet p-4"
      onSubmit={(event) => {
        event.preventDefault();
        save({ id: begun.id, entryId: begun.entryId, what, forPerson, dueOn, inReport });
      }}
    >
      <Unsaved isUnsaved={what !== '' && !isBusy} />
      <h2 className="text-lg">{followUpsWords.newFollowUp}</h2>
      {begun.entryId && <p className="text-small text-ink-2">{followUpsWords.aboutEntry}</p>}
      <LabelledInput label={followUpsWords.what} value={what} message={messages.what} onChange={setWhat} />
      <div className="flex flex-wrap gap-3">
        <LabelledSelect
          label={followUpsWords.whom}
          value={forPerson}
          options={team}
          message={messages.forPerson}
          onChange={setForPerson}
        />
        <LabelledInput
          label={followUpsWords.dueOn}
          type="date"
          value={dueOn}
          message={messages.dueOn}
          onChange={setDueOn}
        />
      </div>
      {begun.entryId && (
        <label className="tap flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={inReport}
            onChange={({ target }) => setInReport(target.checked)}
          />
          {followUpsWords.showInReport}
        </label>
      )}
      <FieldMessage messages={messages.form ? [messages.form] : undefined} />
      {isUnreachable && <FieldMessage messages={[followUpsWords.unreachable]} />}
      <p>
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          {followUpsWords.make}
        </button>
      </p>
    </form>
  );
}
