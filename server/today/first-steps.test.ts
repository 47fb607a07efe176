import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  wall,
} from '~/tests/database/small-school';
import { recordSession } from '../entries/record';
import { NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import { schoolBegun } from '../school/first-steps';
import { recordPages } from '../sharing/access-log';
import { personBegun } from './first-steps';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});

describe('first steps', () => {
  it('of a person are done by opening a student and by recording: one’s own, of students one may see', async () => {
    const { db } = fresh;
    const { aide, manager, student } = school;
    const begun = () => personBegun(db, actorOf(aide), [student]);
    expect(await begun()).toEqual({ opened: false, recorded: false });
    await recordPages(db, actorOf(manager), { studentId: student, how: 'opened' }, now);
    expect(await begun()).toEqual({ opened: false, recorded: false });
    await recordPages(db, actorOf(aide), { studentId: student, how: 'kept' }, now);
    expect(await begun()).toEqual({ opened: false, recorded: false });
    await recordPages(db, actorOf(aide), { studentId: student, how: 'opened' }, now);
    expect(await begun()).toEqual({ opened: true, recorded: false });
    const session = sessionOf(school, ['independent'], { observerId: aide });
    await recordSession(db, actorOf(aide), student, session as never, { wall, now });
    expect(await begun()).toEqual({ opened: true, recorded: true });
    expect(await personBegun(db, actorOf(aide), [])).toEqual({ opened: false, recorded: false });
  });

  it('of a school are told to its administrators only, and ticked one by one', async () => {
    const { db } = fresh;
    const { manager } = school;
    await expect(requireSchoolAdmin(db, actorOf(manager))).rejects.toThrow(NotFound);
    await makeAdmin(db, manager);
    const admin = await requireSchoolAdmin(db, actorOf(manager));
    expect(await schoolBegun(db, admin)).toEqual({ closures: false, locations: true, students: true, staff: true });
    await db('closures').insert({
      ...{ school_id: schoolId, first_day: '2026-12-21', last_day: '2027-01-01', label: 'Winter' },
    });
    expect((await schoolBegun(db, admin)).closures).toBe(true);
    // Another school’s lists say nothing of this one.
    const elsewhere = randomUUID();
    await db('schools').insert({ id: elsewhere, name: 'Elder Brook', time_zone: 'America/Chicago', weekdays: [1] });
    expect(await schoolBegun(db, { ...admin, schoolId: elsewhere })).toEqual({
      ...{ closures: false, locations: false, students: false, staff: false },
    });
  });
});
