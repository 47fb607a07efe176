import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Granted } from '~/core/students/roles';
import { asPerson } from '~/tests/database/as-person';
import { freshDatabase } from '~/tests/database/fresh';
import { rewriting } from '~/tests/database/rewriting';
import {
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { recordSession } from '../entries/record';
import { personByPassword } from '../people/people';
import { beginSession } from '../people/sessions';
import { Invalid, NotAllowed, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import {
  acceptInvitation,
  declineInvitation,
  findInvitation,
  invitationsTo,
  invite,
  newInvitationLink,
  openInvitations,
  withdrawInvitation,
} from './invitations';
import { requireStudent, studentsOf, studentTabs } from './students';
import { membersOf, peopleToAdd, saveMember, setOwnStart } from './team';

const fresh = freshDatabase();
const invitedTo = (person: string) => asPerson(fresh.db, person, (trx) => invitationsTo(trx, actorOf(person)));
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
    await expect(requireStudent(fresh.db, actorOf(school.aide), school.student, 'see')).rejects.toThrow(NotFound);
    expect((await requireStudent(fresh.db, actorOf(school.aide), school.student, 'read')).id).toBe(school.student);
    expect(await studentsOf(fresh.db, actorOf(school.aide))).toEqual([]);
    expect(await studentTabs(fresh.db, actorOf(school.aide))).toHaveLength(1);
    await save({ rights: ['observe', 'share'] });
    await requireStudent(fresh.db, actorOf(school.aide), school.student, 'share');
  });

  it('takes somebody who comes on several teams in one step, and leaves those alone where they are already', async () => {
    const [first, second] = [
      await addStudent(fresh.db, 'Flo', [[school.manager, 'caseManager']]),
      await addStudent(fresh.db, 'Gus', [
        [school.manager, 'caseManager'],
        [school.aide, 'educator'],
      ]),
    ];
    const input = { personId: school.aide, role: 'specialist' as const, rights: [], from: today, until: undefined };
    await saveMember(fresh.db, actorOf(school.manager), first, { ...input, alsoOf: [second] }, now);
    const roleOn = async (student: string) =>
      (await membersOf(fresh.db, actorOf(school.manager), student)).find(({ id }) => id === school.aide)?.role;
    expect([await roleOn(first), await roleOn(second)]).toEqual(['specialist', 'educator']);
    // Of a student who is not theirs nothing is done, for any.
    const third = await addStudent(fresh.db, 'Hal', [[school.aide, 'caseManager']]);
    const fourth = await addStudent(fresh.db, 'Ike', [[school.manager, 'caseManager']]);
    await expect(
      saveMember(fresh.db, actorOf(school.manager), fourth, { ...input, alsoOf: [third] }, now),
    ).rejects.toThrow(NotFound);
    expect(await roleOn(fourth)).toBeUndefined();
  });

  it('ends on its day; what was recorded stays', async () => {
    await save({ from: '2026-09-01', until: '2026-11-23' });
    await expect(requireStudent(fresh.db, actorOf(school.aide), school.student, 'read')).rejects.toThrow(NotFound);
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
    invite(fresh.db, actorOf(person), school.student, wanted, { now, readsOut: true });
  const account = {
    name: 'Odile Marchetti',
    work: 'Evaluator',
    password: 'four odd kettles sing',
    again: 'four odd kettles sing',
  };
  const accept = (token: string, on = today, actor: Actor | null = null, own: typeof account | null = account) =>
    acceptInvitation(fresh.db, { token }, { account: own, actor }, { today: on, now });
  /** The link as it goes out in the message. */
  const mailed = ({ id }: { id: string }) => newInvitationLink(fresh.db, id);

  it('makes an account and a member, once', async () => {
    const wanted = input();
    const token = (await send(wanted)) as string;
    expect(await send(wanted)).toBeNull();
    expect(await findInvitation(fresh.db, token, today)).toMatchObject({ name: 'Odile Marchetti', accountId: null });
    const { personId, isNew } = await accept(token);
    expect(isNew).toBe(true);
    expect(await personByPassword(fresh.db, 'ODILE@home.example', 'four odd kettles sing')).toMatchObject({
      ...{ id: personId, initials: 'OM', shortName: 'O. Marchetti' },
    });
    expect((await requireStudent(fresh.db, actorOf(personId), school.student, 'observe')).role).toBe('specialist');
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
    // The address alone makes nobody its owner: they sign in first.
    await expect(accept(token)).rejects.toThrow(NotAllowed);
    await expect(accept(token, today, actorOf(school.aide))).rejects.toThrow(NotAllowed);
    const { personId, isNew } = await accept(token, today, actorOf(school.stranger), null);
    expect([personId, isNew]).toEqual([school.stranger, false]);
    await requireStudent(fresh.db, actorOf(school.stranger), school.student, 'read');
    await expect(send(input({ email: 'other@home.example' }), school.aide)).rejects.toThrow(NotFound);
  });

  it('gives the one who invites no hold on somebody else’s account', async () => {
    // Without a mail server the link is read out, and whoever invites could open it themself.
    const wanted = input({ email: 'victim@home.example', name: 'Vera Victim' });
    const readOut = (await send(wanted)) as string;
    const { personId } = await accept(readOut);
    expect(await personByPassword(fresh.db, wanted.email, account.password)).toMatchObject({ id: personId });
    await beginSession(fresh.db, personId, now);

    // Nobody finds that account among the people of the school, nor puts it on a team.
    const other = await addStudent(fresh.db, 'Ben', [[school.aide, 'caseManager']]);
    expect((await peopleToAdd(fresh.db, actorOf(school.aide), other)).map(({ id }) => id)).not.toContain(personId);
    const member = { personId, role: 'educator' as const, rights: [], from: today };
    await expect(saveMember(fresh.db, actorOf(school.aide), other, member, now)).rejects.toThrow(Invalid);

    // Another case manager invites the same address: what is in the mailbox opens, the first password does not.
    const again = input({ email: 'victim@home.example' });
    await invite(fresh.db, actorOf(school.aide), other, again, { now, readsOut: false });
    expect(await invitedTo(personId)).toEqual([]);
    await expect(accept(again.id, today, actorOf(personId))).rejects.toThrow(NotFound);
    const own = { ...account, password: 'seven blue lamps hum', again: 'seven blue lamps hum' };
    await accept(await mailed(again), today, null, own);
    expect(await personByPassword(fresh.db, wanted.email, account.password)).toBeNull();
    expect(await personByPassword(fresh.db, wanted.email, 'seven blue lamps hum')).toMatchObject({ id: personId });
    expect(await fresh.db('sign_in_sessions').where({ person_id: personId })).toEqual([]);
    await requireStudent(fresh.db, actorOf(personId), other, 'read');
  });

  it('goes by message alone where mail leaves', async () => {
    const wanted = input({ email: 'by-mail@home.example' });
    expect(
      await invite(fresh.db, actorOf(school.manager), school.student, wanted, { now, readsOut: false }),
    ).toBeNull();
    expect(await fresh.db('invitation_tokens').where({ invitation_id: wanted.id })).toEqual([]);
    const { personId } = await accept(await mailed(wanted));
    expect((await fresh.db('people').where({ id: personId }).first())!.email_proven_at).toEqual(now);
  });

  it('is seen by whom it is for, who may decline; the one who invited sees that', async () => {
    const other = await addStudent(fresh.db, 'Cleo', [[school.manager, 'caseManager']]);
    const wanted = input({ email: 'STRANGER@school.example' });
    await invite(fresh.db, actorOf(school.manager), other, wanted, { now, readsOut: false });
    expect(await invitedTo(school.stranger)).toMatchObject([{ id: wanted.id }]);
    expect(await invitedTo(school.aide)).toEqual([]);
    const decline = (person: string) =>
      asPerson(fresh.db, person, (trx) => declineInvitation(trx, { id: wanted.id }, actorOf(person), { today, now }));
    await expect(decline(school.aide)).rejects.toThrow(NotFound);
    await decline(school.stranger);
    expect(await invitedTo(school.stranger)).toEqual([]);
    expect(await openInvitations(fresh.db, actorOf(school.manager), other)).toMatchObject([{ declinedAt: now }]);
    await expect(accept(await mailed(wanted), today, actorOf(school.stranger), null)).rejects.toThrow(NotFound);
  });
});

