/** What cannot be found, or what this person may not know of: the two look the same from outside. */
export class NotFound extends Error {
  override name = 'NotFound';
}

/** The person may see it but may not do this to it. */
export class NotAllowed extends Error {
  override name = 'NotAllowed';
}

/** Someone else changed it first. `current` is what stands now. */
export class Conflict<T> extends Error {
  override name = 'Conflict';
  constructor(readonly current: T) {
    super('Someone changed this in the meantime.');
  }
}

/** What arrived cannot be kept as it is; messages by field path. */
export class Invalid extends Error {
  override name = 'Invalid';
  constructor(readonly fields: Record<string, string>) {
    super('Something needs another look.');
  }
}

/** Too much is asked for at once; nothing was done, and it may be asked again shortly. */
export class Busy extends Error {
  override name = 'Busy';
}

/** What a promise gives; null when it fails in the way that is meant, and in no other. */
export async function nullIf<Result>(
  kind: abstract new (...args: never[]) => Error,
  promise: Promise<Result>,
): Promise<Result | null> {
  try {
    return await promise;
  } catch (error) {
    if (error instanceof kind) return null;
    throw error;
  }
}

/**
 * A row that is there as long as what names it is.
 *
 * @throws NotFound when it is not
 */
export function existing<Row>(row: Row): NonNullable<Row> {
  if (row === undefined || row === null) throw new NotFound('No such row.');
  return row;
}
