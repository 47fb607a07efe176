/** What the worker tells a page, before it hands it an answer: whether that is the server’s, or what was kept of an earlier one. */
export interface FromWorker {
  is: 'fresh' | 'kept';
  /** When it was kept, by this device’s clock, in milliseconds since 1970; of a fresh one, now. */
  at: number;
}

/** What a page asks of the worker: to keep what the server lists, or to let its newer version take over. */
export type ToWorker = { is: 'keep' } | { is: 'takeOver' };
