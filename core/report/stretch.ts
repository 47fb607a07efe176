import { dateSeenFrom, type IsoDate } from '../calendar/iso-date';

/** A stretch in words: “Sep 8 to Dec 4”, with the year where it is another one; empty for all days. */
export function stretchWords(from: IsoDate | null, to: IsoDate | null, today: IsoDate): string {
  const begins = from && `${to ? '' : 'from '}${dateSeenFrom(from, today)}`;
  return [begins, to && `to ${dateSeenFrom(to, today)}`].filter(Boolean).join(' ');
}
