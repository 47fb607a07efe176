import { describe, expect, it } from 'vitest';
import { cumulativeTotalDefinition, neededSentence } from '~/core/measures/cumulative-total/cumulative-total';
import { measureOf } from '~/core/measures/measure';
import { noteWithDataWords, withoutDataWords } from '~/core/measures/words-in-data';
import { asCount, hours, message, score, sentence } from '~/tests/examples/measures';

describe('cumulative total', () => {
  const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [] };
  const when = { startsOn: '2026-09-01', targetOn: '2026-10-05', today: '2026-09-14', calendar };

  it('adds up, with its categories in words', () => {
    const data = {
      amounts: [
        { amount: 2.5, category: 'garden' },
        { amount: 1, category: 'kitchen' },
      ],
    };
    expect(score(hours, data)).toEqual({ value: 8.75, amount: 3.5, weight: 2 });
    expect(measureOf(hours).sentence(data, 14)).toBe(
      'garden 2.5 hours, kitchen 1 hour. That day 3.5; so far 14 of 40 hours (35%).',
    );
    const plain = { amounts: [{ amount: 3, category: null }] };
    expect(measureOf(hours).sentence(plain, 14)).toBe('3 hours, 14 of 40 so far (35%).');
    // While it is recorded, what came before is not at hand.
    expect(sentence(hours, plain)).toBe('3 hours.');
    expect(message(hours, { amounts: [{ amount: -1, category: null }] })).toContain('cannot be below nothing');
    expect(asCount(hours, 90)).toBe('36 of 40 hours');
  });

  it('keeps what an amount was for in the words of the note, and out of the sentence', () => {
    const data = {
      amounts: [
        { amount: 2.5, category: 'garden', title: 'Dug the east bed' },
        { amount: 1, category: null },
      ],
    };
    expect(message(hours, data)).toBeUndefined();
    expect(sentence(hours, data)).not.toContain('Dug');
    expect(noteWithDataWords('Worked alone.', data)).toBe('Worked alone.\nDug the east bed: 2.5');
    expect(noteWithDataWords('', { amounts: [{ amount: 1, category: null }] })).toBe('');
    expect(withoutDataWords({ data, reason: null }).data).toEqual({
      amounts: [
        { amount: 2.5, category: 'garden' },
        { amount: 1, category: null },
      ],
    });
    expect(message(hours, { amounts: [{ amount: 1, category: null, title: 'x'.repeat(81) }] })).toContain('80');
  });

  it('says what is needed a school day, and nothing at the end or after the last day', () => {
    // Fifteen school days from 15 September to 5 October.
    expect(neededSentence(hours, 25, when)).toBe('2 hours a school day needed; 15 school days are left');
    expect(neededSentence(hours, 100, when)).toBeNull();
    expect(neededSentence(hours, 25, { ...when, today: '2026-10-06' })).toBeNull();
  });

  it('may be a balance, from which something is taken off again', () => {
    const balance = cumulativeTotalDefinition.parse({ ...hours, amounts: 'balance' });
    const taken = { amounts: [{ amount: -1.5, category: null }] };
    expect(message(hours, taken)).toBe('An amount cannot be below nothing; correct the entry that was too much.');
    expect(message(balance, taken)).toBeUndefined();
    const data = { amounts: [{ amount: 4, category: null }, ...taken.amounts] };
    expect(score(balance, data)).toMatchObject({ amount: 2.5, value: 6.25 });
    // A balance may stand below nothing, and says so.
    expect(score(balance, taken)).toMatchObject({ amount: -1.5, value: -3.75 });
    expect(measureOf(balance).sentence({ amounts: [{ amount: -2, category: null }] }, 12)).toBe(
      '-2 hours, 12 of 40 so far (30%).',
    );
  });
});
