import { useState } from 'react';
import { Link } from 'react-router';
import { v4 as newId } from 'uuid';
import { FieldMessage } from '../platform/ui/fields';
import { LabelledInput } from '../platform/ui/labelled';
import { useSaving } from '../platform/ui/use-saving';
import { meetingWords } from './words';

interface DecidedProps {
  student: { id: string };
  goal: { id: string; number: string };
  mayNote: boolean;
  mayEditGoals: boolean;
  forPerson: string;
  dueOn: string;
  /** What is open of this student. */
  decided: readonly { id: string; what: string; forName: string; due: string }[];
}

type Answer = { messages: Record<string, string> } | { made: string } | { unreachable: true };

/** What is decided is noted at once, as a follow-up, and done from here: the target, the support, the goal itself. */
export function Decided({ student, goal, mayNote, mayEditGoals, forPerson, dueOn, decided }: DecidedProps) {
  const [id, setId] = useState(() => newId());
  const [what, setWhat] = useState('');
  const { answer, isBusy, isUnreachable, save } = useSaving<Answer>(`/students/${student.id}/follow-ups`);
  const messages = answer && 'messages' in answer ? answer.messages : {};
  const isMade = answer !== undefined && 'made' in answer && answer.made === id;
  // Once it is there, the next one is another.
  if (isMade && !isBusy) {
    setId(newId());
    setWhat('');
  }
  const places = [
    [`/students/${student.id}/goals/${goal.id}/edit`, meetingWords.changeGoal],
    [`/students/${student.id}/goals`, meetingWords.retireGoal],
  ] as const;
  return (
    <section className="no-print mt-8">
      <h2 className="text-xl">{meetingWords.decided}</h2>
      {mayNote && (
        <form
          className="mt-2 grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            save({ id, entryId: null, what: `${goal.number}: ${what}`, forPerson, dueOn, inReport: false });
          }}
        >
          <p className="flex flex-wrap gap-2">
            {meetingWords.usual.map((one) => (
              <button key={one} type="button" className="btn btn-sm" onClick={() => setWhat(one)}>
                {one}
              </button>
            ))}
          </p>
          <LabelledInput label={meetingWords.what} value={what} message={messages.what} onChange={setWhat} />
          <FieldMessage messages={messages.forPerson ? [messages.forPerson] : undefined} />
          {isUnreachable && <FieldMessage messages={[meetingWords.unreachable]} />}
          <p>
            <button type="submit" className="btn btn-primary" disabled={isBusy || what.trim() === ''}>
              {meetingWords.note}
            </button>
          </p>
        </form>
      )}
      {decided.length > 0 && (
        <ul className="mt-3" aria-label={meetingWords.open}>
          {decided.map(({ id: key, what: said, forName, due }) => (
            <li key={key} className="border-b border-dotted border-ink-3/50 py-1.5">
              {said}
              <span className="block text-small text-ink-2">{meetingWords.forBy(forName, due)}</span>
            </li>
          ))}
        </ul>
      )}
      {mayEditGoals && (
        <p className="mt-3 flex flex-wrap gap-x-5">
          {places.map(([to, label]) => (
            <Link key={to} to={to} className="tap flex items-center link">
              {label}
            </Link>
          ))}
        </p>
      )}
    </section>
  );
}
