import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { ADMIN_PIN_DIGITS } from '~/core/people/pin-input';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { NotAllowed, NotFound } from '../platform/failures';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { forgetPinTries, pinIsRight, tryPin } from './pins';
import { beginHalf, secondFactorOf } from './second-factor';
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

/** Whether somebody opens devices for the school: its administrators, and whom they let. Not who began with a PIN. */
export async function mayOpenDevices(db: Database, { personId, schoolId, today, isByPin }: Actor): Promise<boolean> {
  if (isByPin) return false;
  const row = await db('school_staff')
    .where({ school_id: schoolId, person_id: personId })
    .where((either) => either.where({ is_admin: true }).orWhere({ opens_devices: true }))
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .first('person_id');
  return row !== undefined;
}

/**
 * Opens a device for several adults.
 *
 * @returns its token, which its browser is to carry: the only time it is known
 * @throws NotAllowed for whom the school does not let; NotFound for a group of another school
 */
export async function openDevice(
  db: Database,
  actor: Actor,
  { id, groupId }: { id: string; groupId: string | null },
  now: Date,
): Promise<string> {
  if (!(await mayOpenDevices(db, actor)))
    throw new NotAllowed('An administrator of the school says who opens shared devices.');
  const group =
    groupId && (await db('class_groups').where({ id: groupId, school_id: actor.schoolId }).first('id', 'name'));
  if (groupId && !group) throw new NotFound('No such group.');
  const token = newToken();
  // Sent twice it is one device, with the token that came last; somebody else's is left alone.
  await db.transaction(async (trx) => {
    await trx('opened_devices')
      .insert({
        ...{ id, school_id: actor.schoolId, group_id: groupId, token_hash: hashToken(token) },
        ...{ opened_by: actor.personId, opened_at: now },
      })
      .onConflict('id')
      .merge(['token_hash'])
      .where('opened_devices.opened_by', actor.personId);
    const after = { sharedDevice: `opened for ${group ? group.name : 'all staff'}` };
    await writeChange(trx, actor.personId, { what: 'account', schoolId: actor.schoolId, before: null, after }, now);
  });
  return token;
}

/** Who has opened a device works at its school still, and may: `a` is their place on its staff, `s` the school. */
const OPENER_MAY = `(a.is_admin or a.opens_devices)
  and coalesce(a.until_date, 'infinity') >= cast(now() at time zone s.time_zone as date)`;

