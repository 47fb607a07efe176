// What is written down when it changes, and who may read it.
import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import type { ChangeKind } from '~/core/sharing/change';
import { carefulRules } from '~/core/sharing/visibility-rule';
import { asPerson } from '~/tests/database/as-person';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addStudent,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { markPair, unmarkPair } from '../entries/pairs';
import { recordSession } from '../entries/record';
import { setFrequency } from '../messages/frequency';
import { beginSession, endAllSessions } from '../people/sessions';
import { NotFound } from '../platform/failures';
import { letNamesStand } from '../sharing/other-children';
import { makeShareLink, tryPasscode, unlockShareLink, withdrawShareLink } from '../sharing/share-links';
import { saveVisibilityRules, visibilityRulesOn } from '../sharing/visibility';
import { acceptInvitation, invite, newInvitationLink, withdrawInvitation } from '../students/invitations';
import { savePlan } from '../students/plan';
import { editStudent, addStudent as enrol, setArchived } from '../students/roster';
import { membersOn, saveMember } from '../students/team';
import { requireSchoolAdmin } from './administrators';
import { changesOf } from './changes';
import { saveSchool, schoolInForm } from './set-up';

const fresh = freshDatabase();
let school: SmallSchool;
const manager = () => actorOf(school.manager);
const admin = () => actorOf(school.stranger);
const asAdmin = () => requireSchoolAdmin(fresh.db, admin());
const on = (day: string) => new Date(`${day}T15:00:00Z`);

beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await makeAdmin(fresh.db, school.stranger);
});

/** The newest change of a kind, as an administrator reads it. */
async function newest(kind: ChangeKind) {
  const { changes } = await changesOf(fresh.db, await asAdmin(), {
    kind,
    about: '',
    page: 1,
  });
  return changes[0];
}

