import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { countTry, uncountTry } from './attempts';
import { pinIsRight } from './pins';
import { beginSession } from './sessions';
import { hashToken, newToken } from './tokens';

/** A device that was opened for the staff of a school, or of one of its groups: each begins there with their name and PIN. */
export interface OpenedDevice {
  id: string;
  schoolId: string;
  groupId: string | null;
  /** The group, else the school. */
  name: string;
  openedBy: string;
}

/**
 * Opens a device for several adults.
 *
 * @returns its token, which its browser is to carry: the only time it is known
 * @throws NotFound for a group of another school
 */
export async function openDevice(
  db: Database,
  actor: Actor,
  { id, groupId }: { id: string; groupId: string | null },
  now: Date,
): Promise<string> {
  const group = groupId && (await db('class_groups').where({ id: groupId, school_id: actor.schoolId }).first('id'));
  if (groupId && !group) throw new NotFound('No such group.');
  const token = newToken();
  // Sent twice it is one device, with the token that came last; somebody else's is left alone.
  await db('opened_devices')
    .insert({
      ...{ id, school_id: actor.schoolId, group_id: groupId, token_hash: hashToken(token) },
      ...{ opened_by: actor.personId, opened_at: now },
    })
    .onConflict('id')
    .merge(['token_hash'])
    .where('opened_devices.opened_by', actor.personId);
  return token;
}

/** The device that carries this token; null where there is none, or it was closed. */
export async function openedDevice(db: Database, token: string): Promise<OpenedDevice | null> {
  const row = await db('opened_devices as d')
    .join('schools as s', 's.id', 'd.school_id')
    .leftJoin('class_groups as g', 'g.id', 'd.group_id')
    .where({ 'd.token_hash': hashToken(token), 'd.closed_at': null })
    .first<{ id: string; schoolId: string; groupId: string | null; school: string; group: string | null; by: string }>(
      ...['d.id', 'd.school_id as schoolId', 'd.group_id as groupId', 's.name as school', 'g.name as group'],
      'd.opened_by as by',
    );
  if (!row) return null;
  const { id, schoolId, groupId, school, group, by } = row;
  return { id, schoolId, groupId, name: group ?? school, openedBy: by };
}

const adultRow = z.object({ id: z.string(), name: z.string(), initials: z.string(), work: z.string() });
export type Adult = z.infer<typeof adultRow>;

/**
 * Who may begin at a device: those of its school's staff who have a PIN; of a group, who is on the team of one of its students, as far
 * as the one who opened it knows them. Ask as that one.
 */
export function adultsAt(db: Database, { schoolId, groupId }: OpenedDevice, today: IsoDate): Promise<Adult[]> {
  return rowsOf(
    db,
    adultRow,
    `select p.id, p.name, p.initials, p.work
       from school_staff a join people p on p.id = a.person_id
      where a.school_id = :schoolId and a.from_date <= :today and coalesce(a.until_date, 'infinity') >= :today
        and p.pin_hash is not null
        and (cast(:groupId as uuid) is null or exists (
          select from team_members m join student_groups g on g.student_id = m.student_id
           where m.person_id = p.id and g.group_id = :groupId
             and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today))
      order by p.name`,
    { schoolId, groupId, today },
  );
}

/**
 * Begins a sign-in at a device by a name that it offers and its PIN. Tries are counted for each person at each device: nobody is shut
 * out elsewhere by who guesses here. Ask as the one who opened the device.
 */
export async function beginAtDevice(
  db: Database,
  device: OpenedDevice,
  { personId, pin, today }: { personId: string; pin: string; today: IsoDate },
  now: Date,
): Promise<{ token: string } | { waitMinutes: number } | { wrong: true }> {
  const waitMinutes = await countTry(db, 'pin', device.id, personId);
  if (waitMinutes !== null) return { waitMinutes };
  const isOffered = (await adultsAt(db, device, today)).some(({ id }) => id === personId);
  if (!(await pinIsRight(db, personId, pin)) || !isOffered) return { wrong: true };
  await uncountTry(db, 'pin', device.id, personId);
  const token = await beginSession(db, personId, now, { isShared: true });
  await db('sign_in_sessions')
    .where({ token_hash: hashToken(token) })
    .update({ school_id: device.schoolId });
  return { token };
}

const listedRow = z.object({
  id: z.string(),
  name: z.string(),
  by: z.string(),
  openedAt: z.date(),
  isOwn: z.boolean(),
});

/** The devices of a school that are open, the newest first. */
export async function openDevices(db: Database, { schoolId, personId }: Actor) {
  return rowsOf(
    db,
    listedRow,
    `select d.id, coalesce(g.name, s.name) as name, p.short_name as by, d.opened_at as "openedAt",
            d.opened_by = :personId as "isOwn"
       from opened_devices d join schools s on s.id = d.school_id join people p on p.id = d.opened_by
            left join class_groups g on g.id = d.group_id
      where d.school_id = :schoolId and d.closed_at is null order by d.opened_at desc`,
    { schoolId, personId },
  );
}

/**
 * Closes a device: nobody begins there any more. Whoever is signed in there stays so, until they leave.
 *
 * @throws NotFound for another school's, and for who neither opened it nor is an administrator
 */
export async function closeDevice(
  db: Database,
  { schoolId, personId }: Actor,
  { id, isAdmin }: { id: string; isAdmin: boolean },
  now: Date,
): Promise<void> {
  const closed = await db('opened_devices')
    .where({ id, school_id: schoolId, ...(!isAdmin && { opened_by: personId }) })
    .update({ closed_at: now });
  if (closed === 0) throw new NotFound('No such device.');
}

/** The groups of a school, for one of which a device is opened. */
export const groupsAt = (db: Database, { schoolId }: Actor): Promise<{ id: string; name: string }[]> =>
  db('class_groups').where({ school_id: schoolId }).orderBy('position').select('id', 'name');
