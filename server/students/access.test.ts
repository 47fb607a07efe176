import { beforeAll, describe, expect, it } from 'vitest';
import { choicesOf } from '~/server/entries/incidents/choices';
import { goalsOf } from '~/server/goals/goals';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, addStudent, type SmallSchool, smallSchool } from '~/tests/database/small-school';
import { grant, type StudentAccess } from './access';
import { requireStudent, studentsOf } from './students';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});

describe('access to a student', () => {
  it('is what every query takes in place of an id: without a check it does not compile', async () => {
    const id: string = await addStudent(fresh.db, 'Cleo', []);
    // @ts-expect-error an id from an address is no access
    expect(await choicesOf(fresh.db, id)).toEqual([]);
    // @ts-expect-error nor is one among several
    expect(await goalsOf(fresh.db, [id])).toEqual([]);
    // @ts-expect-error and none can be written down
    const made: StudentAccess<'read'> = id;
    expect(made).toBe(id);
    expect(await choicesOf(fresh.db, grant(id, 'share link'))).toEqual([]);
  });

  it('carries the right that was held, and what comes with it', async () => {
    const sharing = await requireStudent(fresh.db, actorOf(school.manager), school.student, 'share');
    const [seen] = await studentsOf(fresh.db, actorOf(school.aide));
    const reads: StudentAccess<'read'>[] = [sharing.id, ...(seen ? [seen.id] : [])];
    const sees: StudentAccess<'see'> = sharing.id;
    expect(new Set([...reads, sees])).toEqual(new Set([school.student]));
    // @ts-expect-error who came by a share link may read, and not see
    const more: StudentAccess<'see'> = grant(school.student, 'share link');
    // @ts-expect-error whoever sees a student may not share for that
    const shares: StudentAccess<'share'> = seen?.id ?? sees;
    expect([more, shares]).toEqual([school.student, school.student]);
  });
});
