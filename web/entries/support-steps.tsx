import { Check, X } from 'lucide-react';
import type { FidelityMarks } from '~/core/entries/fidelity';
import type { Named } from '~/core/measures/named';
import { supportStepsWords } from './words';

interface SupportStepsProps {
  steps: readonly Named[];
  marks: FidelityMarks | null;
  onMark: (marks: FidelityMarks | null) => void;
}

/** What a tap makes of a step: done, then not done, then nothing said of it. */
const after = (done: boolean | undefined) => (done === undefined ? true : done ? false : undefined);

/** Which steps of the support the adult carried out: what nobody taps stays blank. */
export function SupportSteps({ steps, marks, onMark }: SupportStepsProps) {
  const isDone = new Map(marks?.map((mark) => [mark.key, mark.isDone]));
  const say = (said: ReadonlyMap<string, boolean | undefined>) => {
    const all = steps.flatMap(({ key, label }) => {
      const done = said.get(key);
      return done === undefined ? [] : [{ key, label, isDone: done }];
    });
    onMark(all.length === 0 ? null : all);
  };
  const isAll = steps.every(({ key }) => isDone.get(key));
  return (
    <fieldset className="mt-2.5 flex flex-wrap items-center gap-1.5 text-small">
      <legend className="float-left mr-2 text-ink-2">{supportStepsWords.supportSteps}</legend>
      {steps.length > 1 && (
        <button
          type="button"
          aria-pressed={isAll}
          onClick={() => say(new Map(isAll ? [] : steps.map(({ key }) => [key, true])))}
          className="link tap px-1.5 text-ink-2"
        >
          {supportStepsWords.allDone}
        </button>
      )}
      {steps.map(({ key, label }) => {
        const done = isDone.get(key);
        const look = done ? 'border-fern bg-fern/10' : done === false ? 'border-clay-deep' : 'border-rule text-ink-2';
        return (
          <button
            key={key}
            type="button"
            aria-label={supportStepsWords.step(label, done)}
            onClick={() => say(new Map<string, boolean | undefined>(isDone).set(key, after(done)))}
            className={`flex min-h-8 items-center gap-1.5 rounded-full border px-3 pointer-coarse:min-h-11 ${look}`}
          >
            {done && <Check size={14} aria-hidden />}
            {done === false && <X size={14} aria-hidden />}
            {label}
          </button>
        );
      })}
    </fieldset>
  );
}
