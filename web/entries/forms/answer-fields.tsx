import { useId } from 'react';
import { type Answer, type Answers, type Question, questionField, sureWords } from '~/core/entries/forms/form';
import { FieldMessage } from '../../platform/ui/fields';
import { PhotographField } from './photograph-field';
import { answerFieldsWords } from './words';

interface AnswerFieldsProps {
  questions: readonly Question[];
  /** A number is kept as it is typed. */
  answers: Answers;
  photograph: string | null;
  messages: Record<string, string>;
  /** Larger, for a student's desk. */
  isLarge?: boolean;
  /** Of an entry that stands already, its pictures are beside it. */
  hidesPhotograph?: boolean;
  onAnswer: (answers: Answers) => void;
  onPhotograph: (photograph: string | null) => void;
}

/** The questions of a form, each to be answered, changed, or left open. */
export function AnswerFields(props: AnswerFieldsProps) {
  const { questions, answers, photograph, messages, isLarge = false, hidesPhotograph, onAnswer, onPhotograph } = props;
  const shown = hidesPhotograph ? questions.filter(({ kind }) => kind !== 'photograph') : questions;
  const set = (id: string, answer: Answer | undefined) => {
    const { [id]: _, ...others } = answers;
    onAnswer(answer === undefined || answer === '' ? others : { ...others, [id]: answer });
  };
  return (
    <div className={isLarge ? 'grid gap-8' : 'grid gap-6'}>
      {shown.map((question) => (
        <QuestionField
          key={question.id}
          question={question}
          answer={answers[question.id]}
          photograph={photograph}
          message={messages[questionField(question.id)]}
          isLarge={isLarge}
          onAnswer={(answer) => set(question.id, answer)}
          onPhotograph={onPhotograph}
        />
      ))}
    </div>
  );
}

interface QuestionFieldProps {
  question: Question;
  answer: Answer | undefined;
  photograph: string | null;
  message: string | undefined;
  isLarge: boolean;
  onAnswer: (answer: Answer | undefined) => void;
  onPhotograph: (photograph: string | null) => void;
}

function QuestionField(props: QuestionFieldProps) {
  const { question, answer, photograph, message, isLarge, onAnswer, onPhotograph } = props;
  const { kind, ask, hint, isRequired, unit, options } = question;
  const id = useId();
  const name = (
    <>
      {ask} {isRequired && <span className="font-normal text-ink-2">{answerFieldsWords.wanted}</span>}
    </>
  );
  const under = (
    <>
      {hint && (
        <p id={`${id}-hint`} className={isLarge ? 'text-base text-ink-2' : 'text-small text-ink-2'}>
          {hint}
        </p>
      )}
      <FieldMessage id={`${id}-message`} messages={message ? [message] : undefined} />
    </>
  );
  const described = [hint && `${id}-hint`, message && `${id}-message`].filter(Boolean).join(' ') || undefined;
  const control = { id, 'aria-describedby': described, 'aria-invalid': message ? true : undefined };
  const nameClass = isLarge ? 'text-xl font-semibold' : 'font-semibold';
  if (kind === 'text' || kind === 'number') {
    const fieldClass = isLarge ? 'text-lg' : '';
    return (
      <div className="grid gap-1.5">
        <label htmlFor={id} className={nameClass}>
          {name}
        </label>
        {kind === 'text' ? (
          <textarea
            {...control}
            rows={2}
            value={typeof answer === 'string' ? answer : ''}
            onChange={(event) => onAnswer(event.target.value)}
            className={`textarea w-full field-sizing-content ${fieldClass}`}
          />
        ) : (
          <span className="flex items-center gap-2">
            <input
              {...control}
              inputMode="decimal"
              autoComplete="off"
              value={answer === undefined ? '' : String(answer)}
              onChange={(event) => onAnswer(event.target.value)}
              className={`input w-32 ${fieldClass}`}
            />
            {unit}
          </span>
        )}
        {under}
      </div>
    );
  }
  if (kind === 'photograph') {
    return (
      <PhotographField name={ask} photograph={photograph} isLarge={isLarge} onChange={onPhotograph}>
        {under}
      </PhotographField>
    );
  }
  const words = kind === 'sure' ? sureWords : options.map((option) => option.words);
  const chosen = Array.isArray(answer) ? answer : typeof answer === 'number' ? [answer] : [];
  return (
    <fieldset className="grid gap-1.5" aria-describedby={described}>
      <legend className={`mb-1.5 ${nameClass}`}>{name}</legend>
      <div className={isLarge ? 'grid gap-3' : 'flex flex-wrap gap-2'}>
        {words.map((one, place) => (
          <button
            key={one}
            type="button"
            aria-pressed={chosen.includes(place)}
            onClick={() => onAnswer(nextAnswer(question, chosen, place))}
            className={`btn h-auto justify-start border border-rule text-left font-normal aria-pressed:bg-fern aria-pressed:font-semibold aria-pressed:text-sheet ${isLarge ? 'min-h-16 py-2 text-lg' : 'tap py-1.5'}`}
          >
            {one}
          </button>
        ))}
      </div>
      {under}
    </fieldset>
  );
}

/** What is answered after a tap: one that was chosen is let go by another tap. */
function nextAnswer({ kind, takesSeveral }: Question, chosen: readonly number[], place: number): Answer | undefined {
  const isChosen = chosen.includes(place);
  if (kind !== 'choice') return isChosen ? undefined : place;
  if (!takesSeveral) return isChosen ? undefined : [place];
  const next = isChosen ? chosen.filter((one) => one !== place) : [...chosen, place];
  return next.length === 0 ? undefined : next;
}
