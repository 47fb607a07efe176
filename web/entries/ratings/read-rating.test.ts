import { describe, expect, it } from 'vitest';
import { rubricDefinition } from '~/core/measures/rubric/rubric';
import { readRating } from './read-rating';

const levels = [1, 2].map((points) => ({ points, words: `at ${points}` }));
const rubric = rubricDefinition.parse({
  kind: 'rubric',
  criteria: [{ key: 'order', label: 'Order', levels }],
});
const id = '7f0f2c1e-5a0f-4d0c-8a43-111111111111';

function form(fields: Record<string, string>) {
  const made = new FormData();
  for (const [name, value] of Object.entries(fields)) made.set(name, value);
  return made;
}

describe('a rating as its form sends it', () => {
  it('is points by criterion, and words', () => {
    const read = readRating(form({ id, 'points.order': '2', words: ' Neat ', intent: 'rate' }), rubric);
    expect(read).toEqual({ rating: { id, points: { order: 2 }, words: 'Neat' } });
  });

  it('is refused with one message that its rater can act on', () => {
    expect(readRating(form({ id }), rubric)).toEqual({ message: 'Rate at least one criterion.' });
    expect(readRating(form({ id, 'points.order': '9' }), rubric)).toEqual({
      message: 'Choose a level from the rubric.',
    });
    expect(readRating(form({ id, 'points.order': '1', words: 'x'.repeat(1001) }), rubric)).toEqual({
      message: 'Keep it to 1,000 characters.',
    });
  });
});
