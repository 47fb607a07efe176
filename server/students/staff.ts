import { z } from 'zod';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import type { JoinInput } from '~/core/people/account-input';
import { ADMIN_PIN_DIGITS } from '~/core/people/pin-input';
import { makeAccountLink, withdrawLinks } from '../people/account-links';
import { forgetPinTries, removePin } from '../people/pins';
import { removeSecondFactor } from '../people/second-factor';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, Invalid, NotFound } from '../platform/failures';
import type { SchoolAdmin } from '../school/administrators';
import { writeChange } from '../school/changes';
import { setCaseManager } from './roster';

const staffRow = z.object({
  id: z.string(),
  name: z.string(),
  work: z.string(),
  email: z.string(),
  isAdmin: z.boolean(),
  from: z.string(),
  /** The last day; null while nobody has ended it. */
  until: z.string().nullable(),
  isOver: z.boolean(),
  isProven: z.boolean(),
  /** Of how many students they are the case manager, and on how many teams besides. */
  manages: z.number(),
  teams: z.number(),
  sessions: z.number(),
  lastSeen: z.date().nullable(),
  hasSecondFactor: z.boolean(),
  /** Whether they open devices for several adults; administrators do. */
  opensDevices: z.boolean(),
  /** Whether so many wrong PINs were tried that theirs opens nothing any more. */
  isPinLocked: z.boolean(),
});
export type StaffMember = z.infer<typeof staffRow>;

/** Everybody who works at a school, or has; those who do first. Nothing of what they observed. */
export const staffOfSchool = (db: Database, { schoolId, today }: SchoolAdmin): Promise<StaffMember[]> =>
  rowsOf(
    db,
    staffRow,
    `select p.id, p.name, p.work, p.email, a.is_admin as "isAdmin", a.from_date as "from", a.until_date as "until",
            coalesce(a.until_date, 'infinity') < :today as "isOver", p.email_proven_at is not null as "isProven",
            t.manages, t.teams, s.sessions, s.seen as "lastSeen",
            exists (select from second_factors f where f.person_id = p.id and f.confirmed_at is not null) as "hasSecondFactor",
            a.is_admin or a.opens_devices as "opensDevices", p.pin_locked_at is not null as "isPinLocked"
       from school_staff a join people p on p.id = a.person_id
            cross join lateral (
              select count(*) filter (where m.role = 'caseManager')::int as manages,
                     count(*) filter (where m.role <> 'caseManager')::int as teams
                from team_members m join students k on k.id = m.student_id and k.school_id = a.school_id and k.archived_at is null
               where m.person_id = p.id and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today) t
            cross join lateral (
              select count(*)::int as sessions, max(seen_at) as seen from sign_in_sessions i where i.person_id = p.id) s
      where a.school_id = :schoolId
      order by coalesce(a.until_date, 'infinity') < :today, p.name`,
    { schoolId, today },
  );

const openJoinRow = z.object({
  id: z.string(),
  name: z.string(),
  email: z.string(),
  isAdmin: z.boolean(),
  endsAt: z.date(),
});

/** Who was asked to join a school and has not answered yet. */
export const openJoins = (db: Database, { schoolId }: SchoolAdmin, now: Date) =>
  rowsOf(
    db,
    openJoinRow,
    `select id, name, email, is_admin as "isAdmin", ends_at as "endsAt" from account_links
      where school_id = :schoolId and kind = 'join' and used_at is null and withdrawn_at is null and ends_at > :now
      order by made_at desc`,
    { schoolId, now },
  );

interface Moment {
  now: Date;
  readsOut: boolean;
}

/**
 * Asks somebody to join the school's staff. A message brings the link; asked twice with one id, it is asked once.
 *
 * @returns a code to pass on, where no mail leaves
 * @throws Invalid when they work here already
 */
export async function askToJoin(
  db: Database,
  { personId, schoolId, today }: SchoolAdmin,
  { id, name, email, isAdmin }: JoinInput,
  moment: Moment,
): Promise<string | null> {
  const there = await db('people as p')
    .join('school_staff as a', 'a.person_id', 'p.id')
    .where({ 'a.school_id': schoolId })
    .whereRaw('lower(p.email) = lower(?)', [email])
    .whereRaw(`coalesce(a.until_date, 'infinity') >= ?`, [today])
    .first('p.name');
  if (there) throw new Invalid({ email: `${there.name} works here already.` });
  return db.transaction(async (trx) => {
    const known = await trx('account_links').where({ id }).first('id');
    if (known) return null;
    await withdrawLinks(trx, { kind: 'join', school_id: schoolId, email }, moment.now);
    const link = { id, kind: 'join', schoolId, personId: null, name, email, isAdmin, madeBy: personId } as const;
    const after = { name, email, isAdmin, state: 'asked to join' };
    await writeChange(trx, personId, { what: 'account', schoolId, before: null, after }, moment.now);
    return makeAccountLink(trx, link, moment);
  });
}

