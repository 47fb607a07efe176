import { expect, it } from 'vitest';
import { toldApart } from './told-apart';

const student = (id: string, name: string, more: Partial<Parameters<typeof toldApart>[0][number]> = {}) => ({
  ...{ id, name, grade: 'Grade 4', groups: [], number: null, ...more },
});

it('namesakes are told apart by the first thing that differs: grade, groups, the school’s number', () => {
  const words = (...all: ReturnType<typeof student>[]) => Object.fromEntries(toldApart(all));
  expect(words(student('a', 'Ada E.'), student('b', 'Ben O.'))).toEqual({});
  expect(words(student('a', 'Ada E.'), student('b', 'ada e. ', { grade: 'Grade 5' }))).toEqual({
    a: 'Grade 4',
    b: 'Grade 5',
  });
  expect(
    words(student('a', 'Ada E.', { groups: ['Kitchen'] }), student('b', 'Ada E.', { groups: ['Garden'] })),
  ).toEqual({
    ...{ a: 'Kitchen', b: 'Garden' },
  });
  expect(words(student('a', 'Ada E.', { number: '454' }), student('b', 'Ada E.', { number: '1020' }))).toEqual({
    ...{ a: 'No. 454', b: 'No. 1020' },
  });
  // Three, of whom two share a grade.
  const three = words(
    student('a', 'Ada E.', { number: '1' }),
    student('b', 'Ada E.', { number: '2' }),
    student('c', 'Ada E.', { grade: 'Grade 5' }),
  );
  expect(new Set(Object.values(three)).size).toBe(3);
});
