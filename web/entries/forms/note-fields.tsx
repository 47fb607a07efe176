import { useState } from 'react';
import { entryDay } from '~/core/calendar/iso-date';
import { textsIn } from '~/core/entries/forms/typed-answers';
import { NamesInNote } from '../../students/names-in-note';
import { AnswerFields } from './answer-fields';
import type { NoteForm, NoteScreen, useNote } from './use-note';
import { WhenInputs } from './when-inputs';
import { noteFieldsWords } from './words';

interface NoteFieldsProps {
  screen: NoteScreen;
  form: NoteForm;
  note: ReturnType<typeof useNote>;
}

/** The questions of a form about a student, and when and by whom it was seen. */
export function NoteFields({ screen, form, note: { draft, change, messages } }: NoteFieldsProps) {
  return (
    <div className="grid gap-5">
      <NoteWhen screen={screen} draft={draft} messages={messages} onChange={change} />
      <AnswerFields
        questions={form.questions}
        answers={draft.answers}
        photograph={draft.photograph}
        messages={messages}
        onAnswer={(answers) => change({ answers })}
        onPhotograph={(photograph) => change({ photograph })}
      />
      <NamesInNote studentId={screen.student.id} text={textsIn(form.questions, draft.answers)} />
    </div>
  );
}

interface NoteWhenProps {
  screen: Pick<NoteScreen, 'people' | 'wall'>;
  draft: { on: string; time: string; observerId: string };
  messages: Record<string, string>;
  onChange: (changes: { on?: string; time?: string; observerId?: string }) => void;
}

/** When and by whom: filled in already, and opened to be changed. */
function NoteWhen({ screen: { people, wall }, draft, messages, onChange }: NoteWhenProps) {
  const [isOpen, setOpen] = useState(false);
  const needsLook = ['on', 'time', 'observerId'].some((field) => messages[field]);
  const who = people.find(({ id }) => id === draft.observerId)?.name;
  return (
    <div>
      <p className="flex flex-wrap items-center gap-x-2.5 text-small text-ink-2">
        {[draft.on && entryDay(draft.on, wall.on), draft.time, who].filter(Boolean).join(' · ')}
        <button type="button" aria-expanded={isOpen || needsLook} onClick={() => setOpen(!isOpen)} className="tap link">
          {noteFieldsWords.change}
        </button>
      </p>
      {(isOpen || needsLook) && (
        <div className="mt-1 grid grid-cols-2 gap-3 rounded-box border border-rule bg-wash p-3 lg:grid-cols-3">
          <WhenInputs when={draft} people={people} latest={wall.on} messages={messages} onChange={onChange} />
        </div>
      )}
    </div>
  );
}
