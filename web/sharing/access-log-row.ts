import { wallTime } from '~/core/calendar/zone';
import { type ReaderKind, readerWords } from '~/core/sharing/reader-kind';
import type { AccessLogEntry } from '~/server/sharing/access-log';
import { accessLogRowWords } from './words';

/** A reading as a row: for the table and for the file. */
export function readingRow(reading: AccessLogEntry, timeZone: string) {
  const { on, time } = wallTime(reading.at, timeZone);
  const by =
    reading.kind === null ? 'the team' : accessLogRowWords.aShareLink(readerWords[reading.kind as ReaderKind].label);
  const purpose = reading.kind === null ? 'a school official’s work' : (reading.purpose ?? '');
  return { on, time, who: reading.who, by, what: reading.what, how: reading.how, purpose };
}
