import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addPerson,
  addStudent,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
} from '~/tests/database/small-school';
import { beginSession, resumeSession } from '../people/sessions';
import { Invalid, NotFound } from '../platform/failures';
import { requireSchoolAdmin, type SchoolAdmin } from '../school/administrators';
import { acceptInvitation, invite } from './invitations';
import { deactivate, endSignIns, reactivate, setAdministrator, staffOfSchool, takeBackJoin } from './staff';
import { studentsOf } from './students';

const fresh = freshDatabase();
let school: SmallSchool;
let admin: SchoolAdmin;
let head: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  head = await addPerson(fresh.db, 'Head of school');
  await makeAdmin(fresh.db, head);
  admin = await requireSchoolAdmin(fresh.db, actorOf(head));
});

/** Somebody who works at the school, and is the case manager of a student and on the team of another. */
async function leaver(name: string) {
  const id = await addPerson(fresh.db, name);
  await fresh.db('people').where({ id }).update({ email_proven_at: now });
  await fresh
    .db('school_staff')
    .insert({ school_id: schoolId, person_id: id, from_date: '2026-09-01' })
    .onConflict()
    .ignore();
  const student = await addStudent(fresh.db, name, [
    [id, 'caseManager'],
    [school.aide, 'educator'],
  ]);
  return { id, student };
}
const member = async (id: string) => (await staffOfSchool(fresh.db, admin)).find((one) => one.id === id)!;

describe('the people of a school', () => {
  it('are listed with what they have to do, and nothing of what they observed', async () => {
    const { id } = await leaver('Tove');
    expect(await member(id)).toMatchObject({ manages: 1, teams: 0, sessions: 0, isAdmin: false, isOver: false });
    await beginSession(fresh.db, id, now);
    expect(await member(id)).toMatchObject({ sessions: 1, lastSeen: now, hasSecondFactor: false });
    await endSignIns(fresh.db, admin, id, now);
    expect((await member(id)).sessions).toBe(0);
    await expect(endSignIns(fresh.db, admin, randomUUID(), now)).rejects.toThrow(NotFound);
  });

  it('have an administrator at all times', async () => {
    await expect(setAdministrator(fresh.db, admin, { personId: head, isAdmin: false }, now)).rejects.toThrow(Invalid);
    await setAdministrator(fresh.db, admin, { personId: school.aide, isAdmin: true }, now);
    await setAdministrator(fresh.db, admin, { personId: school.aide, isAdmin: false }, now);
    await expect(deactivate(fresh.db, admin, { personId: head, to: null }, now)).rejects.toThrow(Invalid);
    const { what, after } = (await fresh.db('changes').orderBy('id', 'desc').first('what', 'after'))!;
    expect([what, after]).toEqual(['account', { isAdmin: false }]);
  });
});

describe('whoever leaves', () => {
  it('hands their students on in the same step; their sign-ins end, and they see nobody any more', async () => {
    const { id, student } = await leaver('Una');
    const token = await beginSession(fresh.db, id, now);
    const end = (to: string | null) => deactivate(fresh.db, admin, { personId: id, to }, now);
    await expect(end(null)).rejects.toMatchObject({ fields: { to: expect.any(String) } });
    await expect(end(id)).rejects.toThrow(Invalid);
    // Refused, nothing is half done.
    expect(await resumeSession(fresh.db, token, now)).not.toBeNull();
    await end(school.manager);
    expect(await resumeSession(fresh.db, token, now)).toBeNull();
    expect(await studentsOf(fresh.db, actorOf(id))).toEqual([]);
    const now_ = await studentsOf(fresh.db, actorOf(school.manager));
    expect(now_.find((one) => one.id === student)?.role).toBe('caseManager');
    expect(await member(id)).toMatchObject({ isOver: true, until: '2026-11-23', manages: 0 });
    await expect(end(school.manager)).rejects.toThrow(NotFound);
    await reactivate(fresh.db, admin, id, now);
    expect(await member(id)).toMatchObject({ isOver: false, until: null, manages: 0, teams: 0 });
  });

  it('comes back by an administrator, and by no team; what they were asked before is over', async () => {
    const { id, student } = await leaver('Vera');
    const { email } = (await fresh.db('people').where({ id }).first('email'))!;
    const ask = (about: string) => ({
      ...{ id: randomUUID(), name: 'Vera', email, role: 'educator' as const, rights: [], until: undefined },
      about,
    });
    const asked = { now, readsOut: true };
    const token = await invite(fresh.db, actorOf(school.manager), school.student, ask('before'), asked);
    await deactivate(fresh.db, admin, { personId: id, to: school.manager }, now);
    const take = acceptInvitation(
      fresh.db,
      { token: token ?? '' },
      { account: null, actor: actorOf(id) },
      { today, now },
    );
    await expect(take).rejects.toThrow(NotFound);
    await expect(invite(fresh.db, actorOf(school.manager), student, ask('after'), asked)).rejects.toMatchObject({
      fields: { email: expect.stringContaining('has left this school') },
    });
  });

  it('on the day they began has not been here', async () => {
    const id = await addPerson(fresh.db, 'Wim');
    await fresh
      .db('school_staff')
      .insert({ school_id: schoolId, person_id: id, from_date: today })
      .onConflict(['school_id', 'person_id'])
      .merge();
    await deactivate(fresh.db, admin, { personId: id, to: null }, now);
    expect(await member(id)).toMatchObject({ isOver: true, from: '2026-11-23', until: '2026-11-23' });
  });

  it('is of one school: an administrator of another finds nobody', async () => {
    await expect(takeBackJoin(fresh.db, admin, randomUUID(), now)).rejects.toThrow(NotFound);
    await expect(requireSchoolAdmin(fresh.db, actorOf(school.stranger))).rejects.toThrow(NotFound);
  });
});
