import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { longDate } from '../calendar/iso-date';
import { grantedWords, roleWords } from '../students/roles';
import { readerWords } from './reader-kind';
import { frequencyWords } from './share-link';
import type { VisibilityRule } from './visibility-rule';
import { shownWords } from './who-can-see';

/** What is written down when it changes: who may do and see what, what a school and its figures rest on, and who took these away. */
export const changeKinds = [
  'case manager',
  'member of the team',
  'invitation',
  'share link',
  'card',
  'visibility',
  'kept name',
  'plan',
  'goal',
  'student',
  'second observer',
  'school',
  'account',
  'sign-in',
  'file',
  'import',
  'destruction',
] as const;
export type ChangeKind = (typeof changeKinds)[number];

export const changeKindWords: Record<ChangeKind, string> = {
  'case manager': 'Case manager',
  'member of the team': 'Member of a team',
  invitation: 'Invitation',
  'share link': 'Share link',
  card: 'Card of a student',
  visibility: 'What each reader sees',
  'kept name': 'A name kept',
  plan: 'Plan and periods',
  goal: 'Goal without an entry',
  student: 'Student',
  'second observer': 'Second observer',
  school: 'School',
  account: 'Account',
  'sign-in': 'Sign-in',
  file: 'File downloaded',
  import: 'Import',
  destruction: 'Destroying a record',
};

/** How something was, or is: what is not there was not, or is not any more. */
export type State = Record<string, unknown> | null;

/** One thing that is not as it was. */
export interface ChangedField {
  label: string;
  before: string | null;
  after: string | null;
}

/** What the fields of a change are called; others as they are written. */
const labels: Record<string, string> = {
  endsOn: 'until',
  startsOn: 'from',
  readerName: 'reader',
  hasPasscode: 'passcode',
  isAdmin: 'administrator',
  isArchived: 'archived',
  firstName: 'first name',
  lastName: 'last name',
  shortName: 'short name',
  timeZone: 'time zone',
  idleMinutes: 'minutes until a sign-in ends',
  sharedIdleMinutes: 'minutes until a sign-in ends on a shared tablet',
  daysOnDevices: 'days that devices keep what they need without network',
  lockMinutes: 'minutes until a device locks itself',
  paper: 'paper of documents',
  asksSecondFactor: 'a code beside the password of who shares',
  codeBesidePassword: 'code beside the password',
  recoveryCode: 'recovery code',
  dailyLimit: 'messages a day',
  dayParts: 'parts of the day',
  locations: 'locations',
  setsUp: 'administrator',
};

/** What single values are called, by the field that holds them; others as they are written. */
const words: Record<string, Record<string, string>> = {
  role: roleWords,
  rights: grantedWords,
  kind: Object.fromEntries(Object.entries(readerWords).map(([kind, { label }]) => [kind, label])),
  frequency: frequencyWords,
};

/**
 * What is different between two states, field by field. Ids are for machines and left out; of what is new, so is what it has not.
 *
 * @example changedFields({ grade: '4' }, { grade: '5' }) // [{ label: 'grade', before: '4', after: '5' }]
 */
export function changedFields(before: State, after: State): ChangedField[] {
  const keys = [...new Set([...Object.keys(before ?? {}), ...Object.keys(after ?? {})])];
  const isOneSided = before === null || after === null;
  return keys.flatMap((key) => {
    if (isId(key)) return [];
    const [was, is] = [asText(before?.[key], key), asText(after?.[key], key)];
    const isNothing = isOneSided && (was ?? is) === 'no';
    return was === is || isNothing ? [] : [{ label: labels[key] ?? key, before: was, after: is }];
  });
}

const isId = (key: string) => /^id$|Id$/.test(key);

/** A value as a reader understands it; null where there is none. */
function asText(value: unknown, field: string): string | null {
  if (value === undefined || value === null || value === '') return null;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value))
    return value.length === 0 ? 'none' : value.map((one) => asText(one, field) ?? '').join(', ');
  if (typeof value === 'object') {
    // Of what is written down of changes only a rule has `shows`.
    if ('shows' in value) return ruleSaid(value as Omit<VisibilityRule, 'kind'>);
    const said = Object.entries(value).flatMap(([key, inside]) => (isId(key) ? [] : [asText(inside, key)]));
    return said.filter((text) => text !== null).join(' · ');
  }
  const text = String(value);
  return words[field]?.[text] ?? (isoDateField.safeParse(text).success ? longDate(text) : text);
}

const ruleSaid = ({ shows, layout, grouping, oldestFirst }: Omit<VisibilityRule, 'kind'>) =>
  `${shownWords({ shows })}. As ${layout}, ${grouping === 'none' ? 'in one list' : `by ${grouping}`}, ${oldestFirst ? 'oldest' : 'newest'} first`;

/** A change in one sentence’s length: “grade: 4 → 5; until: nothing → Jun 11”. */
export const changeSaid = (fields: readonly ChangedField[]): string =>
  fields.map(({ label, before, after }) => `${label}: ${before ?? 'nothing'} → ${after ?? 'nothing'}`).join('; ');

/** Which changes are looked at. */
export const changesWanted = z.object({
  kind: z.enum(changeKinds).optional().catch(undefined),
  /** Words of a student’s or a person’s name. */
  about: z.string().trim().max(100).default('').catch(''),
  from: isoDateField.optional().catch(undefined),
  to: isoDateField.optional().catch(undefined),
  page: z.coerce.number().int().min(1).default(1).catch(1),
});
export type ChangesWanted = z.infer<typeof changesWanted>;

interface Dated<Rule> {
  on: string;
  before: Record<string, Rule> | null;
  after: Record<string, Rule> | null;
}

/**
 * What stood at the end of a day: what the last change until then made of it; where there was none yet, what the first one after it
 * found; where nothing was ever changed, what stands now.
 *
 * @param changes  in order of time
 */
export function stateOn<Rule>(
  now: Record<string, Rule>,
  changes: readonly Dated<Rule>[],
  day: string,
): Record<string, Rule> {
  const last = changes.findLast(({ on }) => on <= day);
  if (last) return last.after ?? {};
  const next = changes[0];
  return next ? (next.before ?? {}) : now;
}
