/** All texts of something, each in its place made anew. */
export function mapTexts<Value>(value: Value, change: (text: string) => string): Value {
  if (typeof value === 'string') return change(value) as Value;
  if (Array.isArray(value)) return value.map((one) => mapTexts(one, change)) as Value;
  if (value === null || typeof value !== 'object') return value;
  // The same keys, each with what it had, but for its texts.
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, mapTexts(one, change)])) as Value;
}

/** All texts of something, one after the other. */
export function* textsIn(value: unknown): Generator<string> {
  if (typeof value === 'string') yield value;
  else if (value !== null && typeof value === 'object') for (const one of Object.values(value)) yield* textsIn(one);
}
