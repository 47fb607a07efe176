import { longDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import type { ReportEntry } from '~/core/individual-report/report';
import { measureOf } from '~/core/measures/measure';
import { accountLetter } from '~/core/messages/account-letters';
import type { MessageKind } from '~/core/messages/message';
import { type FieldValues, fillIn, type MessageTemplate } from '~/core/messages/message-template';
import type { ReaderKind } from '~/core/sharing/reader-kind';
import { everything, type Shows, shownFields } from '~/core/sharing/visibility-rule';
import { type Goal, goalsOf, measureAt } from '../goals/goals';
import { entriesAsSeen } from '../individual-report/individual-report';
import { newAccountToken } from '../people/account-links';
import { hashToken, newToken } from '../people/tokens';
import type { Database } from '../platform/db/database';
import { existing } from '../platform/failures';
import type { School } from '../school/school';
import { newLink } from '../sharing/share-links';
import { visibilityRules } from '../sharing/visibility';
import type { StudentAccess } from '../students/access';
import { newInvitationLink } from '../students/invitations';
import { can } from '../students/rights';
import { caseManager, caseManagerOf } from '../students/students';
import { messageTemplates } from './message-templates';

/** A message about an account, which is about no student. */
export interface AccountMessage {
  id: string;
  accountLinkId: string;
  toName: string;
  toEmail: string;
  attempts: number;
}

/** A message as it is kept. */
export interface Message {
  id: string;
  kind: MessageKind;
  studentId: StudentAccess<'read'>;
  linkId: string | null;
  personId: string | null;
  invitationId: string | null;
  toName: string;
  toEmail: string;
  ownSubject: string | null;
  ownBody: string | null;
  attempts: number;
}

export interface Composed extends MessageTemplate {
  /** What is kept of it: the same without its links, which open doors. */
  kept: MessageTemplate;
  stopLink: string | null;
  /** Who answers come to: whoever sent it, else the case manager. Null where nobody is known. */
  replyTo: { name: string; address: string } | null;
}

/**
 * A message as it leaves: worded for its reader, with what this reader may see of the entries as they stand now.
 *
 * @returns null when nothing is left to say: the reader may not see the entries, or they were withdrawn
 */
export async function composeMessage(
  db: Database,
  message: Message,
  { school, publicUrl, now }: { school: School; publicUrl: string; now: Date },
): Promise<Composed | null> {
  const reader = await readerOf(db, message, wallTime(now, school.timeZone).on);
  if (!reader) return null;
  const entryIds = await db('message_entries').where({ message_id: message.id }).orderBy('position').pluck('entry_id');
  const about = await valuesFor(db, { ...message, entryIds }, reader, school);
  if (!about) return null;
  const because = await becauseSaid(db, message);
  if (!because) return null;
  const links = await makeLinks(db, message, publicUrl, now);
  const all = await messageTemplates(db, school.id);
  const usual = all[message.kind];
  const template = { subject: message.ownSubject ?? usual.subject, body: message.ownBody ?? usual.body };
  const filled = (values: FieldValues) => ({
    // What a field brings along must not begin another header.
    subject: fillIn(template.subject, values).replace(/\s+/g, ' '),
    body: fillIn(template.body, values),
  });
  return {
    ...filled({ ...because, ...about, ...links }),
    kept: filled({ ...because, ...about, link: '(the link)', stop: links.stop && '(the link)' }),
    stopLink: links.stop,
    replyTo: await senderOf(db, message),
  };
}

/**
 * A message about an account as it leaves, with the link that it is about.
 *
 * @returns null when the link was used, withdrawn, or is over
 */
export async function composeAccountMessage(
  db: Database,
  { accountLinkId, toName }: AccountMessage,
  { publicUrl, now }: { publicUrl: string; now: Date },
): Promise<Composed | null> {
  const about = await db('account_links as l')
    .join('schools as c', 'c.id', 'l.school_id')
    .leftJoin('people as p', 'p.id', 'l.made_by')
    .where({ 'l.id': accountLinkId, 'l.used_at': null, 'l.withdrawn_at': null })
    .where('l.ends_at', '>', now)
    .first('l.kind', 'c.name as school', 'p.name as sender', 'p.email as senderEmail');
  if (!about) return null;
  const { kind, school, sender, senderEmail } = about;
  const said = { reader: toName, sender: kind === 'email' ? null : sender, school };
  const link = `${publicUrl}/account/by/${await newAccountToken(db, accountLinkId)}`;
  return {
    ...accountLetter(kind, { ...said, link }),
    kept: accountLetter(kind, { ...said, link: '(the link)' }),
    stopLink: null,
    replyTo: said.sender && senderEmail ? { name: said.sender, address: senderEmail } : null,
  };
}

interface MessageReader {
  kind: ReaderKind;
  shows: Shows;
}

/** Who the message is for, as it is now; null when they may not read any more. */
async function readerOf(db: Database, message: Message, today: string): Promise<MessageReader | null> {
  if (message.invitationId) return { kind: 'team', shows: new Set() };
  // Of a student who has left nobody is told anything, also of what was made before.
  if (await db('students').where({ id: message.studentId }).whereNotNull('archived_at').first('id')) return null;
  const { rules } = await visibilityRules(db, message.studentId);
  if (message.linkId) {
    const link = await db('share_links').where({ id: message.linkId }).first();
    // Who has stopped messages gets none, of whatever kind, also of those that were made before.
    if (!link || link.withdrawn_at || link.stopped_at || link.ends_on < today) return null;
    const kind = link.kind as ReaderKind;
    return { kind, shows: shownFields(rules[kind].shows) };
  }
  if (message.personId === null) return null;
  const member = await db('team_members')
    .where({ student_id: message.studentId, person_id: message.personId })
    .where('from_date', '<=', today)
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .first('role', 'rights', 'stopped_at');
  if (!member || (member.stopped_at && message.kind !== 'locked')) return null;
  return { kind: 'team', shows: can(member, 'see') ? everything : shownFields(rules.team.shows) };
}

const TELLS_OF_ENTRIES: ReadonlySet<MessageKind> = new Set(['entry', 'digest', 'rule']);

/** Why there is a message: what its key names. Null where that is settled by now. */
async function becauseSaid(db: Database, { id, kind }: Pick<Message, 'id' | 'kind'>): Promise<FieldValues | null> {
  if (kind === 'rule') return firingSaid(db, id);
  if (kind !== 'reminder') return {};
  const row = await db('messages as m')
    .join('follow_ups as f', 'f.id', db.raw(`cast(split_part(m.key, ':', 2) as uuid)`))
    .where({ 'm.id': id, 'f.done_at': null })
    .first('f.what');
  return row ? { followUp: row.what } : null;
}

/** What a rule that was fulfilled is called, and the goal that it is about where that is no entry. */
async function firingSaid(db: Database, messageId: string): Promise<FieldValues> {
  const row = await db('messages as m')
    .join('rule_firings as f', 'f.id', db.raw(`cast(substring(m.key from 6) as uuid)`))
    .join('rule_versions as v', { 'v.rule_id': 'f.rule_id', 'v.version': 'f.version' })
    .leftJoin('goals as g', 'g.id', 'f.goal_id')
    .where({ 'm.id': messageId })
    .first('v.name', 'g.number', 'g.short_name');
  return { rule: row?.name ?? null, goal: row?.number ? `${row.number} · ${row.short_name}` : null };
}

/** What fills the fields of a template, without its links. */
export async function valuesFor(
  db: Database,
  { studentId, kind, entryIds, toName }: Pick<Message, 'studentId' | 'kind' | 'toName'> & { entryIds: string[] },
  reader: MessageReader,
  school: Pick<School, 'name'>,
): Promise<FieldValues | null> {
  const student = existing(await db('students').where({ id: studentId }).first('short_name'));
  const base = {
    student: student.short_name,
    reader: toName,
    sender: await caseManagerOf(db, studentId),
    school: school.name,
  };
  if (!TELLS_OF_ENTRIES.has(kind) || (kind === 'rule' && entryIds.length === 0)) return base;
  const goals = await goalsOf(db, [studentId]);
  const entries = await entriesAsSeen(db, studentId, goals, { ...reader, discreet: false }, entryIds, true);
  const first = entries[0];
  if (!first) return null;
  const lines = entries.map((entry) => `– ${longDate(entry.on)}, ${entry.title}: ${entry.sentence}`);
  if (kind === 'entry' && entries.length > 1) {
    // Several of one session: what is said of one stands in the place of it for each.
    const byGoal = [...entries].sort((a, b) => a.title.localeCompare(b.title, 'en', { numeric: true }));
    const each = byGoal.map((entry) =>
      [`– ${entry.title}: ${entry.sentence}`, entry.note].filter(Boolean).join('\n  '),
    );
    const { observer, on } = first;
    return { ...base, sentence: each.join('\n'), observer, day: longDate(on), entries: lines.join('\n') };
  }
  return {
    ...base,
    goal: first.title,
    sentence: first.sentence,
    percentage: figureOf(first, goals),
    note: first.note || null,
    observer: first.observer,
    day: longDate(first.on),
    entries: lines.join('\n'),
  };
}

/** The figure of an entry, where its reader is shown what it comes from. */
function figureOf(entry: ReportEntry, goals: readonly Goal[]): string | null {
  const goal = goals.find(({ id }) => id === entry.goalId);
  if (!goal || !entry.outcome?.data) return null;
  const measure = measureAt(goal, entry.goalVersion);
  const score = measureOf(measure).score(entry.outcome.data);
  return score.value === null ? null : measureOf(measure).said(score.value);
}

/** Where a message to somebody on the team leads. */
const pageFor: Partial<Record<MessageKind, string>> = {
  locked: 'sharing/links',
  rule: 'follow-ups',
  reminder: 'follow-ups',
};

/** Where in a report a message leads: what was issued opens at once. */
async function partOf(db: Database, { id, kind }: Pick<Message, 'id' | 'kind'>): Promise<string> {
  if (kind !== 'issued') return '';
  const { key } = existing(await db('messages').where({ id }).first('key'));
  const [, reportId] = key?.split(':') ?? [];
  return reportId ? `/issued/${reportId}` : '';
}

/** Who sent a message, with the address that answers go to: whoever made it, else the case manager. */
async function senderOf(db: Database, { id, studentId }: Pick<Message, 'id' | 'studentId'>) {
  const row = await db('people as p')
    .whereIn('p.id', db('messages').where({ id }).whereNotNull('made_by').select('made_by'))
    .first('p.name', 'p.email');
  const sender = row ?? (await caseManager(db, studentId));
  return sender ? { name: sender.name, address: sender.email } : null;
}

/** Links of this message’s own: what opens a door is made when it leaves, and only its hash is kept. */
async function makeLinks(db: Database, message: Message, publicUrl: string, now: Date) {
  const page = `${publicUrl}/students/${message.studentId}`;
  const link = message.invitationId
    ? `${publicUrl}/invited/${await newInvitationLink(db, message.invitationId)}`
    : message.linkId
      ? `${publicUrl}/shared/${await newLink(db, message.linkId, now)}${await partOf(db, message)}`
      : `${page}/${pageFor[message.kind] ?? 'individual-report'}`;
  if (message.invitationId || message.kind === 'locked') return { link, stop: null };
  const token = newToken();
  await db('message_stops').insert({ token_hash: hashToken(token), message_id: message.id });
  return { link, stop: `${publicUrl}/stop/${token}` };
}
