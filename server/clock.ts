import { TZDate } from '@date-fns/tz';
import { format } from 'date-fns';
import type { IsoDate } from '~/core/calendar/iso-date';
import { config } from './config';

const offset = config.CLOCK ? Date.parse(config.CLOCK) - Date.now() : 0;

/** The present instant; every function that needs one is handed it from here. */
export function now(): Date {
  return new Date(Date.now() + offset);
}

export interface WallTime {
  on: IsoDate;
  /** `HH:MM` */
  time: string;
}

/** What the clock on the school's wall shows at an instant. */
export function wallTime(instant: Date, timeZone: string): WallTime {
  const there = new TZDate(instant, timeZone);
  return { on: format(there, 'yyyy-MM-dd'), time: format(there, 'HH:mm') };
}
