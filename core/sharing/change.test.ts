import { describe, expect, it } from 'vitest';
import { changedFields, changeSaid, changesWanted, stateOn } from './change';

describe('a change in words', () => {
  it('says what is different, and nothing of ids or of what stayed', () => {
    const before = { personId: 'x', name: 'Ines Okoro', role: 'educator', rights: ['observe'], until: null };
    const after = {
      personId: 'x',
      name: 'Ines Okoro',
      role: 'educator',
      rights: ['observe', 'share'],
      until: '2027-06-11',
    };
    const fields = changedFields(before, after);
    expect(fields).toEqual([
      { label: 'rights', before: 'observe', after: 'observe, share' },
      { label: 'until', before: null, after: 'Fri, Jun 11, 2027' },
    ]);
    expect(changeSaid(fields)).toBe('rights: observe → observe, share; until: nothing → Fri, Jun 11, 2027');
    expect(changedFields(before, before)).toEqual([]);
  });

  it('tells what came, what went, and lists of things', () => {
    expect(changedFields(null, { grade: 'Grade 4', isArchived: false })).toEqual([
      { label: 'grade', before: null, after: 'Grade 4' },
    ]);
    const closures = [{ first: '2026-11-26', last: '2026-11-27', label: 'Thanksgiving' }];
    expect(changedFields({ closures }, { closures: [] })).toEqual([
      { label: 'closures', before: 'Thu, Nov 26, 2026 · Fri, Nov 27, 2026 · Thanksgiving', after: 'none' },
    ]);
  });
});

it('calls values what they are called elsewhere', () => {
  const rule = { shows: ['numbers', 'note'], layout: 'cards', grouping: 'none', oldestFirst: true };
  expect(changedFields({ role: 'educator', frequency: 'byHand' }, { role: 'caseManager', frequency: 'daily' })).toEqual(
    [
      { label: 'role', before: 'Educator', after: 'Case manager' },
      { label: 'frequency', before: 'only by hand', after: 'once a day' },
    ],
  );
  const [field] = changedFields({}, { family: rule });
  expect(field?.after).toMatch(/^numbers and note; not breakdown.*\. As cards, in one list, oldest first$/);
});

describe('what stood on a day', () => {
  const [september, october, now] = [{ family: 'numbers' }, { family: 'numbers, note' }, { family: 'everything' }];
  const changes = [
    { on: '2026-10-05', before: september, after: october },
    { on: '2026-11-02', before: october, after: now },
  ];
  it.each([
    ['2026-09-30', september],
    ['2026-10-04', september],
    ['2026-10-05', october],
    ['2026-11-01', october],
    ['2026-11-02', now],
    ['2027-01-01', now],
  ])('on %s', (day, expected) => expect(stateOn(now, changes, day)).toEqual(expected));
  it('is what stands, where it never changed', () => expect(stateOn(now, [], '2026-01-01')).toEqual(now));
  it('is nothing of one’s own before it was first written', () => {
    expect(stateOn(now, [{ on: '2026-10-05', before: null, after: now }], '2026-10-04')).toEqual({});
  });
});

it('reads which changes are wanted, and passes over what it cannot read', () => {
  expect(changesWanted.parse({ kind: 'nonsense', from: 'yesterday', page: '-3' })).toEqual({ about: '', page: 1 });
  expect(changesWanted.parse({ kind: 'plan', about: ' Ansel ', from: '2026-10-01', page: '2' })).toEqual({
    ...{ kind: 'plan', about: 'Ansel', from: '2026-10-01', page: 2 },
  });
});
