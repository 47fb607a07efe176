import { z } from 'zod';

/** What the record says of a column besides its type: to which table it points, and whether somebody wrote it in their own words. */
interface Told {
  of?: string;
  isFree?: boolean;
}
const told = (said: Told) => said as Record<string, unknown>;

export const id = z.uuid();
/** The id of a row of another table of the record. */
export const ref = (table: string) => z.uuid().meta(told({ of: table }));
export const person = ref('people');
export const location = ref('locations');
/** ISO 8601, a day of the school's calendar. */
export const day = z.iso.date();
/** Hours and minutes of the school's clock. */
export const time = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/);
/** A moment, ISO 8601 in UTC. */
export const instant = z.iso.datetime();
export const text = z.string().max(20_000);
/** What somebody wrote in their own words: other children's names do not leave in it. */
export const free = z
  .string()
  .max(20_000)
  .meta(told({ isFree: true }));
export const whole = z.number().int();
export const number = z.number();
export const yesNo = z.boolean();
export const texts = z.array(text).max(200);
/** Anything that JSON holds, by names. */
export const json = z.record(z.string(), z.json());
export const freeJson = z.record(z.string(), z.json()).meta(told({ isFree: true }));

/** What a column is told to be, also where it may be empty. */
export function toldOf(schema: z.ZodType): Told {
  const inner = schema instanceof z.ZodNullable ? (schema.unwrap() as z.ZodType) : schema;
  return (inner.meta() ?? {}) as Told;
}
