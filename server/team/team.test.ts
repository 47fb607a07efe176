import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Granted } from '~/core/team/roles';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, type SmallSchool, smallSchool, today } from '~/tests/database/small-school';
import { Invalid, NotFound } from '../failures';
import { personByPassword } from '../people/people';
import { studentFor, studentsOf, studentTabs } from '../students/students';
import { acceptInvitation, findInvitation, invite, openInvitations, withdrawInvitation } from './invitations';
import { membersOf, peopleToAdd, saveMember } from './team';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});
const save = (changes: object = {}, person = school.manager) =>
  saveMember(
    fresh.db,
    actorOf(person),
    school.student,
    { personId: school.aide, role: 'paraprofessional', rights: ['observe'] as Granted[], from: today, ...changes },
    now,
  );

describe('a support team', () => {
  it('gives each member what they may do, and who may only read sees the report alone', async () => {
    await save({ rights: [] });
    await expect(studentFor(fresh.db, actorOf(school.aide), school.student, 'see')).rejects.toThrow(NotFound);
    expect((await studentFor(fresh.db, actorOf(school.aide), school.student, 'read')).id).toBe(school.student);
    expect(await studentsOf(fresh.db, actorOf(school.aide))).toEqual([]);
    expect(await studentTabs(fresh.db, actorOf(school.aide))).toHaveLength(1);
    await save({ rights: ['observe', 'share'] });
    await studentFor(fresh.db, actorOf(school.aide), school.student, 'share');
  });

  it('ends on its day; what was recorded stays', async () => {
    await save({ from: '2026-09-01', until: '2026-11-23' });
    await expect(studentFor(fresh.db, actorOf(school.aide), school.student, 'read')).rejects.toThrow(NotFound);
    const members = await membersOf(fresh.db, actorOf(school.manager), school.student);
    expect(members.map(({ id }) => id)).toEqual([school.manager, school.aide]);
    await save();
  });

  it('is the case manager’s to change, and the case manager is not changed here', async () => {
    await expect(save({}, school.aide)).rejects.toThrow(NotFound);
    await expect(save({ personId: school.manager })).rejects.toThrow(Invalid);
    await expect(save({ personId: randomUUID() })).rejects.toThrow(NotFound);
    const names = (await peopleToAdd(fresh.db, actorOf(school.manager), school.student)).map(({ name }) => name);
    expect(names).toEqual(['stranger']);
  });
});

describe('an invitation', () => {
  const input = (changes: object = {}) => ({
    ...{ id: randomUUID(), name: 'Odile Marchetti', email: 'odile@home.example', role: 'specialist' as const },
    ...{ rights: ['observe'] as Granted[], ...changes },
  });
  const send = (wanted: ReturnType<typeof input>, person = school.manager) =>
    invite(fresh.db, actorOf(person), school.student, wanted, now);
  const account = { name: 'Odile Marchetti', work: 'Evaluator', password: 'a long password', again: 'a long password' };
  const accept = (token: string, on = today) => acceptInvitation(fresh.db, token, account, { today: on, now });

  it('makes an account and a member, once', async () => {
    const wanted = input();
    const token = (await send(wanted)) as string;
    expect(await send(wanted)).toBeNull();
    expect(await findInvitation(fresh.db, token, today)).toMatchObject({ name: 'Odile Marchetti', hasAccount: false });
    const { personId, isNew } = await accept(token);
    expect(isNew).toBe(true);
    expect(await personByPassword(fresh.db, 'ODILE@home.example', 'a long password')).toMatchObject({
      ...{ id: personId, initials: 'OM', shortName: 'O. Marchetti', setsUp: false },
    });
    expect((await studentFor(fresh.db, actorOf(personId), school.student, 'observe')).role).toBe('specialist');
    await expect(accept(token)).rejects.toThrow(NotFound);
    await expect(send(input())).rejects.toThrow(Invalid);
  });

  it('is over after two weeks, or when it is taken back', async () => {
    const wanted = input({ email: 'late@home.example' });
    const token = (await send(wanted)) as string;
    expect(await findInvitation(fresh.db, token, '2026-12-08')).not.toBeNull();
    await expect(accept(token, '2026-12-09')).rejects.toThrow(NotFound);
    const open = () => openInvitations(fresh.db, actorOf(school.manager), school.student);
    expect(await open()).toHaveLength(1);
    await withdrawInvitation(fresh.db, actorOf(school.manager), school.student, wanted.id, now);
    expect(await open()).toEqual([]);
    await expect(accept(token)).rejects.toThrow(NotFound);
  });

  it('to somebody with an account only puts them on the team; only the case manager invites', async () => {
    const token = (await send(input({ email: 'stranger@school.example', rights: [] }))) as string;
    const { personId, isNew } = await acceptInvitation(fresh.db, token, null, { today, now });
    expect([personId, isNew]).toEqual([school.stranger, false]);
    await studentFor(fresh.db, actorOf(school.stranger), school.student, 'read');
    await expect(send(input({ email: 'other@home.example' }), school.aide)).rejects.toThrow(NotFound);
  });
});
