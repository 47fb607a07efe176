import { randomUUID } from 'node:crypto';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type ManagerFacts, managerOverview } from '~/core/today/overview';
import { freshDatabase } from '~/tests/database/fresh';
import { fillSmall } from '~/tests/database/small-data';
import {
  actorOf,
  addPerson,
  addStudent,
  makeAdmin,
  type SmallSchool,
  schoolId,
  today,
} from '~/tests/database/small-school';
import { tell } from '../platform/db/asking';
import { connect, type Database } from '../platform/db/database';
import { NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import { schoolOf } from '../school/school';
import { schoolOverview } from './overview';

const fresh = freshDatabase();
let school: SmallSchool;
let head: string;
let app: Database;
beforeAll(async () => {
  school = await fillSmall(fresh.db);
  head = await addPerson(fresh.db, 'head');
  await makeAdmin(fresh.db, head);
  app = connect(fresh.url, { poolSize: 1, as: 'app' });
});
afterAll(() => app.destroy());

const overview = (personId: string, folder?: string) =>
  app.transaction(async (trx) => {
    await tell(trx, { personId, today });
    const admin = await requireSchoolAdmin(trx, actorOf(personId));
    return schoolOverview(trx, admin, { school: await schoolOf(trx, schoolId), folder });
  });

describe('the overview of a school', () => {
  it('counts by case manager, for administrators, who see no entry by it', async () => {
    await expect(overview(school.manager)).rejects.toThrow(NotFound);
    const { managers, accounts, hasNightly } = await overview(head);
    expect(managers).toEqual([
      {
        ...{ id: school.manager, name: 'manager', students: 1, goals: 1, quiet: 0, longest: 0, never: 0 },
        // Quarter 1 ends on Dec 4, and its report was issued already.
        ...{ reports: { due: 0, late: 0, issued: 1 }, plansEnding: 0, withoutPlan: 0, agreement: 0, fidelity: null },
      },
    ]);
    expect(accounts).toEqual({ all: 4, withoutSecondFactor: 4 });
    expect(hasNightly).toBe(false);
    const asHead = await app.transaction(async (trx) => {
      await tell(trx, { personId: head, today });
      return trx('entries').select('id');
    });
    expect(asHead).toEqual([]);
    // Whoever asks the database by themselves is told nothing.
    const asManager = await app.transaction(async (trx) => {
      await tell(trx, { personId: school.manager, today });
      return trx.raw<{ rows: unknown[] }>('select * from school_in_numbers(?, ?, ?)', [schoolId, today, today]);
    });
    expect(asManager.rows).toEqual([]);
  });

  it('counts a report that nobody issued as late when its plan has ended too, until the next one has begun', async () => {
    const late = await addPerson(fresh.db, 'late');
    const student = await addStudent(fresh.db, 'Una', [[late, 'caseManager']]);
    const plan = async (startsOn: string, endsOn: string) => {
      const id = randomUUID();
      await fresh.db('plans').insert({ id, student_id: student, starts_on: startsOn, ends_on: endsOn });
      await fresh.db('reporting_periods').insert({ plan_id: id, label: 'Fall', ends_on: endsOn });
    };
    const counted = async () => (await overview(head)).managers.find(({ id }) => id === late);
    await plan('2026-08-03', '2026-11-13');
    expect(await counted()).toMatchObject({ reports: { due: 0, late: 1, issued: 0 }, withoutPlan: 1 });
    await plan('2026-11-16', '2027-11-12');
    expect(await counted()).toMatchObject({ reports: { due: 0, late: 0, issued: 0 }, withoutPlan: 0 });
    await fresh.db('students').where({ id: student }).update({ archived_at: new Date() });
  });

  it('counts a second observer’s record, what was done of a support, and a student without a case manager', async () => {
    const [first] = await fresh.db('entries').where({ kind: 'goal', withdrawn: false }).orderBy('observed_on').limit(1);
    const { id: _, ...row } = first!;
    const second = { ...row, id: randomUUID(), observer_id: school.aide, recorded_by: school.aide };
    const paired = { pairs_with: first!.id, paired_by: school.aide, paired_at: new Date(), version: 1 };
    const json = { data: JSON.stringify(row.data), changed_by: null, changed_at: null, change_reason: null };
    await fresh.db('entries').insert({ ...second, ...paired, ...json, fidelity: null });
    const steps = JSON.stringify([{ key: 'card', label: 'Card on the bench' }]);
    await fresh.db('goal_phases').insert({
      ...{ goal_id: school.goal, label: 'With the card', starts_on: '2026-09-08', is_baseline: false, steps },
    });
    await fresh.db('team_members').where({ role: 'caseManager' }).update({ role: 'educator' });
    const { managers } = await overview(head);
    // Two sessions count, one of them with a second observer, and of one it was said what was done of the support.
    expect(managers).toMatchObject([{ id: null, name: null, students: 1, agreement: 50, fidelity: 50 }]);
  });

  it('knows the newest nightly copy', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'gm-nights-'));
    expect(await overview(head, folder)).toMatchObject({ hasNightly: true, newestBackup: null });
    await writeFile(join(folder, 'gentle-margin-night-2026-11-23.dump'), '');
    expect((await overview(head, folder)).newestBackup).toBe('2026-11-23');
    await rm(folder, { recursive: true });
  });
});

describe('what stands open with a case manager', () => {
  const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [] };
  const nothing: ManagerFacts = {
    ...{ students: 0, goals: [], periods: [], planEnds: [], withoutPlan: 0 },
    ...{ sessions: 0, paired: 0, supported: 0, told: 0 },
  };
  const of = (facts: Partial<ManagerFacts>) => managerOverview({ ...nothing, ...facts }, { calendar, today });

  it('is quiet beyond what is planned, late when a period is over, and blank where there is nothing to share', () => {
    const goal = { startsOn: '2026-09-08', plannedGap: 5 };
    const goals = [
      { ...goal, lastOn: today },
      { ...goal, lastOn: '2026-11-02' },
      { ...goal, lastOn: null },
    ];
    const { quiet, never, longest } = of({ goals });
    expect([quiet, never]).toEqual([2, 1]);
    // From September 8 on, today too: 56 weekdays.
    expect(longest).toBe(56);
    const periods = [
      { endsOn: '2026-11-20', isIssued: false },
      { endsOn: '2026-11-20', isIssued: true },
      { endsOn: today, isIssued: false },
      { endsOn: '2026-12-24', isIssued: false },
      { endsOn: '2026-12-25', isIssued: false },
    ];
    expect(of({ periods }).reports).toEqual({ due: 2, late: 1, issued: 1 });
    expect(of({ planEnds: ['2027-01-23', '2027-01-24'] }).plansEnding).toBe(1);
    expect(of({ sessions: 10, paired: 2 })).toMatchObject({ agreement: 20, fidelity: null });
  });
});
