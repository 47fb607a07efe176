import { z } from 'zod';

/** The grades of a school, in their order, as they are written everywhere. */
export const grades = [
  ...['PK', 'K'],
  ...Array.from({ length: 12 }, (_, i) => `Grade ${i + 1}`),
  ...['13+', 'Ungraded'],
] as const;

/** Codes of the Common Education Data Standards for the grade level (from memory), and what people write for the same. */
const spellings: Record<string, string> = {
  ...{ pk: 'PK', prek: 'PK', prekindergarten: 'PK', preschool: 'PK', p: 'PK' },
  ...{ k: 'K', kg: 'K', kindergarten: 'K' },
  ...{ ug: 'Ungraded', ungraded: 'Ungraded', none: 'Ungraded' },
  ...{ ps: '13+', transition: '13+', postsecondary: '13+' },
};
const words = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
];

/**
 * A grade as it is written here, from whichever spelling; null for what is none.
 *
 * @example readGrade('4th') // 'Grade 4'
 * @example readGrade('KG') // 'K'
 * @example readGrade('99') // null
 */
export function readGrade(text: string): string | null {
  const trimmed = text.trim();
  if (trimmed === '13+') return '13+';
  if (/^[-−–]/.test(trimmed)) return null;
  const plain = trimmed
    .toLowerCase()
    .replace(/[^\p{L}\p{N}+]/gu, '')
    .replace(/^(grade|gr|year|level)(?=.)|(grade|gr)$/g, '');
  const known = spellings[plain];
  if (known) return known;
  const word = words.indexOf(plain);
  if (word >= 0) return `Grade ${word + 1}`;
  const number = /^0?(\d{1,2})(st|nd|rd|th)?$/.exec(plain)?.[1];
  if (number === undefined) return null;
  const n = Number(number);
  if (n === 13) return '13+';
  return n >= 1 && n <= 12 ? `Grade ${n}` : null;
}

export const unknownGrade = 'Enter a grade: PK, K, 1 to 12, 13+ or ungraded.';

/** A grade as it is typed, and written as all are. */
export const gradeField = z
  .string({ error: unknownGrade })
  .trim()
  .min(1, { error: unknownGrade })
  .max(30, { error: unknownGrade })
  .transform((text, context) => {
    const grade = readGrade(text);
    if (grade !== null) return grade;
    context.addIssue({ code: 'custom', message: unknownGrade, input: text });
    return z.NEVER;
  });
