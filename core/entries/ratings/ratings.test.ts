import { describe, expect, it } from 'vitest';
import { type RubricDefinition, rubricDefinition, scoreRubric } from '../../measures/rubric/rubric';
import { asEntry, type Rating, raterNames, ratingInput, sideBySide, spreadWords } from './ratings';

const levels = (name: string) => [1, 2, 3, 4].map((points) => ({ points, words: `${name} at ${points}` }));
const rubric: RubricDefinition = rubricDefinition.parse({
  kind: 'rubric',
  criteria: [
    { key: 'order', label: 'Order', levels: levels('Order') },
    { key: 'words', label: 'Words', levels: levels('Words') },
  ],
});
const rating = (kind: Rating['kind'], points: Record<string, number>, name: string | null = null): Rating => ({
  ...{ id: 'x', kind, name, points, words: '' },
});
const ratings = [
  rating('staff', { order: 4, words: 3 }, 'H. Bruun'),
  rating('peer', { order: 2 }),
  rating('peer', { order: 3, words: 3 }),
  rating('student', { order: 4, words: 3 }),
];

describe('one work sample, rated by several', () => {
  it('stands side by side with the words of each level, the staff’s mean and how far all lie apart', () => {
    const [order, words] = sideBySide(rubric, ratings);
    expect(order).toMatchObject({ mean: 4, low: 2, high: 4 });
    expect(order?.cells.map((cell) => cell?.words)).toEqual(['Order at 4', 'Order at 2', 'Order at 3', 'Order at 4']);
    expect(words?.cells[1]).toBeNull();
    expect([order, words].map((one) => one && spreadWords(one))).toEqual([
      'staff 4; all from 2 to 4',
      '3, all the same',
    ]);
    expect(spreadWords(sideBySide(rubric, [])[0] as never)).toBe('not rated');
    expect(spreadWords(sideBySide(rubric, ratings.slice(0, 1))[0] as never)).toBe('4, by one');
  });

  it('names raters where that is shown, else by their kind', () => {
    expect(raterNames(ratings)).toEqual(['H. Bruun', 'Peer 1', 'Peer 2', 'Student']);
  });

  it('makes an entry that names nobody, and whose score is the mean of what staff gave each criterion', () => {
    const colleague = rating('staff', { order: 3, words: 2 }, 'L. Varga');
    const data = asEntry([...ratings, colleague]);
    expect(JSON.stringify(data)).not.toContain('Bruun');
    // By hand: ((4 + 3) / 2 + (3 + 2) / 2) / 2; peers and the student stand beside it.
    expect(scoreRubric(rubric, data)).toMatchObject({ value: 3, weight: 2 });
    expect(data.ratings).toHaveLength(9);
  });

  it('refuses a level that the rubric does not have, and a rating of nothing', () => {
    const id = '7f0f2c1e-5a0f-4d0c-8a43-111111111111';
    const problem = (points: object) => ratingInput(rubric).safeParse({ id, points }).error?.issues[0]?.message;
    expect(problem({ order: 5 })).toBe('Choose a level from the rubric.');
    expect(problem({ other: 1 })).toBe('Choose a level from the rubric.');
    expect(problem({})).toBe('Rate at least one criterion.');
    expect(problem({ order: '3' })).toBeUndefined();
  });
});
