import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { tableInput } from '~/core/entries/observation';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, type SmallSchool, smallSchool, wall } from '~/tests/database/small-school';
import { Invalid, NotFound } from '../platform/failures';
import { recordTable } from './record-table';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await fresh
    .db('plans')
    .insert({ id: randomUUID(), student_id: school.student, starts_on: '2026-09-08', ends_on: '2027-06-11' });
});
const row = (on: string, counts: Record<string, number> = { independent: 3, spoken: 1 }, changes: object = {}) => ({
  ...{ id: randomUUID(), on, time: '09:00', note: '' },
  outcome: { data: { counts, opportunities: 4 }, reason: null },
  ...changes,
});
const record = (rows: object[], changes: object = {}, person = school.manager) => {
  const input = tableInput.parse({
    goalVersion: 1,
    observerId: school.manager,
    locationId: school.kitchen,
    rows,
    ...changes,
  });
  return recordTable(fresh.db, actorOf(person), { studentId: school.student, goalId: school.goal }, input, {
    wall,
    now,
  });
};
const refusedFields = (promise: Promise<unknown>) =>
  promise.then(
    () => 'nothing was refused',
    (error) => (error instanceof Invalid ? Object.keys(error.fields) : error),
  );
const stored = async () => (await fresh.db('entries')).length;

describe('a table of sessions', () => {
  it('is recorded whole, once, with both times', async () => {
    const rows = [row('2026-11-20'), row('2026-11-23')];
    const ids = await record(rows);
    expect(await record(rows)).toEqual(ids);
    expect(await fresh.db('entries').orderBy('observed_on')).toMatchObject([
      { observed_on: '2026-11-20', recorded_at: now, measure_version: 1, location_id: school.kitchen },
      { observed_on: '2026-11-23', data: { counts: { independent: 3, spoken: 1 }, opportunities: 4 } },
    ]);
  });

  it('is refused whole, with a message at each row that needs another look', async () => {
    const before = await stored();
    const rows = [
      row('2026-11-19'),
      row('2026-11-25'),
      row('2026-11-18', { independent: 1 }),
      row('2026-08-31'),
      row('2026-11-17', { gone: 4 }),
    ];
    expect(await refusedFields(record(rows))).toEqual(['rows.1.on', 'rows.2.outcome', 'rows.3.on', 'rows.4.outcome']);
    expect(await refusedFields(record([row('2026-11-20')], { locationId: randomUUID() }))).toEqual(['locationId']);
    expect(await refusedFields(record([row('2026-11-20')], { observerId: school.stranger }))).toEqual(['rows.0.on']);
    expect(await stored()).toBe(before);
  });

  it('is for the team, and for versions that there have been', async () => {
    await expect(record([row('2026-11-20')], {}, school.stranger)).rejects.toThrow(NotFound);
    await expect(record([row('2026-11-20')], { goalVersion: 2 })).rejects.toThrow(NotFound);
  });
});
