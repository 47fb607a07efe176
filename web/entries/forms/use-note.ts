import { useCallback, useRef, useState } from 'react';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { type Answers, answersSchema, answersSentence, type FormVersion } from '~/core/entries/forms/form';
import { answersToSend } from '~/core/entries/forms/typed-answers';
import { draftStore } from '../../platform/offline/device-store';
import type { Sent } from '../../platform/offline/send';
import { useWaiting } from '../../platform/offline/waiting';
import { useKeptDraft } from '../use-kept-draft';

/** A form that is filled in about a student. */
export interface NoteForm extends FormVersion {
  id: string;
  version: number;
}

/** Who answers it, about whom, and when. */
export interface NoteScreen {
  student: { id: string; shortName: string; firstName: string };
  personId: string;
  people: { id: string; name: string }[];
  wall: { on: string; time: string };
}

const noteDraft = z.object({
  id: z.uuid(),
  on: z.string(),
  time: z.string(),
  observerId: z.string(),
  answers: answersSchema,
  photograph: z.string().nullable(),
});
type NoteDraft = z.infer<typeof noteDraft>;

const emptyNote = ({ wall, personId }: NoteScreen): NoteDraft => ({
  ...{ id: newId(), on: wall.on, time: wall.time, observerId: personId, answers: {}, photograph: null },
});

const isTouched = ({ answers, photograph }: NoteDraft) => Object.keys(answers).length > 0 || photograph !== null;

/** What is answered about a student: kept on the device while it is written, and until the server has it. */
export function useNote(screen: NoteScreen, form: NoteForm, onDone: (sent: Sent) => void) {
  const { student, personId } = screen;
  const key = `${personId} ${student.id} note ${form.id} ${form.version}`;
  const [draft, setDraft] = useState(() => emptyNote(screen));
  const [messages, setMessages] = useState<Record<string, string>>({});
  const [isBusy, setBusy] = useState(false);
  const isSaving = useRef(false);
  const waiting = useWaiting();
  const bringBack = useCallback((found: NoteDraft) => setDraft(found), []);
  const kept = useKeptDraft(key, noteDraft, draft, isTouched, bringBack);
  const change = (changes: Partial<NoteDraft>) => setDraft((before) => ({ ...before, ...changes }));
  const answers = answersToSend(form.questions, draft.answers);
  const save = async ({ leavesOpen = false } = {}) => {
    if (isSaving.current) return;
    isSaving.current = true;
    setBusy(true);
    const note = { ...draft, formId: form.id, formVersion: form.version, answers, leavesOpen };
    const { id, shortName } = student;
    const [sent] = await waiting.save(
      [
        {
          ...{ kind: 'note', id: newId(), personId, student: { id, shortName }, savedAt: Date.now(), problem: null },
          ...{ note, title: form.title, said: saidOf(form, answers) },
        },
      ],
      [key],
    );
    isSaving.current = false;
    setBusy(false);
    if (!sent) return;
    if (sent.is === 'refused') return setMessages(sent.messages);
    setMessages({});
    await draftStore.forget(key).catch(() => {});
    setDraft(emptyNote(screen));
    onDone(sent);
  };
  const startOver = () => setDraft(emptyNote(screen));
  return {
    draft,
    change,
    save,
    messages,
    isBusy,
    kept,
    startOver,
    said: isTouched(draft) ? saidOf(form, answers) : null,
  };
}

/** How it will read; what is not a number yet is left out. */
function saidOf(form: FormVersion, answers: Answers): string {
  const readable = form.questions.filter(({ kind, id }) => kind !== 'number' || typeof answers[id] === 'number');
  return answersSentence(readable, answers);
}
