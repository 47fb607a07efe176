import { z } from 'zod';

/** How a goal's own things (levels, items, steps …) are told apart in data, whatever they come to be called. */
export const keyField = z.string().regex(/^[a-z][A-Za-z0-9]{0,23}$/);

/** Something of the goal's own with its name: an item, a step, a category. */
export const named = z.object({ key: keyField, label: z.string().trim().min(1).max(60) });
export type Named = z.infer<typeof named>;

/** What something is called in sentences. */
export const noun = z.object({ one: z.string().trim().min(1).max(30), many: z.string().trim().min(1).max(30) });
export type Noun = z.infer<typeof noun>;

export const keysOf = (list: readonly { key: string }[]) => list.map(({ key }) => key);

export const hasDistinctKeys = (list: readonly { key: string }[]) =>
  new Set(list.map(({ key }) => key)).size === list.length;

/** The schema of a choice among the goal's own things. */
export function oneOf(list: readonly { key: string }[], message: string) {
  return z.enum(list.map(({ key }) => key) as [string, ...string[]], { error: message });
}

/** The same things under neutral names: “Item 1”, “Item 2” … */
export function unnamed<T extends Named>(list: readonly T[], what: string): T[] {
  return list.map((one, i) => ({ ...one, label: `${what} ${i + 1}` }));
}

/** The name of a key; the key itself where the goal no longer has it. */
export function labelOf(list: readonly Named[], key: string): string {
  return list.find((one) => one.key === key)?.label ?? key;
}