describe('since when', () => {
  it('the case manager says for themself, and enters what was seen from the plan’s start on', async () => {
    const student = await addStudent(fresh.db, 'Dot', [[school.manager, 'caseManager']]);
    await fresh.db('team_members').where({ student_id: student }).update({ from_date: '2026-11-20' });
    const goal = await addGoal(fresh.db, student);
    await fresh
      .db('plans')
      .insert({ id: randomUUID(), student_id: student, starts_on: '2026-09-08', ends_on: '2027-06-11' });
    const record = (on: string) =>
      recordSession(
        fresh.db,
        actorOf(school.manager),
        student,
        {
          ...{ on, time: '09:00', observerId: school.manager, locationId: null },
          entries: [
            { id: randomUUID(), goalId: goal, outcome: { data: { trials: ['independent'] }, reason: null }, note: '' },
          ],
        },
        { wall, now },
      );
    await record('2026-09-10');
    await rewriting(fresh.db, (trx) => trx('plans').where({ student_id: student }).delete());
    await expect(record('2026-09-10')).rejects.toThrow(Invalid);
    const begin = (from: string, person = school.manager) => setOwnStart(fresh.db, actorOf(person), student, from, now);
    await expect(begin('2026-09-01', school.aide)).rejects.toThrow(NotFound);
    await expect(begin('2026-11-25')).rejects.toThrow(Invalid);
    await begin('2026-09-01');
    await record('2026-09-10');
    const [written] = await fresh.db('changes').where({ student_id: student });
    expect(written).toMatchObject({ before: { from: '2026-11-20' }, after: { from: '2026-09-01' } });
  });
});
