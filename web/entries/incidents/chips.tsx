import * as RovingFocus from '@radix-ui/react-roving-focus';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { v4 as newId } from 'uuid';
import type { ChoiceKind } from '~/core/entries/incidents/choice';
import type { TypedOther } from '~/core/entries/incidents/incident-input';
import type { OfferedChoice } from '~/core/entries/waiting';
import { padKeys } from '../../measures/sheet';
import { FieldMessage } from '../../platform/ui/fields';
import { chipsWords } from './words';

interface ChipsProps {
  kind: ChoiceKind;
  legend: string;
  hint?: string | undefined;
  choices: readonly OfferedChoice[];
  chosen: readonly string[];
  onToggle: (id: string) => void;
  message: string | undefined;
  /** Where something may be typed that no choice says. */
  typed?: { others: TypedOther[]; onType: (others: TypedOther[]) => void };
  /** One below the other where there is room. */
  isColumn?: boolean;
  className?: string;
  /** Whether the digit keys go to it; nothing where there are none. */
  isActive?: boolean;
  onActivate?: () => void;
}

/** How something to tap looks, pressed or not. */
export const chip =
  'min-h-11 rounded-field border px-2.5 py-1.5 sm:px-3 text-left leading-tight aria-pressed:border-fern-deep aria-pressed:bg-fern-deep aria-pressed:font-semibold aria-pressed:text-primary-content border-rule bg-sheet';

/** Choices to tap. */
export function Chips(props: ChipsProps) {
  const { kind, legend, hint, choices, chosen, onToggle, message, typed, isColumn = false, className = '' } = props;
  const { isActive = false, onActivate } = props;
  return (
    <fieldset className={`min-w-0 ${className}`} onFocus={onActivate}>
      <legend className="mb-1 text-small font-semibold">
        {legend}
        {hint && <span className="ml-1.5 font-normal text-ink-2">{hint}</span>}
      </legend>
      <RovingFocus.Root loop className={`flex flex-wrap gap-1 sm:gap-1.5 ${isColumn ? 'sm:flex-col' : ''}`}>
        {choices.map(({ id, name, words, isNew }, at) => (
          <RovingFocus.Item key={id} asChild active={chosen.includes(id)}>
            <button
              type="button"
              aria-pressed={chosen.includes(id)}
              title={words || undefined}
              // A tap leaves the focus where it was, so that Enter goes on meaning “save”.
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => onToggle(id)}
              className={`relative ${chip}`}
            >
              {name}
              {isNew && <span className="text-small font-normal opacity-85"> {chipsWords.isNew}</span>}
              {kind === 'intensity' && words && (
                <span className="block text-small font-normal opacity-85">{words}</span>
              )}
              {isActive && at < padKeys.length && (
                <kbd
                  aria-hidden
                  className={`keycap absolute right-2 max-sm:hidden ${isColumn ? 'top-1/2 -translate-y-1/2' : '-top-2'}`}
                >
                  {padKeys[at]}
                </kbd>
              )}
            </button>
          </RovingFocus.Item>
        ))}
        {typed?.others
          .filter((other) => other.kind === kind)
          .map((other) => (
            <RovingFocus.Item key={other.id} asChild active>
              <button
                type="button"
                aria-pressed
                onClick={() => typed.onType(typed.others.filter(({ id }) => id !== other.id))}
                className={chip}
              >
                {other.name}
              </button>
            </RovingFocus.Item>
          ))}
        {typed && <OtherField kind={kind as TypedOther['kind']} {...typed} label={`Other: ${legend.toLowerCase()}`} />}
      </RovingFocus.Root>
      <FieldMessage messages={message ? [message] : undefined} />
    </fieldset>
  );
}

/** Something else, typed. */
export function OtherField(props: {
  kind: TypedOther['kind'];
  others: TypedOther[];
  onType: (others: TypedOther[]) => void;
  label: string;
}) {
  const { kind, others, onType, label } = props;
  const [text, setText] = useState<string | null>(null);
  const add = () => {
    const name = text?.trim();
    if (name)
      onType([...others.filter((other) => kind !== 'location' || other.kind !== kind), { id: newId(), kind, name }]);
    setText(null);
  };
  if (text === null) {
    return (
      <button
        type="button"
        aria-label={label}
        onClick={() => setText('')}
        className="flex min-h-11 items-center gap-1 self-start rounded-field border border-dashed border-ink-3/60 px-3 text-small text-ink-2"
      >
        <Plus size={14} aria-hidden />
        {chipsWords.other}
      </button>
    );
  }
  return (
    <input
      // biome-ignore lint/a11y/noAutofocus: it was asked for with a tap, to be typed into
      autoFocus
      aria-label={label}
      value={text}
      maxLength={80}
      onChange={(event) => setText(event.target.value)}
      onBlur={add}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          event.stopPropagation();
          add();
        }
        if (event.key === 'Escape') setText(null);
      }}
      className="input w-full max-w-56"
    />
  );
}
