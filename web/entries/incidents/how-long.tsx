import { useState } from 'react';
import { lengthOfTime } from '~/core/words/counting';
import { isRunning, secondsFrom, secondsOn, started, stopped, stopwatch } from '../../measures/clock';
import { useNow } from '../../measures/use-now';
import { FieldMessage } from '../../platform/ui/fields';
import { chip } from './chips';
import type { IncidentDraft } from './incident-draft';
import type { IncidentWords } from './words';
import { howLongWords } from './words';

interface AmountProps {
  draft: IncidentDraft;
  onChange: (changes: Partial<IncidentDraft>) => void;
  words: IncidentWords;
  message: string | undefined;
}

const QUICK_SECONDS = [30, 60, 120, 300, 600];

/** By stopwatch, by quick amounts, typed, or not over yet. */
export function HowLong({ draft, onChange, words, message }: AmountProps) {
  const { clock, seconds, isGoing } = draft;
  const runs = isRunning(clock);
  const now = useNow(runs);
  const shown = secondsOn(clock, now);
  const press = () =>
    onChange({
      clock: runs ? stopped(clock, Date.now()) : started(clock, Date.now()),
      seconds: null,
      isGoing: false,
    });
  return (
    <fieldset>
      <legend className="mb-1.5 text-small font-semibold">{words.howLong}</legend>
      <div className="flex flex-wrap items-center gap-1.5">
        <button type="button" aria-pressed={runs} onClick={press} className={chip}>
          {runs ? howLongWords.stop : shown > 0 ? howLongWords.goOn : howLongWords.start}{' '}
          <span className="tabular-nums">{stopwatch(shown)}</span>
        </button>
        {QUICK_SECONDS.map((amount) => (
          <button
            key={amount}
            type="button"
            aria-pressed={seconds === amount}
            onClick={() => onChange({ seconds: seconds === amount ? null : amount, isGoing: false })}
            className={chip}
          >
            {lengthOfTime(amount)}
          </button>
        ))}
        <TypedLength
          value={seconds}
          label={words.howLong}
          onChange={(amount) => onChange({ seconds: amount, isGoing: false })}
        />
        <button
          type="button"
          aria-pressed={isGoing}
          onClick={() => onChange({ isGoing: !isGoing, seconds: null })}
          className={chip}
        >
          {howLongWords.stillGoing}
        </button>
      </div>
      <FieldMessage messages={message ? [message] : undefined} />
    </fieldset>
  );
}

/** A length as people type it: “1:30”, “2 min”. */
function TypedLength(props: { value: number | null; label: string; onChange: (seconds: number | null) => void }) {
  const { value, label, onChange } = props;
  const [text, setText] = useState<string | null>(null);
  const said = value === null || QUICK_SECONDS.includes(value) ? '' : lengthOfTime(value);
  return (
    <input
      aria-label={howLongWords.typed(label)}
      placeholder="1:30"
      value={text ?? said}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (text !== null) onChange(text.trim() === '' ? null : secondsFrom(text));
        setText(null);
      }}
      className="input w-20"
    />
  );
}

/** Whether it was resolved, and only then after how long. */
export function Resolved({ draft, onChange, words, message }: AmountProps) {
  const { resolved, resolvedAfter } = draft;
  const answers = [
    ['Yes', true],
    ['No', false],
  ] as const;
  return (
    <fieldset>
      <legend className="mb-1.5 text-small font-semibold">{words.resolved}</legend>
      <div className="flex flex-wrap items-center gap-1.5">
        {answers.map(([label, answer]) => (
          <button
            key={label}
            type="button"
            aria-pressed={resolved === answer}
            onClick={() => onChange({ resolved: resolved === answer ? null : answer, resolvedAfter: null })}
            className={chip}
          >
            {label}
          </button>
        ))}
        {resolved && (
          <>
            <span className="text-small text-ink-2">{howLongWords.after}</span>
            {[60, 300, 900].map((amount) => (
              <button
                key={amount}
                type="button"
                aria-pressed={resolvedAfter === amount}
                onClick={() => onChange({ resolvedAfter: resolvedAfter === amount ? null : amount })}
                className={chip}
              >
                {lengthOfTime(amount)}
              </button>
            ))}
            <TypedLength
              value={resolvedAfter}
              label={howLongWords.afterHowLong}
              onChange={(amount) => onChange({ resolvedAfter: amount })}
            />
          </>
        )}
      </div>
      <FieldMessage messages={message ? [message] : undefined} />
    </fieldset>
  );
}