/** Takes the asking back; its link opens nothing any more. */
export async function takeBackJoin(db: Database, { personId, schoolId }: SchoolAdmin, id: string, now: Date) {
  await db.transaction(async (trx) => {
    const row = await trx('account_links').where({ id, school_id: schoolId, kind: 'join' }).forUpdate().first();
    if (!row) throw new NotFound('Nobody was asked.');
    if (row.used_at || row.withdrawn_at) return;
    await trx('account_links').where({ id }).update({ withdrawn_at: now });
    const said = { name: row.name, email: row.email };
    const change = { before: { ...said, state: 'asked to join' }, after: { ...said, state: 'taken back' } };
    await writeChange(trx, personId, { what: 'account', schoolId, ...change }, now);
  });
}

/** Somebody of the school, locked. @throws NotFound for somebody who does not work there, or no longer */
async function workingHere(db: Database, { schoolId, today }: SchoolAdmin, personId: string) {
  const row = await db('school_staff as a')
    .join('people as p', 'p.id', 'a.person_id')
    .where({ 'a.school_id': schoolId, 'a.person_id': personId })
    .forUpdate()
    .first('a.is_admin', 'a.from_date', 'a.until_date', 'p.name', 'p.email', 'p.email_proven_at');
  if (!row || (row.until_date ?? today) < today) throw new NotFound('Nobody works here by this name.');
  return row;
}

/** @throws Invalid where nobody would be left who administers the school */
async function expectAnotherAdmin(db: Database, { schoolId, today }: SchoolAdmin, personId: string): Promise<void> {
  const other = await db('school_staff')
    .where({ school_id: schoolId, is_admin: true })
    .whereNot({ person_id: personId })
    .where('from_date', '<=', today)
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .forUpdate()
    .first('person_id');
  if (!other)
    throw new Invalid({ personId: 'Nobody else administers this school: make somebody else an administrator first.' });
}

/**
 * Makes somebody an administrator, or no longer.
 *
 * @throws NotFound; Invalid for the last one
 */
export async function setAdministrator(
  db: Database,
  admin: SchoolAdmin,
  { personId, isAdmin }: { personId: string; isAdmin: boolean },
  now: Date,
): Promise<void> {
  const { schoolId } = admin;
  await db.transaction(async (trx) => {
    const before = await workingHere(trx, admin, personId);
    if (!isAdmin) await expectAnotherAdmin(trx, admin, personId);
    await trx('school_staff').where({ school_id: schoolId, person_id: personId }).update({ is_admin: isAdmin });
    // Whoever sets up the school has a longer PIN: they choose one.
    const { pin_digits } = existing(await trx('people').where({ id: personId }).first('pin_digits'));
    if (isAdmin && (pin_digits ?? 0) < ADMIN_PIN_DIGITS) await removePin(trx, personId);
    const change = { before: { isAdmin: before.is_admin }, after: { isAdmin } };
    await writeChange(trx, admin.personId, { what: 'account', schoolId, personId, ...change }, now);
  });
}

/**
 * Ends somebody's work at the school at once: their students go to another case manager in the same step, they leave all teams, their
 * sign-ins end. What they recorded stays theirs.
 *
 * @param to  who has their students from now on; null where they have none
 * @throws NotFound; Invalid for oneself, the last administrator, and while students would be left without a case manager
 */
export async function deactivate(
  db: Database,
  admin: SchoolAdmin,
  { personId, to }: { personId: string; to: string | null },
  now: Date,
): Promise<void> {
  const { schoolId, today } = admin;
  if (personId === admin.personId) throw new Invalid({ personId: 'Somebody else has to end your work here.' });
  await db.transaction(async (trx) => {
    const row = await workingHere(trx, admin, personId);
    await expectAnotherAdmin(trx, admin, personId);
    const students = trx('students').where({ school_id: schoolId }).select('id');
    const managed: string[] = await trx('team_members')
      .where({ person_id: personId, role: 'caseManager' })
      .whereIn('student_id', students.clone())
      .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
      .distinct()
      .pluck('student_id');
    if (managed.length > 0 && (to === null || to === personId)) {
      throw new Invalid({ to: 'Choose who has their students from now on.' });
    }
    for (const id of managed) {
      if (to) await setCaseManager(trx, { id, caseManagerId: to }, admin, { now, isNew: false });
    }
    const theirs = () => trx('team_members').where({ person_id: personId }).whereIn('student_id', students.clone());
    // What begins today, or later, has not been; what began before ended with yesterday.
    await theirs().where('from_date', '>=', today).delete();
    const changed = { changed_by: admin.personId, changed_at: now };
    await theirs()
      .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
      .update({ until_date: yesterday(today), ...changed });
    await trx('school_staff')
      .where({ school_id: schoolId, person_id: personId })
      .update({
        ...{ is_admin: false, until_date: yesterday(today) },
        from_date: row.from_date < today ? row.from_date : yesterday(today),
      });
    await trx('sign_in_sessions').where({ person_id: personId }).delete();
    // Devices that they had opened end with their work.
    const devices = trx('opened_devices').where({ school_id: schoolId, opened_by: personId });
    await trx('sign_in_sessions').whereIn('device_id', devices.clone().select('id')).delete();
    await devices.where({ closed_at: null }).update({ closed_at: now });
    await trx('invitations')
      .whereRaw('lower(email) = lower(?)', [row.email])
      .whereIn('student_id', students.clone())
      .where({ accepted_at: null, withdrawn_at: null, declined_at: null })
      .update({ withdrawn_at: now });
    const after = { name: row.name, state: 'ended', students: managed.length };
    const change = { before: { name: row.name, state: 'works here', students: managed.length }, after };
    await writeChange(trx, admin.personId, { what: 'account', schoolId, personId, ...change }, now);
  });
}

