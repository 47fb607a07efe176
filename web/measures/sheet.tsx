import { Undo2, X } from 'lucide-react';
import type { ReactNode } from 'react';
import type { CriterionDefinition } from '~/core/measures/criterion-definition';
import { type MeasureDefinition, measureOf } from '~/core/measures/measure';
import { openNamed } from '~/core/measures/open-parts';
import { useKey } from '../platform/ui/use-key';
import type { Clock } from './clock';
import { sheetWords } from './words';

/** What every data sheet is given: the goal's definition, what is marked so far, and how to say that it changed. */
export interface SheetProps<D, T> {
  definition: D;
  criterion: CriterionDefinition;
  data: T | null;
  clock: Clock;
  /** The place that the next tap replaces. */
  selected: number | null;
  /** Whether the digit keys go to this data sheet. */
  isActive: boolean;
  /** When watching began, in milliseconds since 1970; null where nothing is being watched now. */
  openedAt: number | null;
  /** How the goal stands before this session, for a cumulative total. */
  soFar: number | null;
  /** How fast a cumulative total has to go on, in words. */
  pace?: string | null;
  onMark: (data: T | null, clock?: Clock) => void;
  onSelect: (at: number | null) => void;
}

/** The keys of the pads, in their order. */
export const padKeys = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '-'];

/** Lets the digits press a data sheet's pads while it is the active one, and `U` take the last back. */
export function usePads(isActive: boolean, pads: readonly (() => void)[], takeBack?: () => void) {
  useKey(padKeys, (event) => {
    if (isActive) pads[padKeys.indexOf(event.key)]?.();
  });
  useKey('u', () => isActive && takeBack?.());
}

interface PadProps {
  /** Its place among the pads; null for one without a key. */
  at: number | null;
  showsKey: boolean;
  onPress: () => void;
  className?: string;
  isPressed?: boolean;
  isOff?: boolean;
  children: ReactNode;
}

/** One large button of a data sheet. A tap leaves the focus where it was, so that Enter goes on meaning “save”. */
export function Pad(props: PadProps) {
  const { at, showsKey, onPress, className = 'border border-rule', isPressed, isOff = false, children } = props;
  return (
    <button
      type="button"
      aria-pressed={isPressed}
      disabled={isOff}
      onMouseDown={(event) => event.preventDefault()}
      onClick={onPress}
      className={`relative min-h-14.5 rounded-field px-1 font-semibold @max-sm:text-small @sm:px-2 leading-tight transition-transform active:scale-97 disabled:opacity-40 ${showsKey && at !== null ? 'pointer-fine:pt-4' : ''} ${className}`}
    >
      {children}
      {showsKey && at !== null && (
        <kbd aria-hidden className="keycap absolute top-1 right-1">
          {padKeys[at]}
        </kbd>
      )}
    </button>
  );
}

export function TakeBack({ showsKey, onPress }: { showsKey: boolean; onPress: () => void }) {
  return (
    <button
      type="button"
      onMouseDown={(event) => event.preventDefault()}
      onClick={onPress}
      className="flex tap items-center gap-1.5 text-small text-ink-2"
    >
      <Undo2 size={15} aria-hidden />
      {sheetWords.takeBack}
      {showsKey && <kbd className="keycap">U</kbd>}
    </button>
  );
}

/** A quiet button within a line of text. */
export function TextButton({ onPress, children }: { onPress: () => void; children: ReactNode }) {
  return (
    <button type="button" className="tap text-small text-ink-2 link" onClick={onPress}>
      {children}
    </button>
  );
}

/** Takes one of several out again: an episode, an amount. */
export function TakeOut({ what, onPress }: { what: string; onPress: () => void }) {
  return (
    <button
      type="button"
      aria-label={sheetWords.takeOut(what)}
      className="grid tap-square place-items-center text-ink-2"
      onClick={onPress}
    >
      <X size={15} aria-hidden />
    </button>
  );
}

/** What is still open, named while it is little. It stays blank, unless somebody says otherwise. */
export function StillOpen({ names }: { names: readonly string[] }) {
  if (names.length === 0) return null;
  return <p className="text-small text-ink-2">{sheetWords.stillOpen(openNamed(names))}</p>;
}

/** What a data sheet says live, at its foot: the figure so far, and what the criterion needs. */
export function Live({ figure, children }: { figure: string | null; children: ReactNode }) {
  return (
    <p aria-live="polite" className="ml-auto text-small text-ink-2">
      {figure !== null && <span className="display mr-1.5 text-2xl text-ink">{figure}</span>}
      {children}
    </p>
  );
}

/** A number as it is typed; an empty field is no number, not a zero. */
export function NumberField(props: {
  label: string;
  value: number | null;
  onChange: (value: number | null) => void;
  step?: number | 'any';
  unit?: string;
  /** The least that may be typed; 0 where nothing is said, null for no least. */
  least?: number | null;
  /** When it is typed to its end: Enter, or the field is left. */
  onTaken?: () => void;
}) {
  return (
    <label className="flex items-center gap-2 text-small text-ink-2">
      {props.label}
      <input
        type="number"
        inputMode="decimal"
        min={props.least === undefined ? 0 : (props.least ?? undefined)}
        step={props.step ?? 1}
        value={props.value ?? ''}
        onChange={(event) => props.onChange(event.target.value === '' ? null : event.target.valueAsNumber)}
        onBlur={props.onTaken}
        onKeyDown={(event) => event.key === 'Enter' && props.onTaken?.()}
        className="input w-24"
      />
      {props.unit}
    </label>
  );
}

/** What the criterion asks of a session: “needs 5 of 6”, “at most 2 an hour”. */
export function needsOf(measure: MeasureDefinition, { comparison, value }: CriterionDefinition): string {
  const of = measureOf(measure);
  const target = of.asCount(value, comparison) ?? of.said(value);
  return comparison === 'atLeast' ? sheetWords.needs(target) : sheetWords.atMost(target);
}
