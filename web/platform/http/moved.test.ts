import { describe, expect, it } from 'vitest';
import { movedTo } from './moved';

describe('an old address', () => {
  it.each([
    ['/read/abc?goal=1', '/shared/abc?goal=1'],
    ['/read/abc/issued/2/pdf', '/shared/abc/issued/2/pdf'],
    ['/post', '/messages'],
    ['/post/wordings?kind=entry', '/messages/templates?kind=entry'],
    ['/post/carrier.data', '/messages/test-mail.data'],
    ['/school/readers', '/school/visibility'],
    ['/students/1/report', '/students/1/individual-report'],
    ['/students/1/report/as/pdf', '/students/1/individual-report/as/pdf'],
    ['/students/1/progress/2', '/students/1/progress-report/2'],
    ['/students/1/readers/rules', '/students/1/sharing/visibility'],
    ['/students/1/readers?day=2026-10-01', '/students/1/sharing?day=2026-10-01'],
    ['/students/1/ways-in', '/students/1/sharing/links'],
    ['/students/1/readings.csv', '/students/1/sharing/access-log.csv'],
    ['/students/1/write?to=2', '/students/1/messages/new?to=2'],
    ['/students/1/note', '/students/1/incidents/new'],
    ['/students/1/tally', '/students/1/counts/new'],
    ['/students/1/tallies/2', '/students/1/counts/2'],
    ['/students/1/caught', '/students/1/behavior-entries'],
  ])('%s leads to %s', (from, to) => {
    expect(movedTo(from)).toBe(to);
  });

  it.each([
    '/',
    '/reports',
    '/students/1',
    '/students/1/progress-report',
    '/students/1/notebook',
    '/poster',
    '/readers',
  ])('%s is where it was', (path) => {
    expect(movedTo(path)).toBeNull();
  });
});
