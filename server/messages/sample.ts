import type { MessageKind } from '~/core/messages/message';
import type { FieldValues } from '~/core/messages/message-template';
import type { ReaderKind } from '~/core/sharing/reader-kind';
import { shownFields } from '~/core/sharing/visibility-rule';
import { goalsOf } from '../goals/goals';
import { individualReport } from '../individual-report/individual-report';
import type { Database } from '../platform/db/database';
import type { School } from '../school/school';
import { visibilityRules } from '../sharing/visibility';
import type { StudentAccess } from '../students/access';
import { valuesFor } from './compose';

/** Entries of a digest’s preview. */
const IN_DIGEST = 3;

interface Sample {
  studentId: StudentAccess<'read'>;
  kind: MessageKind;
  readerKind: ReaderKind;
  school: School;
  publicUrl: string;
}

/**
 * What would fill the fields of a template, from a student’s newest entries as that reader sees them; links without their secrets.
 *
 * @returns null when there is no entry that this reader may see
 */
export async function sampleValues(
  db: Database,
  { studentId, kind, readerKind, school, publicUrl }: Sample,
): Promise<FieldValues | null> {
  const { rules } = await visibilityRules(db, studentId);
  const reader = { kind: readerKind, shows: shownFields(rules[readerKind].shows) };
  const newest = { only: null, find: '', page: 1, day: null, oldestFirst: false };
  const whole = { ...reader, linkId: null, discreet: false };
  const { entries } = await individualReport(db, studentId, await goalsOf(db, [studentId]), whole, newest);
  const observed = entries.filter((entry) => entry.kind === 'observation');
  const entryIds = observed.slice(0, kind === 'digest' ? IN_DIGEST : 1).map(({ id }) => id);
  const values = await valuesFor(db, { studentId, kind, entryIds, toName: 'Aunt Ida' }, reader, school);
  const stops = kind !== 'invitation' && kind !== 'locked';
  return values && { ...values, link: `${publicUrl}/shared/…`, stop: stops ? `${publicUrl}/stop/…` : null };
}
