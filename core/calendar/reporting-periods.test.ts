import { describe, expect, it } from 'vitest';
import { periodToReport, type ReportingPeriod } from './reporting-periods';

const period = (label: string, first: string, last: string): ReportingPeriod => ({ label, first, last });
const periods = [
  period('Quarter 1', '2026-09-08', '2026-12-04'),
  period('Quarter 2', '2026-12-05', '2027-02-26'),
  period('Quarter 3', '2027-02-27', '2027-04-30'),
];
const label = (today: string, issued: string[] = []) => periodToReport(periods, today, issued)?.label ?? null;

describe('the period that is to be reported now', () => {
  it('is the one that goes on, while none has ended', () => {
    expect([label('2026-09-07'), label('2026-09-08'), label('2026-12-04')]).toEqual([null, 'Quarter 1', 'Quarter 1']);
  });

  it('stays the one that has ended until it is issued', () => {
    expect(label('2026-12-07')).toBe('Quarter 1');
    expect(label('2026-12-07', ['2026-12-04'])).toBe('Quarter 2');
  });

  it('does not go back to one that was never issued once a later one has ended', () => {
    expect(label('2027-03-01')).toBe('Quarter 2');
    expect(label('2027-03-01', ['2027-02-26'])).toBe('Quarter 3');
  });

  it('is the last one when all are over, issued or not; none without periods', () => {
    expect(label('2027-06-30')).toBe('Quarter 3');
    expect(label('2027-06-30', ['2027-04-30'])).toBe('Quarter 3');
    expect(periodToReport([], '2027-06-30', [])).toBeNull();
  });
});
