const SMALL = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'] as const;

/**
 * A small whole number as a word, a larger one in figures.
 *
 * @example numberWord(3) // 'three'
 * @example numberWord(12) // '12'
 */
export function numberWord(n: number): string {
  return SMALL[n] ?? String(n);
}

/**
 * A number with its noun, singular or plural.
 *
 * @example counted(1, 'session', 'sessions') // '1 session'
 */
export function counted(n: number, one: string, many: string): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** A percentage for reading: no decimals, and never 100 or 0 unless it is exactly that. */
export function percent(value: number): string {
  const rounded = Math.round(value);
  if (rounded === 100 && value < 100) return '99%';
  if (rounded === 0 && value > 0) return '1%';
  return `${rounded}%`;
}

/**
 * A figure rounded for reading, but cut where rounding would carry it to or over a limit that it has not reached: what is shown never
 * reaches a criterion, a target or a band that the figure does not.
 *
 * @param decimals  0 for percentages, 1 for everything else
 * @example readable(79.6, [80], 0) // 79
 * @example readable(79.6, [75], 0) // 80
 */
export function readable(value: number, limits: readonly number[], decimals: 0 | 1): number {
  const scale = 10 ** decimals;
  const rounded = Math.round(value * scale) / scale;
  const hair = 1e-9;
  const crosses = limits.some(
    (limit) => (value < limit - hair && rounded >= limit - hair) || (value > limit + hair && rounded <= limit + hair),
  );
  if (!crosses) return rounded;
  return (rounded > value ? Math.floor(value * scale) : Math.ceil(value * scale)) / scale;
}

/** A figure with at most one decimal, without a needless `.0`. */
export function figure(value: number): string {
  return String(Math.round(value * 10) / 10);
}

/** A rate with one decimal at most, and the first digit that says something where that would be 0; a dash where there is none. */
export function rateFigure(value: number | null): string {
  return value === null ? '–' : value >= 0.005 && value < 0.05 ? String(Math.round(value * 100) / 100) : figure(value);
}

/** How many times as many, with two decimals at most; a dash where there is none. */
export function ratioFigure(value: number | null): string {
  return value === null ? '–' : String(Math.round(value * 100) / 100);
}

/** A coefficient (NAP, Tau, κ) with two decimals; a dash where there is none. */
export function coefficient(value: number | null): string {
  return value === null ? '–' : value.toFixed(2).replace('-', '−');
}

/** A change without its sign: whole from 10 on, one decimal below, and the first digit that says something where that would be 0. */
export function changeFigure(value: number): string {
  const size = Math.abs(value);
  if (size >= 9.95) return String(Math.round(size));
  return size >= 0.005 && size < 0.05 ? String(Math.round(size * 100) / 100) : figure(size);
}

/** A change with its sign: “+1.2”, “−0.04”, “0”. */
export function signed(value: number): string {
  const text = changeFigure(value);
  return text === '0' ? text : `${value > 0 ? '+' : '−'}${text}`;
}

/** The same sentence with a capital at its start. */
export function capitalised(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/**
 * One of something: “an antecedent”, “a unit”. By the first letter, but for words that begin as “you” or “one” do.
 *
 * @example withArticle('antecedent') // 'an antecedent'
 * @example withArticle('one-minute count') // 'a one-minute count'
 */
export function withArticle(noun: string): string {
  return `${/^[aeiou]/i.test(noun) && !/^(uni|use|eu|one)/i.test(noun) ? 'an' : 'a'} ${noun}`;
}

/**
 * Words in a row, the last joined by “and”.
 *
 * @example listed(['rain', 'snow', 'hail']) // 'rain, snow and hail'
 */
export function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

/**
 * A length of time for reading, in the two largest units that say something.
 *
 * @param seconds  0 or more
 * @example lengthOfTime(45) // '45 s'
 * @example lengthOfTime(270) // '4 min 30 s'
 * @example lengthOfTime(3900) // '1 h 5 min'
 */
export function lengthOfTime(seconds: number): string {
  if (seconds < 60) return `${figure(seconds)} s`;
  const whole = seconds < 3600 ? Math.round(seconds) : 60 * Math.round(seconds / 60);
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  const parts = hours > 0 ? [`${hours} h`, minutes && `${minutes} min`] : [`${minutes} min`, rest && `${rest} s`];
  return parts.filter(Boolean).join(' ');
}
