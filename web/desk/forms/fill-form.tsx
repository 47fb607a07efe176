import { useCallback, useRef, useState } from 'react';
import { z } from 'zod';
import { type Answers, answersSchema, fittingAnswers, type Question } from '~/core/entries/forms/form';
import { answersToSend } from '~/core/entries/forms/typed-answers';
import { AnswerFields } from '../../entries/forms/answer-fields';
import { useKeptDraft } from '../../entries/use-kept-draft';
import { draftStore } from '../../platform/offline/device-store';
import { fillFormWords } from './words';

const fillDraft = z.object({ answers: answersSchema, photograph: z.string().nullable() });
type FillDraft = z.infer<typeof fillDraft>;
const isTouched = ({ answers, photograph }: FillDraft) => Object.keys(answers).length > 0 || photograph !== null;

interface FillFormProps {
  /** Under which what is answered is kept on the device until it is saved. */
  keptAs: string;
  questions: readonly Question[];
  begun: Answers;
  isChange: boolean;
  onSay: (said: { answers: Answers; photograph: string | null; leavesOpen: boolean }) => void;
  onLeave: () => void;
}

/** A form that a student answers: kept on the device while it is answered, and asked once about what is open. */
export function FillForm({ keptAs, questions, begun, isChange, onSay, onLeave }: FillFormProps) {
  const [draft, setDraft] = useState<FillDraft>({ answers: begun, photograph: null });
  const { answers, photograph } = draft;
  const bringBack = useCallback((found: FillDraft) => setDraft(found), []);
  useKeptDraft(keptAs, fillDraft, draft, isTouched, bringBack);
  const [messages, setMessages] = useState<Record<string, string>>({});
  const fields = useRef<HTMLFormElement>(null);
  const save = ({ leavesOpen = false } = {}) => {
    const sent = answersToSend(questions, answers);
    // What it says already keeps its photograph.
    const given = { leavesOpen, hasPhotograph: photograph !== null || isChange };
    const fitting = fittingAnswers(questions, sent, given);
    if ('answers' in fitting) {
      void draftStore.forget(keptAs).catch(() => {});
      return onSay({ answers: fitting.answers, photograph, leavesOpen });
    }
    setMessages(fitting.messages);
    requestAnimationFrame(() =>
      fields.current?.querySelector<HTMLElement>('[role=alert]')?.scrollIntoView({ block: 'center' }),
    );
  };
  return (
    <form
      ref={fields}
      noValidate
      className="mt-7 grid gap-8"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <AnswerFields
        questions={questions}
        answers={answers}
        photograph={photograph}
        messages={messages}
        isLarge
        hidesPhotograph={isChange}
        onAnswer={(next) => setDraft({ ...draft, answers: next })}
        onPhotograph={(next) => setDraft({ ...draft, photograph: next })}
      />
      {messages.form && (
        <p role="alert" className="text-base font-semibold text-clay-deep">
          {messages.form}
        </p>
      )}
      {messages.open && (
        <p role="alert" className="grid gap-2 text-base font-semibold text-clay-deep">
          {messages.open}
          <button type="button" className="btn h-14" onClick={() => save({ leavesOpen: true })}>
            {fillFormWords.leaveOpen}
          </button>
        </p>
      )}
      <button type="submit" className="btn btn-primary h-16 text-lg">
        {isChange ? fillFormWords.keepChange : fillFormWords.save}
      </button>
      {isChange && (
        <button type="button" className="btn h-14" onClick={onLeave}>
          {fillFormWords.leaveIt}
        </button>
      )}
    </form>
  );
}
