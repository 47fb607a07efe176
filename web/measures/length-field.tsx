import { useState } from 'react';
import { secondsFrom, stopwatch } from './clock';
import { lengthFieldWords } from './words';

/** A length of time that can be typed: “1:30”, “45”, “2 min”. What cannot be read stays, with a word about it. */
export function LengthField(props: {
  label: string;
  seconds: number | null;
  onChange: (seconds: number | null) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const isWrong = typed !== null && typed.trim() !== '' && secondsFrom(typed) === null;
  return (
    <label className="flex flex-wrap items-center gap-2 text-small text-ink-2">
      {props.label}
      <input
        type="text"
        inputMode="text"
        value={typed ?? (props.seconds === null ? '' : stopwatch(props.seconds))}
        aria-invalid={isWrong}
        onChange={(event) => {
          setTyped(event.target.value);
          if (event.target.value.trim() === '') props.onChange(null);
          const seconds = secondsFrom(event.target.value);
          if (seconds !== null && seconds > 0) props.onChange(seconds);
        }}
        onBlur={() => !isWrong && setTyped(null)}
        className="input w-24"
      />
      {isWrong && <span className="font-semibold text-clay-deep">{lengthFieldWords.writeMinutesAndSecondsSuch}</span>}
    </label>
  );
}
