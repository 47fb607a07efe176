/**
 * What must be there by the way it was made: an index below the length, a key that was just put in. It stands where a cast would
 * only be believed.
 *
 * @throws TypeError when it is not there after all: a mistake of ours, never something that was typed
 * @example defined(points.at(-1)).day
 */
export function defined<T>(value: T): NonNullable<T> {
  if (value === undefined || value === null) throw new TypeError('Something that must be there is missing.');
  return value;
}