describe('written down with before and after', () => {
  it('are who is on a team and what they may do', async () => {
    const member = { personId: school.aide, role: 'paraprofessional' as const, from: '2026-09-01' };
    await saveMember(fresh.db, manager(), school.student, { ...member, rights: ['observe', 'share'] }, now);
    expect(await newest('member of the team')).toMatchObject({
      ...{ at: now, by: 'manager', student: 'Ada Example', person: 'aide' },
      before: { name: 'aide', rights: null },
      after: { name: 'aide', rights: ['observe', 'share'] },
    });
    // What is as it was is no change.
    await saveMember(fresh.db, manager(), school.student, { ...member, rights: ['observe', 'share'] }, now);
    const { total } = await changesOf(fresh.db, await asAdmin(), {
      kind: 'member of the team',
      about: '',
      page: 1,
    });
    expect(total).toBe(1);
  });

  it('are invitations, and what became of them', async () => {
    const wanted = { id: randomUUID(), name: 'Odile', email: 'o@home.example', role: 'educator' as const, rights: [] };
    await invite(fresh.db, manager(), school.student, wanted, { now, readsOut: false });
    expect(await newest('invitation')).toMatchObject({
      before: null,
      after: { email: 'o@home.example', state: 'open' },
    });
    await withdrawInvitation(fresh.db, manager(), school.student, wanted.id, now);
    expect(await newest('invitation')).toMatchObject({ before: { state: 'open' }, after: { state: 'withdrawn' } });
    const again = { ...wanted, id: randomUUID() };
    await invite(fresh.db, manager(), school.student, again, { now, readsOut: false });
    const door = { token: await newInvitationLink(fresh.db, again.id) };
    const account = {
      name: 'Odile Marchetti',
      work: 'Speech',
      password: 'four odd kettles sing',
      again: 'four odd kettles sing',
    };
    await acceptInvitation(fresh.db, door, { account, actor: null }, { today, now });
    expect(await newest('invitation')).toMatchObject({ by: 'Odile Marchetti', after: { state: 'accepted' } });
    expect(await newest('account')).toMatchObject({
      before: null,
      after: { name: 'Odile Marchetti', email: 'o@home.example' },
    });
    expect(await newest('member of the team')).toMatchObject({ before: null, after: { name: 'Odile Marchetti' } });
  });

  it('are share links: made, frequency, locked by a reader, unlocked, withdrawn', async () => {
    const way = {
      id: randomUUID(),
      readerName: 'Aunt Ida',
      kind: 'family' as const,
      endsOn: '2026-12-31',
      passcode: 'six plums',
    };
    await makeShareLink(fresh.db, manager(), school.student, way, now);
    expect(await newest('share link')).toMatchObject({
      before: null,
      after: { readerName: 'Aunt Ida', purpose: 'To follow their child’s progress', hasPasscode: true },
    });
    expect(JSON.stringify(await newest('share link'))).not.toContain('plums');
    await setFrequency(
      fresh.db,
      manager(),
      school.student,
      { id: way.id, email: 'ida@home.example', frequency: 'daily' },
      now,
    );
    expect(await newest('share link')).toMatchObject({ before: { email: null }, after: { frequency: 'daily' } });
    for (let i = 0; i < 8; i++) await tryPasscode(fresh.db, way.id, 'wrong', new Date(now.getTime() + i * 3_600_000));
    expect(await newest('share link')).toMatchObject({ by: null, before: { locked: false }, after: { locked: true } });
    await unlockShareLink(fresh.db, manager(), school.student, way.id, now);
    await withdrawShareLink(fresh.db, manager(), school.student, way.id, now);
    expect(await newest('share link')).toMatchObject({ before: { withdrawn: false }, after: { withdrawn: true } });
  });

  it('are plans with their periods, and a school with its closures', async () => {
    const plan = { startsOn: '2026-09-08', endsOn: '2027-06-11', periods: [{ label: 'Winter', endsOn: '2026-12-04' }] };
    await savePlan(fresh.db, manager(), school.student, plan, { newId: randomUUID(), now });
    await savePlan(fresh.db, manager(), school.student, { ...plan, periods: [] }, { newId: randomUUID(), now });
    expect(await newest('plan')).toMatchObject({ before: { periods: [{ label: 'Winter' }] }, after: { periods: [] } });
    const before = await schoolInForm(fresh.db, await asAdmin());
    const closures = [{ first: '2026-11-26', last: '2026-11-27', label: 'Thanksgiving' }];
    await saveSchool(fresh.db, await asAdmin(), { ...before, closures }, now);
    expect(await newest('school')).toMatchObject({ student: null, before: { closures: [] }, after: { closures } });
  });

  it('are names on the roster, and who is taken off it', async () => {
    const input = {
      ...{ id: randomUUID(), firstName: 'Cleo', lastName: 'Vance', grade: 'Grade 3', groupIds: [] },
      ...{ caseManagerId: school.manager, isSomeoneElse: false },
    };
    await enrol(fresh.db, await asAdmin(), input, now);
    await editStudent(fresh.db, admin(), { ...input, firstName: 'Chloe' }, now);
    expect(await newest('student')).toMatchObject({ before: { firstName: 'Cleo' }, after: { firstName: 'Chloe' } });
    await setArchived(fresh.db, await asAdmin(), { studentId: input.id, isArchived: true }, now);
    expect(await newest('student')).toMatchObject({ before: { isArchived: false }, after: { isArchived: true } });
    expect(await newest('case manager')).toMatchObject({ before: null, after: { name: 'manager' } });
  });

  it('are pairs of observers, and names that are kept', async () => {
    const session = (observerId: string) => sessionOf(school, ['independent'], { observerId });
    const record = async (observer: string) =>
      (await recordSession(fresh.db, actorOf(observer), school.student, session(observer), { wall, now }))
        .ids[0] as string;
    const [entryId, otherId] = [await record(school.manager), await record(school.aide)];
    await markPair(fresh.db, manager(), { studentId: school.student, entryId, otherId }, now);
    expect(await newest('second observer')).toMatchObject({
      before: null,
      after: { firstId: entryId, secondId: otherId },
    });
    await unmarkPair(fresh.db, manager(), { studentId: school.student, entryId }, now);
    expect(await newest('second observer')).toMatchObject({ before: { secondId: otherId }, after: null });
    await letNamesStand(fresh.db, manager(), school.student, { entryId, version: 1 }, now);
    await letNamesStand(fresh.db, manager(), school.student, { entryId, version: 1 }, now);
    expect(await newest('kept name')).toMatchObject({ before: null, after: { entryId, entry: today, version: 1 } });
  });

  it('are sign-ins', async () => {
    await beginSession(fresh.db, school.aide, now, { isShared: true });
    expect(await newest('sign-in')).toMatchObject({ person: 'aide', by: 'aide', after: { device: 'a shared tablet' } });
    await endAllSessions(fresh.db, school.aide, now);
    expect(await newest('sign-in')).toMatchObject({ after: { everywhere: 'signed out' } });
  });
});

describe('what a family could see on a day', () => {
  const shows = (fields: 'numbers' | 'note', more: object = {}) => ({
    ...carefulRules,
    family: {
      ...carefulRules.family,
      shows: fields === 'note' ? (['numbers', 'note'] as const).slice() : (['numbers'] as const).slice(),
      ...more,
    },
  });
  const familyOn = async (day: string) =>
    (await visibilityRulesOn(fresh.db, manager(), school.student, { day, timeZone: 'America/New_York' })).family.shows;

  it('is told by what was written down: the student’s own rules, and the school’s where there were none', async () => {
    const usual = [...carefulRules.family.shows];
    expect(await familyOn('2026-10-01')).toEqual(usual);
    await saveVisibilityRules(fresh.db, admin(), null, shows('numbers'), on('2026-10-05'));
    await saveVisibilityRules(fresh.db, manager(), school.student, shows('note'), on('2026-10-20'));
    await saveVisibilityRules(fresh.db, manager(), school.student, shows('numbers'), on('2026-11-10'));
    expect(await familyOn('2026-10-04')).toEqual(usual);
    expect(await familyOn('2026-10-05')).toEqual(['numbers']);
    expect(await familyOn('2026-10-31')).toEqual(['numbers', 'note']);
    expect(await familyOn('2026-11-09')).toEqual(['numbers', 'note']);
    expect(await familyOn('2026-11-10')).toEqual(['numbers']);
    expect(await newest('visibility')).toMatchObject({ student: 'Ada Example', by: 'manager' });
  });

  it('goes with who was on the team that day', async () => {
    const names = async (day: string) =>
      (await membersOn(fresh.db, manager(), school.student, day)).map(({ name }) => name);
    expect(await names('2026-08-31')).toEqual([]);
    expect(await names('2026-09-01')).toEqual(['manager', 'aide']);
    await expect(membersOn(fresh.db, admin(), school.student, today)).rejects.toThrow(NotFound);
  });
});

