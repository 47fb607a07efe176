import { z } from 'zod';

/** What is said at a field whose text no database and no screen can hold. */
export const unreadableWords =
  'This text holds a character that cannot be kept. Delete what was pasted here, and type it again.';

// A NUL, or half of a character that takes two.
const UNREADABLE = /\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

/** Nothing that is sent here is as deep as this: what is, was made to exhaust whoever reads it. */
const DEEPEST = 40;

/**
 * Where a value holds a text that cannot be kept: with a NUL, or with half of a character.
 *
 * @returns the path to each, names and places in lists
 * @example unreadablePaths({ note: 'fine', list: ['a\0'] }) // [['list', 0]]
 */
export function unreadablePaths(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (path.length > DEEPEST) return [path.slice(0, 1)];
  if (typeof value === 'string') return UNREADABLE.test(value) ? [path] : [];
  if (Array.isArray(value)) return value.flatMap((one, at) => unreadablePaths(one, [...path, at]));
  if (value === null || typeof value !== 'object' || !isPlain(value)) return [];
  return Object.entries(value).flatMap(([key, one]) =>
    UNREADABLE.test(key) ? [path] : unreadablePaths(one, [...path, key]),
  );
}

const isPlain = (value: object) => [Object.prototype, null].includes(Object.getPrototypeOf(value));

/** A schema that also refuses, at their fields, texts that cannot be kept. */
export function readable<Schema extends z.ZodType>(schema: Schema): z.ZodType<z.infer<Schema>, z.input<Schema>> {
  const checked = z.transform((value: unknown, context) => {
    for (const path of unreadablePaths(value)) {
      context.issues.push({ code: 'custom', message: unreadableWords, path, input: value });
    }
    return value;
  });
  // `checked` refuses before the schema sees it, and lets through as it came.
  return checked.pipe(schema as z.ZodType<z.infer<Schema>, unknown>) as z.ZodType<z.infer<Schema>, z.input<Schema>>;
}

/** The status that says why something was refused: a text that cannot be kept will not be taken however often it is sent. */
export function refusalStatus(messages: Iterable<string>): 400 | 422 {
  return [...messages].includes(unreadableWords) ? 422 : 400;
}
