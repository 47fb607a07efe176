import { describe, expect, it } from 'vitest';
import { laterBy } from '~/core/calendar/later';
import { dataOf, isKeepable, OBSERVED_VIEWS, pageOf } from './kept-list';

const id = '4f1e2d3c-0000-4000-8000-123456789abc';

describe('pages that a device keeps', () => {
  it('are those that recording needs, and nothing that is only read or set up', () => {
    const kept = ['/', '/students', '/rounds', '/incidents/new', `/students/${id}`, `/rounds/${id}`];
    for (const page of [...kept, ...OBSERVED_VIEWS.map((view) => `/students/${id}/${view}`)])
      expect(isKeepable(page), page).toBe(true);
    const others = ['/school', `/students/${id}/sharing`, `/students/${id}/individual-report`, `/rounds/${id}/edit`];
    for (const page of [...others, '/students/none', '/students/', '//students'])
      expect(isKeepable(page), page).toBe(false);
  });

  it('are known by the address their data comes from', () => {
    for (const page of ['/', '/students', `/students/${id}/observe`]) expect(pageOf(dataOf(page))).toBe(page);
  });
});

describe('the wall clock on a page that was kept', () => {
  it('goes on, over midnight and over the end of a month', () => {
    expect(laterBy({ on: '2026-11-24', time: '15:30' }, 90 * 60_000)).toEqual({ on: '2026-11-24', time: '17:00' });
    expect(laterBy({ on: '2026-11-30', time: '23:30' }, 3_600_000)).toEqual({ on: '2026-12-01', time: '00:30' });
  });
});