const yesterday = (today: IsoDate) => addDays(today, -1);

/** Brings somebody back whose work here had ended. Their teams ask them again. */
export async function reactivate(db: Database, admin: SchoolAdmin, personId: string, now: Date): Promise<void> {
  const { schoolId, today } = admin;
  await db.transaction(async (trx) => {
    const row = await trx('school_staff').where({ school_id: schoolId, person_id: personId }).forUpdate().first();
    if (!row) throw new NotFound('Nobody by this name has worked here.');
    if (row.until_date === null || row.until_date >= today) return;
    await trx('school_staff').where({ school_id: schoolId, person_id: personId }).update({ until_date: null });
    const change = { before: { state: 'ended' }, after: { state: 'works here' } };
    await writeChange(trx, admin.personId, { what: 'account', schoolId, personId, ...change }, now);
  });
}

/** Lets somebody open devices for several adults, or no longer: those that they have opened are closed then. @throws NotFound */
export async function letOpenDevices(
  db: Database,
  admin: SchoolAdmin,
  { personId, may }: { personId: string; may: boolean },
  now: Date,
): Promise<void> {
  const { schoolId } = admin;
  await db.transaction(async (trx) => {
    await workingHere(trx, admin, personId);
    const row = () => trx('school_staff').where({ school_id: schoolId, person_id: personId });
    const { opens_devices } = existing(await row().first('opens_devices'));
    await row().update({ opens_devices: may });
    const change = { before: { opensDevices: opens_devices }, after: { opensDevices: may } };
    await writeChange(trx, admin.personId, { what: 'account', schoolId, personId, ...change }, now);
  });
}

/** Lifts the lock of somebody's PIN, at which too many wrong ones were tried. @throws NotFound */
export async function liftPinLock(db: Database, admin: SchoolAdmin, personId: string, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    await workingHere(trx, admin, personId);
    await forgetPinTries(trx, personId);
    const change = { before: { pin: 'locked' }, after: { pin: 'open' } };
    await writeChange(trx, admin.personId, { what: 'sign-in', schoolId: admin.schoolId, personId, ...change }, now);
  });
}

/** Ends all sign-ins of somebody of the school. @throws NotFound */
export async function endSignIns(db: Database, admin: SchoolAdmin, personId: string, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    await workingHere(trx, admin, personId);
    await trx('sign_in_sessions').where({ person_id: personId }).delete();
    await trx('half_sign_ins').where({ person_id: personId }).delete();
    const after = { everywhere: 'signed out' };
    await writeChange(
      trx,
      admin.personId,
      { what: 'sign-in', schoolId: admin.schoolId, personId, before: null, after },
      now,
    );
  });
}

/**
 * Sends somebody of the school a link to choose a new password; where no mail leaves, a code is told instead, good for an hour.
 *
 * @param forgetsFactor  whether their authenticator is taken out of use too, which they have lost
 * @returns the code; null where a message brings a link
 * @throws NotFound; Invalid for somebody who works at another school too, which would have to agree
 */
export async function letChoosePassword(
  db: Database,
  admin: SchoolAdmin,
  { personId, forgetsFactor }: { personId: string; forgetsFactor: boolean },
  moment: Moment,
): Promise<string | null> {
  const { schoolId, today } = admin;
  // Who is signed in is not asked again here, and would be under Account.
  if (personId === admin.personId) throw new Invalid({ personId: 'Change your own password under Account.' });
  return db.transaction(async (trx) => {
    const { name, email } = await workingHere(trx, admin, personId);
    const elsewhere = await trx('school_staff')
      .where({ person_id: personId })
      .whereNot({ school_id: schoolId })
      .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
      .first('school_id');
    if (elsewhere && (moment.readsOut || forgetsFactor)) {
      throw new Invalid({
        personId: `${name} works at another school too: only they themselves choose a password, by a message.`,
      });
    }
    await withdrawLinks(trx, { kind: 'password', person_id: personId }, moment.now);
    if (forgetsFactor) await removeSecondFactor(trx, personId, admin.personId, moment.now);
    const after = { password: moment.readsOut ? 'a code was told' : 'a link was sent' };
    await writeChange(trx, admin.personId, { what: 'account', schoolId, personId, before: null, after }, moment.now);
    const link = { kind: 'password', schoolId, personId, name, email, madeBy: admin.personId } as const;
    return makeAccountLink(trx, link, moment);
  });
}
