import { config } from './config';

const offset = config.CLOCK ? Date.parse(config.CLOCK) - Date.now() : 0;

/** The present instant; every function that needs one is handed it from here. */
export function now(): Date {
  return new Date(Date.now() + offset);
}
