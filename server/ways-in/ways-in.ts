import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import type { ReaderSees } from '~/core/report/report';
import type { WayInInput } from '~/core/ways-in/way-in';
import { hashToken, newToken } from '../access/tokens';
import type { Database } from '../db/database';
import { Invalid, NotFound } from '../failures';
import { type Actor, studentFor } from '../students/students';

export const LONGEST_WAY_IN_DAYS = 400;

export interface WayIn {
  id: string;
  readerName: string;
  showsNotes: boolean;
  showsObservers: boolean;
  showsBehavior: boolean;
  endsOn: IsoDate;
  createdByName: string;
  createdAt: Date;
  withdrawnAt: Date | null;
  openings: number;
  lastReadAt: Date | null;
}

/** All ways into a student's report, open ones first. For whom may share. */
export async function waysInto(db: Database, actor: Actor, studentId: string): Promise<WayIn[]> {
  await studentFor(db, actor, studentId, 'share');
  const found = await db.raw<{ rows: WayIn[] }>(
    `select l.id, l.reader_name as "readerName", l.shows_notes as "showsNotes", l.shows_observers as "showsObservers",
            l.shows_behavior as "showsBehavior",
            l.ends_on as "endsOn", p.short_name as "createdByName", l.created_at as "createdAt",
            l.withdrawn_at as "withdrawnAt", coalesce(o.n, 0)::int as openings, o.last as "lastReadAt"
       from share_links l join people p on p.id = l.created_by
       left join (select link_id, count(*) as n, max(opened_at) as last from share_link_openings group by link_id) o
         on o.link_id = l.id
      where l.student_id = :studentId
      order by l.withdrawn_at is not null, l.ends_on < :today, l.created_at desc`,
    { studentId, today: actor.today },
  );
  return found.rows;
}

/**
 * Makes a way in. Its token is returned once and only its hash is kept.
 *
 * @returns the token; null when the same submission arrives again, since it cannot be told a second time
 * @throws NotFound for whom may not share; Invalid for an end that is past or too far
 */
export async function makeWayIn(
  db: Database,
  actor: Actor,
  studentId: string,
  input: WayInInput,
  now: Date,
): Promise<string | null> {
  await studentFor(db, actor, studentId, 'share');
  if (input.endsOn < actor.today) throw new Invalid({ endsOn: 'Choose today or a later day.' });
  if (input.endsOn > addDays(actor.today, LONGEST_WAY_IN_DAYS)) {
    throw new Invalid({ endsOn: 'A way in lasts a school year at most. It can be made anew.' });
  }
  const token = newToken();
  const written = await db('share_links')
    .insert({
      id: input.id,
      student_id: studentId,
      reader_name: input.readerName,
      token_hash: hashToken(token),
      shows_notes: input.showsNotes,
      shows_observers: input.showsObservers,
      shows_behavior: input.showsBehavior,
      ends_on: input.endsOn,
      created_by: actor.personId,
      created_at: now,
    })
    .onConflict('id')
    .ignore()
    .returning('id');
  return written.length === 1 ? token : null;
}

/** Withdraws a way in; it stays listed with its openings. Withdrawing twice changes nothing. */
export async function withdrawWayIn(
  db: Database,
  actor: Actor,
  studentId: string,
  id: string,
  now: Date,
): Promise<void> {
  await studentFor(db, actor, studentId, 'share');
  const link = await db('share_links').where({ id, student_id: studentId }).first('id');
  if (!link) throw new NotFound('No such way in.');
  await db('share_links')
    .where({ id })
    .whereNull('withdrawn_at')
    .update({ withdrawn_at: now, withdrawn_by: actor.personId });
}

export interface OpenedWayIn {
  studentId: string;
  firstName: string;
  shortName: string;
  readerName: string;
  endsOn: IsoDate;
  sees: ReaderSees;
}

/** Opens a way in and logs it; null when there is none, it has ended or was withdrawn: these look the same. */
export async function openWayIn(db: Database, token: string, today: IsoDate, now: Date): Promise<OpenedWayIn | null> {
  return db.transaction(async (trx) => {
    const link = await trx('share_links as l')
      .join('students as s', 's.id', 'l.student_id')
      .where({ 'l.token_hash': hashToken(token), 'l.withdrawn_at': null, 's.archived_at': null })
      .where('l.ends_on', '>=', today)
      .first('l.*', 's.first_name', 's.short_name');
    if (!link) return null;
    await trx('share_link_openings').insert({ link_id: link.id, opened_at: now });
    return {
      studentId: link.student_id,
      firstName: link.first_name,
      shortName: link.short_name,
      readerName: link.reader_name,
      endsOn: link.ends_on,
      sees: { notes: link.shows_notes, observers: link.shows_observers, behavior: link.shows_behavior },
    };
  });
}