/** The device that carries this token; null where there is none, it was closed, or whoever opened it works here no longer, or may not any more. */
export async function openedDevice(db: Database, token: string): Promise<OpenedDevice | null> {
  const row = await db('opened_devices as d')
    .join('schools as s', 's.id', 'd.school_id')
    .leftJoin('class_groups as g', 'g.id', 'd.group_id')
    .join('school_staff as a', (on) => on.on('a.school_id', 'd.school_id').andOn('a.person_id', 'd.opened_by'))
    .where({ 'd.token_hash': hashToken(token), 'd.closed_at': null })
    .whereRaw(OPENER_MAY)
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
        and p.pin_hash is not null and (not a.is_admin or p.pin_digits >= ${ADMIN_PIN_DIGITS})
        and (cast(:groupId as uuid) is null or exists (
          select from team_members m join student_groups g on g.student_id = m.student_id
           where m.person_id = p.id and g.group_id = :groupId
             and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today))
      order by p.name`,
    { schoolId, groupId, today },
  );
}

export type DeviceAnswer =
  /** They are in, until they leave. */
  | { token: string }
  /** They have an authenticator, and have not typed its code here today: what waits for it. */
  | { half: string }
  | { waitMinutes: number | null }
  | { wrong: true }
  /** The school asks them for a second step that they have not set up. */
  | { needsPassword: true };

/**
 * Begins a sign-in at a device by a name that it offers and its PIN. Tries are counted for each person, on all devices together. A PIN is no
 * second step: who has an authenticator types its code once a day on each device. Ask as the one who opened the device.
 */
export async function beginAtDevice(
  db: Database,
  device: OpenedDevice,
  { personId, pin, today }: { personId: string; pin: string; today: IsoDate },
  now: Date,
): Promise<DeviceAnswer> {
  const isOffered = (await adultsAt(db, device, today)).some(({ id }) => id === personId);
  if (!isOffered) return { wrong: true };
  const open = await tryPin(db, personId, now);
  if (!open.isOpen) return { waitMinutes: open.waitMinutes };
  if (!(await pinIsRight(db, personId, pin))) return { wrong: true };
  await forgetPinTries(db, personId);
  const { isOn } = await secondFactorOf(db, personId);
  if (isOn) {
    const proven = await db('device_factors')
      .where({ device_id: device.id, person_id: personId, proven_on: today })
      .first();
    if (!proven) return { half: await beginHalf(db, personId, true, now, device.id) };
  } else if (await mustHaveFactor(db, device, personId, today)) return { needsPassword: true };
  return { token: await signInAt(db, device, personId, now) };
}

/** Whether the school asks somebody for a second step: its administrators, and who shares reports. */
async function mustHaveFactor(db: Database, { schoolId }: OpenedDevice, personId: string, today: IsoDate) {
  const [row] = await rowsOf(
    db,
    z.object({ must: z.boolean() }),
    `select c.asks_second_factor and (a.is_admin or shares_reports(a.person_id, c.id, :today)) as must
       from schools c join school_staff a on a.school_id = c.id and a.person_id = :personId where c.id = :schoolId`,
    { personId, schoolId, today },
  );
  return row?.must ?? false;
}

/** Begins the session of somebody at a device; it opens nothing of the school. */
async function signInAt(
  db: Database,
  device: Pick<OpenedDevice, 'id' | 'schoolId'>,
  personId: string,
  now: Date,
): Promise<string> {
  const token = await beginSession(db, personId, now, { isShared: true });
  await db('sign_in_sessions')
    .where({ token_hash: hashToken(token) })
    .update({ school_id: device.schoolId, device_id: device.id });
  return token;
}

/** The same once the code of their authenticator was typed, which is good for the day on this device. */
export async function signInAtWithCode(
  db: Database,
  { deviceId, personId, today }: { deviceId: string; personId: string; today: IsoDate },
  now: Date,
): Promise<string> {
  const device = await db('opened_devices').where({ id: deviceId, closed_at: null }).first('id', 'school_id');
  if (!device) throw new NotFound('No such device.');
  await db('device_factors')
    .insert({ device_id: deviceId, person_id: personId, proven_on: today })
    .onConflict(['device_id', 'person_id'])
    .merge();
  return signInAt(db, { id: device.id, schoolId: device.school_id }, personId, now);
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
            join school_staff a on a.school_id = d.school_id and a.person_id = d.opened_by
      where d.school_id = :schoolId and d.closed_at is null and ${OPENER_MAY} order by d.opened_at desc`,
    { schoolId, personId },
  );
}

/**
 * Closes a device: nobody begins there any more, and whoever is signed in there is out.
 *
 * @throws NotFound for another school's, and for who neither opened it nor is an administrator
 */
export async function closeDevice(
  db: Database,
  { schoolId, personId }: Actor,
  { id, isAdmin }: { id: string; isAdmin: boolean },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const closed = await trx('opened_devices')
      .where({ id, school_id: schoolId, closed_at: null, ...(!isAdmin && { opened_by: personId }) })
      .update({ closed_at: now });
    if (closed === 0) throw new NotFound('No such device.');
    await trx('sign_in_sessions').where({ device_id: id }).delete();
    const [before, after] = [{ sharedDevice: 'open' }, { sharedDevice: 'closed' }];
    await writeChange(trx, personId, { what: 'account', schoolId, before, after }, now);
  });
}

/** The groups of a school, for one of which a device is opened. */
export const groupsAt = (db: Database, { schoolId }: Actor): Promise<{ id: string; name: string }[]> =>
  db('class_groups').where({ school_id: schoolId }).orderBy('position').select('id', 'name');
