import { Check, Eye, Triangle, Volume2 } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { useRevalidator } from 'react-router';
import { stepSaid } from '~/core/desk/steps';
import type { StepState, StepWords } from '~/core/school/step-words';
import type { DeskWork } from '~/server/desk/steps';
import { useKept } from './use-kept';
import { deskWords } from './words';

interface DeskStepsProps {
  studentId: string;
  firstName: string;
  works: DeskWork[];
  words: StepWords;
  /** Whether something else stands on the desk, where there is no work. */
  hasMore: boolean;
}

type Step = DeskWork['steps'][number];

/** While somebody is waited for, it is looked every so often whether they have seen it. */
const LOOK_EVERY = 15_000;

/** The student's work, at the step where they are. */
export function DeskSteps({ studentId, firstName, works, words, hasMore }: DeskStepsProps) {
  const { waiting, message, say } = useKept(studentId);
  const said = waiting.flatMap((one) => (one.to === 'steps' ? (stepSaid.safeParse(one.said).data ?? []) : []));
  const shown = works.map((work) => ({
    ...work,
    steps: work.steps.map((step): Step => {
      const last = said.findLast(({ stepId }) => stepId === step.id);
      return last ? { ...step, state: last.state, word: last.word || step.word, isSeen: false } : step;
    }),
  }));
  const isWaited = shown.some(({ steps }) => steps.some(({ state }) => state === 'stuck' || state === 'pleaseLook'));
  useLooking(isWaited);
  const [first, ...others] = shown;
  return (
    <>
      <p role="status" className={message ? 'mb-4 rounded-box bg-wash p-4 text-base' : 'sr-only'}>
        {message}
      </p>
      {!first && (
        <>
          <h1 className="text-3xl">{deskWords.helloName(firstName)}</h1>
          {!hasMore && <p className="mt-3">{deskWords.nothingOpen}</p>}
        </>
      )}
      {first && (
        <WorkSteps work={first} heading={<Greeting firstName={firstName} work={first} />} words={words} say={say} />
      )}
      {others.map((work) => (
        <div key={work.id} className="mt-12">
          <WorkSteps work={work} heading={<h2 className="text-2xl">{work.title}</h2>} words={words} say={say} />
        </div>
      ))}
    </>
  );
}

function useLooking(isOn: boolean) {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    const look = () => void revalidate();
    window.addEventListener('focus', look);
    const timer = isOn ? setInterval(look, LOOK_EVERY) : undefined;
    return () => {
      window.removeEventListener('focus', look);
      clearInterval(timer);
    };
  }, [isOn, revalidate]);
}

/** Where the student is: the first step that is not done. */
const presentStep = (steps: readonly Step[]) => steps.find(({ state }) => state !== 'done');

function Greeting({ firstName, work }: { firstName: string; work: DeskWork }) {
  const present = presentStep(work.steps);
  const at = present ? work.steps.indexOf(present) + 1 : null;
  const said = at === null ? deskWords.allDone : deskWords.youAreAt(at);
  return (
    <>
      <p className="flex items-center justify-between gap-3 text-base text-ink-2">
        {work.title}
        <ReadAloud
          text={`${deskWords.helloName(firstName)} ${said} ${present ? `${present.title}. ${present.hint}` : ''}`}
        />
      </p>
      <h1 className="text-3xl">
        {deskWords.helloName(firstName)}
        <br />
        {said}
      </h1>
    </>
  );
}

interface WorkStepsProps {
  work: DeskWork;
  heading: ReactNode;
  words: StepWords;
  say: ReturnType<typeof useKept>['say'];
}

