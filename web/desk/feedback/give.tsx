import { useState } from 'react';
import { v4 as newId } from 'uuid';
import type { Giving } from '~/server/desk/feedback';
import { FillForm } from '../forms/fill-form';
import { useKept } from '../use-kept';
import { giveWords } from './words';

interface GiveProps {
  studentId: string;
  giving: Giving;
  place: 'desk' | 'seat';
}

/** Each who presents, in their order: one is chosen, the form is answered, and can be answered otherwise until it is closed. */
export function Give({ studentId, giving, place }: GiveProps) {
  const { id, title, isClosed, form, presenters } = giving;
  const { waiting, message, say } = useKept(studentId, place);
  const [chosen, setChosen] = useState<string | null>(null);
  const [savedFor, setSavedFor] = useState<string | null>(null);
  const presenter = presenters.find((one) => one.studentId === chosen);
  const done = savedFor !== null && waiting.length === 0 && !message;
  const status = message ?? (done ? giveWords.saved(savedFor) : '');
  return (
    <>
      <h1 className="mt-1 text-3xl">{title}</h1>
      <p role="status" className={status ? 'mt-4 rounded-box bg-wash p-4 text-base' : 'sr-only'}>
        {status}
      </p>
      {presenter ? (
        <>
          <h2 className="mt-5 text-2xl">{giveWords.forName(presenter.firstName)}</h2>
          {form.hint && <p className="mt-1 text-ink-2">{form.hint}</p>}
          <FillForm
            key={presenter.studentId}
            keptAs={`${place} ${studentId} feedback ${id} ${presenter.studentId}`}
            questions={form.questions}
            begun={presenter.answers ?? {}}
            isChange={presenter.answers !== null}
            onLeave={() => setChosen(null)}
            onSay={({ answers, leavesOpen }) => {
              say('feedback', {
                ...{ id: newId(), presentationId: id, presenterId: presenter.studentId, answers, leavesOpen },
              });
              setSavedFor(presenter.firstName);
              setChosen(null);
              window.scrollTo(0, 0);
            }}
          />
        </>
      ) : (
        <>
          <p className="mt-3">{isClosed ? giveWords.closed : giveWords.whoPresents}</p>
          {presenters.length === 0 && <p className="mt-3">{giveWords.nobodyElse}</p>}
          <ul className="mt-5 grid gap-3">
            {presenters.map(({ studentId: presenterId, firstName, isAnswered }) => (
              <li key={presenterId}>
                <button
                  type="button"
                  disabled={isClosed}
                  onClick={() => {
                    setChosen(presenterId);
                    setSavedFor(null);
                  }}
                  className="btn h-auto min-h-16 w-full justify-between border border-rule bg-sheet px-4 py-2 text-lg font-normal"
                >
                  <span className="display text-xl">{firstName}</span>
                  <span className="text-base text-ink-2">{isAnswered ? giveWords.answered : giveWords.open}</span>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
