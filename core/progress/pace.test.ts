import { describe, expect, it } from 'vitest';
import { calendar } from '~/tests/examples/series';
import { addDays } from '../calendar/iso-date';
import { schoolDays } from '../calendar/school-days';
import { addedLately, paceOf } from './pace';

const said = (amount: number) => `${Math.round(10 * amount) / 10} %`;
const target = { value: 100, on: '2026-12-18' };
const when = { calendar, today: '2026-10-02' };
/** One more each school day of September: 22 of them by the end of the month. */
const daily = schoolDays('2026-09-01', '2026-09-30', calendar).map((on, i) => ({ on, value: i + 1 }));

describe('the pace of a cumulative total', () => {
  it('is what the last twenty school days added, days without an entry too, by hand', () => {
    // The twenty school days to 2 October begin on 7 September: 18 of them added one each.
    const pace = paceOf(daily, target, when, said);
    expect(pace).toMatchObject({ days: 20, said: '18 %' });
    expect(pace?.perDay).toBeCloseTo(0.9, 12);
    // 78 are missing, and 55 school days are left from 5 October to 18 December.
    expect(pace?.needed).toBeCloseTo(78 / 55, 12);
    // 78 / .9 = 86.7: the 87th school day from 5 October on.
    expect(pace?.on).toBe(schoolDays('2026-10-05', '2027-06-01', calendar)[86]);
    expect((pace?.earliest ?? '') < (pace?.on ?? '')).toBe(true);
    expect((pace?.latest ?? '') > (pace?.on ?? '')).toBe(true);
  });

  it('foresees no day where nothing was added lately', () => {
    const pace = paceOf([{ on: '2026-08-03', value: 10 }], target, when, said);
    expect(pace).toMatchObject({ perDay: 0, on: null, earliest: null, latest: null });
  });

  it('is told apart from what was added lately, which is there of a total that is reached, and of one begun today', () => {
    const reached = [...daily, { on: '2026-10-01', value: 100 }];
    expect(paceOf(reached, target, when, said)).toBeNull();
    // From 7 September on: 18 of September, and the 78 of October 1.
    expect(addedLately(reached, when)).toBe(18 + 78);
    expect(addedLately([{ on: when.today, value: 37 }], when)).toBe(37);
    // October 3, 2026 is a Saturday.
    expect(addedLately([{ on: '2026-10-03', value: 5 }], { calendar, today: '2026-10-03' })).toBe(5);
    expect(addedLately([], when)).toBeNull();
  });

  it('is none before the first entry, and none once all is there', () => {
    expect(paceOf([], target, when, said)).toBeNull();
    expect(paceOf([{ on: addDays(when.today, -1), value: 100 }], target, when, said)).toBeNull();
  });
});