function WorkSteps({ work, heading, words, say }: WorkStepsProps) {
  const present = presentStep(work.steps);
  const [opened, setOpened] = useState<string | null>(null);
  const openId = opened ?? present?.id;
  return (
    <section aria-label={work.title}>
      {heading}
      <ol className="mt-4 grid gap-3">
        {work.steps.map((step, i) =>
          step.id === openId ? (
            <li key={step.id} className="rounded-box border-2 border-primary bg-sheet p-4">
              <OpenStep
                words={words}
                step={step}
                at={i + 1}
                onSay={(state, word = '') => {
                  say('steps', { workId: work.id, stepId: step.id, state, word });
                  setOpened(state === 'done' ? null : step.id);
                }}
              />
            </li>
          ) : (
            <li key={step.id}>
              <button
                type="button"
                onClick={() => setOpened(step.id)}
                className="flex min-h-16 w-full items-center justify-between gap-3 rounded-box border border-rule bg-sheet px-4 text-left text-ink-2"
              >
                <span className="font-semibold">{deskWords.step(i + 1, step.title)}</span>
                <StateMark state={step.state} word={words[step.state]} />
              </button>
            </li>
          ),
        )}
      </ol>
      <p className="mt-4 text-base text-ink-2">{deskWords.changeAnyTime}</p>
    </section>
  );
}

function StateMark({ state, word }: { state: StepState; word: string }) {
  const marks: Record<StepState, ReactNode> = {
    notBegun: null,
    atIt: null,
    stuck: <Triangle size={15} aria-hidden fill="currentColor" />,
    pleaseLook: <Eye size={17} aria-hidden />,
    done: <Check size={17} aria-hidden />,
  };
  return (
    <span className="flex shrink-0 items-center gap-1.5 text-base">
      {marks[state]} {word}
    </span>
  );
}

const offered = ['atIt', 'stuck', 'pleaseLook', 'done'] as const;

const looks: Record<(typeof offered)[number], string> = {
  atIt: 'border-primary bg-fern-wash',
  stuck: 'border-clay bg-clay-wash text-clay-deep',
  pleaseLook: 'border-primary border-2',
  done: 'btn-primary',
};

interface OpenStepProps {
  words: StepWords;
  step: Step;
  at: number;
  onSay: (state: StepState, word?: string) => void;
}

function OpenStep({ words, step, at, onSay }: OpenStepProps) {
  return (
    <>
      <p className="display text-xl">{deskWords.step(at, step.title)}</p>
      {step.hint && <p className="text-base text-ink-2">{step.hint}</p>}
      <div className="mt-3 grid grid-cols-2 gap-3">
        {offered.map((state) => {
          const isOn = step.state === state;
          const look = isOn ? looks[state] : 'bg-sheet';
          return (
            <button
              key={state}
              type="button"
              aria-pressed={isOn}
              onClick={() => onSay(isOn ? 'notBegun' : state)}
              className={`btn h-16 border border-rule text-lg ${look}`}
            >
              <StateMark state={state} word={words[state]} />
            </button>
          );
        })}
      </div>
      {step.state === 'stuck' && <WhereStuck key={step.id} word={step.word} onSend={(word) => onSay('stuck', word)} />}
      {(step.state === 'stuck' || step.state === 'pleaseLook') && (
        <p role="status" className="mt-3 text-base">
          {step.isSeen ? deskWords.seen : deskWords.told}
        </p>
      )}
    </>
  );
}

function WhereStuck({ word, onSend }: { word: string; onSend: (word: string) => void }) {
  const [typed, setTyped] = useState(word);
  return (
    <form
      className="mt-4 grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onSend(typed.trim());
      }}
    >
      <label className="grid gap-1">
        <span className="font-semibold">{deskWords.whereStuck}</span>
        <input
          value={typed}
          maxLength={200}
          onChange={(event) => setTyped(event.currentTarget.value)}
          className="input h-14 w-full text-lg"
        />
      </label>
      <button type="submit" disabled={typed.trim() === word} className="btn h-14">
        {deskWords.tellMyTeacher}
      </button>
    </form>
  );
}

/** Reads a sentence with the device's own voice; nothing where it has none. */
function ReadAloud({ text }: { text: string }) {
  const [canRead, setCanRead] = useState(false);
  useEffect(() => setCanRead('speechSynthesis' in window), []);
  if (!canRead) return null;
  const read = () => {
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(text));
  };
  return (
    <button type="button" onClick={read} className="btn h-12">
      <Volume2 size={20} aria-hidden /> {deskWords.readAloud}
    </button>
  );
}
