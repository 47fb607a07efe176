import { useState } from 'react';
import { FieldMessage } from '../../platform/ui/fields';
import { NoteFields } from './note-fields';
import { OpenQuestions } from './open-questions';
import { type NoteForm, type NoteScreen, useNote } from './use-note';
import { roundNoteWords } from './words';

/** A form that is filled in for a student in a round: saved by itself, as often as wanted. */
export function RoundNote({ screen, form }: { screen: NoteScreen; form: NoteForm }) {
  const [saved, setSaved] = useState(0);
  const note = useNote(screen, form, () => setSaved((count) => count + 1));
  return (
    <details className="mt-3.5 rounded-box border border-rule bg-sheet" open={note.kept === 'broughtBack' || undefined}>
      <summary className="tap cursor-pointer px-4 py-3 font-semibold">
        {form.title}{' '}
        <span role="status" className="text-small font-normal text-fern">
          {saved > 0 && roundNoteWords.saved(saved)}
        </span>
      </summary>
      <div className="grid gap-4 px-4 pb-4">
        <NoteFields screen={screen} form={form} note={note} />
        <OpenQuestions note={note} />
        <FieldMessage messages={note.messages.form ? [note.messages.form] : undefined} />
        <button
          type="button"
          className="btn btn-primary justify-self-start"
          disabled={note.isBusy}
          onClick={() => void note.save()}
        >
          {roundNoteWords.save(screen.student.shortName)}
        </button>
      </div>
    </details>
  );
}
