import { defined } from '../defined';
import { chanceFrom, DEALS, SEED, shuffleFirst } from './deal';

/** A student’s incidents on each of some days: first those before, then the recent ones. */
export interface DayCounts {
  counts: readonly number[];
  recent: number;
}

/**
 * Whether anybody’s rate changed more than luck would have it, looking at all of them: the days change places within each student, and the
 * largest change of all students is the yardstick.
 *
 * @returns for each student, how often luck brings anybody a change as large; 1 for one whose incidents cannot tell
 */
export function changesByChance(students: readonly DayCounts[]): number[] {
  const chance = chanceFrom(SEED);
  const measured = students.map(({ counts, recent }) => {
    const days = counts.length;
    const all = counts.reduce((sum, n) => sum + n, 0);
    const mean = all / Math.max(1, days);
    const spread = counts.reduce((sum, n) => sum + (n - mean) ** 2, 0) / Math.max(1, days - 1);
    // The recent sum of days drawn without putting back: its mean and spread are known.
    const sd = Math.sqrt((recent * (days - recent) * spread) / Math.max(1, days));
    return { counts: Int32Array.from(counts), recent, expected: mean * recent, sd, days };
  });
  const tells = measured.filter(({ sd, recent, days }) => sd > 0 && recent > 0 && recent < days);
  const zOf = ({ expected, sd }: (typeof measured)[number], sum: number) => Math.abs(sum - expected) / sd;
  const largest = new Float64Array(DEALS);
  for (let deal = 0; deal < DEALS; deal++) {
    for (const student of tells) {
      shuffleFirst(student.counts, student.recent, chance);
      let sum = 0;
      for (let i = 0; i < student.recent; i++) sum += student.counts[i] ?? 0;
      largest[deal] = Math.max(largest[deal] ?? 0, zOf(student, sum));
    }
  }
  return students.map(({ counts, recent }, i) => {
    const student = defined(measured[i]);
    if (!tells.includes(student)) return 1;
    const z = zOf(
      student,
      counts.slice(counts.length - recent).reduce((sum, n) => sum + n, 0),
    );
    return (1 + largest.filter((one) => one >= z - 1e-9).length) / (1 + DEALS);
  });
}