describe('the list of changes', () => {
  const wanted = { about: '', page: 1 };
  it('is for administrators of that school', async () => {
    await expect(
      requireSchoolAdmin(fresh.db, manager()).then((admin) => changesOf(fresh.db, admin, wanted)),
    ).rejects.toThrow(NotFound);
    const elsewhere = randomUUID();
    await fresh.db('schools').insert({ id: elsewhere, name: 'Elder Brook', time_zone: 'UTC', weekdays: [1] });
    await expect(
      requireSchoolAdmin(fresh.db, { ...admin(), schoolId: elsewhere }).then((admin) =>
        changesOf(fresh.db, admin, wanted),
      ),
    ).rejects.toThrow(NotFound);
    await fresh
      .db('school_staff')
      .insert({ school_id: elsewhere, person_id: school.stranger, is_admin: true, from_date: today });
    expect(
      await changesOf(fresh.db, await requireSchoolAdmin(fresh.db, { ...admin(), schoolId: elsewhere }), wanted),
    ).toEqual({ changes: [], total: 0 });
  });

  it('tells of a person’s account at each school that they work at, and of a student at theirs alone', async () => {
    const [elsewhere] = await fresh.db('schools').where({ name: 'Elder Brook' }).pluck('id');
    const there = { ...admin(), schoolId: elsewhere ?? '' };
    await beginSession(fresh.db, school.stranger, now);
    for (const who of [admin(), there]) {
      const { changes } = await changesOf(fresh.db, await requireSchoolAdmin(fresh.db, who), {
        kind: 'sign-in',
        about: 'stranger',
        page: 1,
      });
      expect(changes[0]).toMatchObject({ what: 'sign-in', person: 'stranger', at: now });
    }
    await fresh
      .db('school_staff')
      .where({ school_id: elsewhere })
      .update({ from_date: '2026-09-01', until_date: '2026-11-23' });
    const { total } = await changesOf(fresh.db, await asAdmin(), {
      kind: 'sign-in',
      about: 'stranger',
      page: 1,
    });
    await beginSession(fresh.db, school.stranger, now);
    const written = await fresh.db('changes').where({ person_id: school.stranger, what: 'sign-in' });
    expect(written.filter(({ school_id }) => school_id === elsewhere)).toHaveLength(1);
    expect(written).toHaveLength(total + 2);
  });

  it('is found by name, kind and day, and comes in pages', async () => {
    const all = await changesOf(fresh.db, await asAdmin(), { ...wanted, page: null });
    expect(all.total).toBe(all.changes.length);
    expect(all.changes.map(({ id }) => Number(id))).toEqual(
      all.changes.map(({ id }) => Number(id)).toSorted((a, b) => b - a),
    );
    const about = await changesOf(fresh.db, await asAdmin(), { ...wanted, about: 'CHLOE' });
    expect(about.total).toBeGreaterThan(1);
    expect(about.changes.every(({ student }) => student === 'Chloe Vance')).toBe(true);
    const october = await changesOf(fresh.db, await asAdmin(), {
      ...wanted,
      from: '2026-10-01',
      to: '2026-10-31',
    });
    expect(october.changes.map(({ what }) => what)).toEqual(['visibility', 'visibility']);
    expect((await changesOf(fresh.db, await asAdmin(), { ...wanted, page: 9 })).changes).toEqual([]);
    // What is asked for is a value, never a pattern.
    expect((await changesOf(fresh.db, await asAdmin(), { ...wanted, about: '%' })).total).toBe(0);
  });

  it('is shown by the database to administrators only; what is of a student, to their team too', async () => {
    await addStudent(fresh.db, 'Dot', [[school.stranger, 'caseManager']]);
    const seen = (person: string) =>
      asPerson(fresh.db, person, async (trx) => {
        await trx.raw('set local role gentle_margin_app');
        return (await trx('changes').distinct('what').pluck('what')) as string[];
      });
    expect(await seen(school.stranger)).toContain('sign-in');
    expect(await seen(school.manager)).not.toContain('sign-in');
    expect(await seen(school.manager)).toContain('plan');
  });

  it('belongs to the student’s school', async () => {
    expect(new Set(await fresh.db('changes').whereNotNull('student_id').pluck('school_id'))).toEqual(
      new Set([schoolId]),
    );
  });
});
