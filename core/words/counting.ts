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

/** A figure with at most one decimal, without a needless `.0`. */
export function figure(value: number): string {
  return String(Math.round(value * 10) / 10);
}

/** The same sentence with a capital at its start. */
export function capitalised(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
