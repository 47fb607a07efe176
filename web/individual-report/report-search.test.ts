import { describe, expect, it } from 'vitest';
import { carefulRules } from '~/core/sharing/visibility-rule';
import { reportSearch } from './report-search';

const goals = [{ id: 'one' }, { id: 'two' }];
const asked = (text: string, chosen = {}) =>
  reportSearch(new URLSearchParams(text), goals, carefulRules.family, chosen);

describe('what the address of a report asks for', () => {
  it('is the first page of everything unless it says otherwise', () => {
    expect(asked('')).toEqual({
      wanted: { only: null, find: '', day: null, page: 1, from: null, to: null, oldestFirst: false },
      arrangement: { layout: 'sentences', grouping: 'week', oldestFirst: false },
      ...{ find: '', goal: null, isAll: false, from: null, to: null },
    });
  });

  it('is one goal of this student, behavior, a word, a day, a page or all', () => {
    expect(asked('goal=two').wanted.only).toEqual({ goalId: 'two' });
    expect(asked('goal=behavior').wanted.only).toBe('behavior');
    expect(asked('goal=somebody-elses').wanted.only).toBeNull();
    expect(asked('find=plum&day=2026-10-01&page=3').wanted).toMatchObject({ find: 'plum', day: '2026-10-01', page: 3 });
    expect(asked('from=2026-10-01&to=2026-10-31').wanted).toMatchObject({ from: '2026-10-01', to: '2026-10-31' });
    expect(asked('page=all')).toMatchObject({ isAll: true, wanted: { page: 'all' } });
  });

  it('takes what makes no sense as not said', () => {
    const { wanted, arrangement } = asked('day=2026-02-30&page=-4&as=cloud&by=moon&order=up');
    expect(wanted).toMatchObject({ day: null, page: 1, oldestFirst: false });
    expect(arrangement).toEqual({ layout: 'sentences', grouping: 'week', oldestFirst: false });
  });

  it('is arranged by the address, else as this device chose before, else by the rule', () => {
    expect(asked('as=table', { as: 'cards', by: 'none' }).arrangement).toMatchObject({
      layout: 'table',
      grouping: 'none',
    });
    expect(asked('order=oldest').wanted.oldestFirst).toBe(true);
  });
});
