import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, type SmallSchool, schoolId, smallSchool, today } from '~/tests/database/small-school';
import { incidentsAcross } from '../behavior/behavior';
import { Invalid, NotFound } from '../platform/failures';
import { absencesOf, daysAway, recordAbsence, withdrawAbsence } from './absences';
import { studentTabs } from './students';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await fresh.db('closures').insert({
    ...{ school_id: schoolId, first_day: '2026-11-11', last_day: '2026-11-11', label: 'Staff day' },
  });
});

const record = (from: string, to: string, by = school.aide) =>
  recordAbsence(fresh.db, actorOf(by), school.student, { from, to }, now);
const days = async () => (await absencesOf(fresh.db, school.student)).map(({ day }) => day);

describe('days away', () => {
  it('are the school days of a stretch, each once, with who says so', async () => {
    // Monday to the Monday after: without the weekend and the closure of Wednesday.
    expect(await record('2026-11-09', '2026-11-16')).toBe(5);
    expect(await record('2026-11-13', '2026-11-17', school.manager)).toBe(3);
    expect(await days()).toEqual(['2026-11-17', '2026-11-16', '2026-11-13', '2026-11-12', '2026-11-10', '2026-11-09']);
    expect((await absencesOf(fresh.db, school.student)).map(({ recordedBy }) => recordedBy)).toEqual([
      ...['manager', 'aide', 'aide', 'aide', 'aide', 'aide'],
    ]);
  });

  it('are told at their field where they cannot be, and are nobody’s to write who may not observe', async () => {
    await expect(record('2026-11-14', '2026-11-15')).rejects.toThrow(
      new Invalid({ from: 'There was no school then.' }),
    );
    await expect(record(today, '2026-12-01')).rejects.toThrow(Invalid);
    await expect(record('2026-01-05', '2026-06-01')).rejects.toThrow(Invalid);
    await expect(record('2026-11-02', '2026-11-02', school.stranger)).rejects.toThrow(NotFound);
  });

  it('are withdrawn and may be written again; what was written stays', async () => {
    await withdrawAbsence(fresh.db, actorOf(school.aide), school.student, '2026-11-17', now);
    expect(await days()).not.toContain('2026-11-17');
    await record('2026-11-17', '2026-11-17');
    expect(await days()).toContain('2026-11-17');
    expect(await fresh.db('absences').where({ day: '2026-11-17' }).select('id')).toHaveLength(2);
  });

  it('leave nothing due on them, and come with a student’s behavior', async () => {
    const due = async () => (await studentTabs(fresh.db, actorOf(school.manager)))[0]?.goals.length;
    expect(await due()).toBe(1);
    await record(today, today);
    expect(await due()).toBe(0);
    expect((await daysAway(fresh.db, [school.student])).get(school.student)).toContain(today);
    // Nothing is followed of this student, so there is nothing to compare.
    expect(await incidentsAcross(fresh.db, [school.student], { discreet: false })).toEqual([]);
  });
});
