import { config } from './config';

const offsetNow = () => (config.CLOCK ? Date.parse(config.CLOCK) - Date.now() : 0);
let offset = offsetNow();

/** The present instant; every function that needs one is handed it from here. */
export function now(): Date {
  return new Date(Date.now() + offset);
}

/** Sets the clock back to where it was told to start; without CLOCK it goes on. */
export function restartClock(): void {
  offset = offsetNow();
}
