import { expect, it } from 'vitest';
import { gradeField, grades, readGrade } from './grade';

it.each([
  ...[
    ['4', 'Grade 4'],
    ['04', 'Grade 4'],
    ['4th', 'Grade 4'],
    ['Grade 4', 'Grade 4'],
    ['gr. 4', 'Grade 4'],
    ['4th grade', 'Grade 4'],
  ],
  ...[
    ['fourth', 'Grade 4'],
    ['12', 'Grade 12'],
    ['K', 'K'],
    ['KG', 'K'],
    ['Kindergarten', 'K'],
    ['Pre-K', 'PK'],
    ['PK', 'PK'],
  ],
  ...[
    ['13', '13+'],
    ['13+', '13+'],
    ['UG', 'Ungraded'],
    ['ungraded', 'Ungraded'],
    ['Transition', '13+'],
  ],
])('“%s” is %s', (typed, grade) => {
  expect(readGrade(typed!)).toBe(grade);
});

it.each(['99', '-1', '−1', '0', '14', 'Red group', '4-5', ''])('“%s” is none, and is asked about', (typed) => {
  expect(readGrade(typed)).toBeNull();
  expect(gradeField.safeParse(typed).error?.issues[0]?.message).toContain('PK, K, 1 to 12');
});

it('each grade reads as itself', () => {
  for (const grade of grades) expect(readGrade(grade)).toBe(grade);
});
