import { describe, expect, it } from 'vitest';
import { arranged, carefulRules, reportFields, rulesFrom, shownFields, type VisibilityRule } from './visibility-rule';
import { memberSentence, shareLinkSentence, shownWords } from './who-can-see';

describe('what whom', () => {
  const rule = (changes: Partial<VisibilityRule>): VisibilityRule => ({ ...carefulRules.family, ...changes });

  it('is the student’s own rule, else the school’s, else the careful one', () => {
    const own = [rule({ kind: 'family', shows: ['note'] })];
    const school = [rule({ kind: 'family', shows: ['observer'] }), rule({ kind: 'specialist', shows: ['abc'] })];
    const rules = rulesFrom(own, school);
    expect(rules.family.shows).toEqual(['note']);
    expect(rules.specialist.shows).toEqual(['abc']);
    expect(rules.student).toEqual(carefulRules.student);
  });

  it('is careful: nobody outside reads notes, names of adults or behavior unless somebody decides so', () => {
    for (const kind of ['family', 'student', 'specialist'] as const) {
      for (const field of ['note', 'observer', 'abc', 'function', 'intensity', 'pictures'] as const) {
        expect(carefulRules[kind].shows).not.toContain(field);
      }
    }
  });

  it('shows no field without the one it needs', () => {
    expect([...shownFields(['breakdown', 'function', 'intensity', 'location'])]).toEqual(['location']);
    expect([...shownFields(['numbers', 'breakdown'])]).toEqual(['numbers', 'breakdown']);
  });

  it('is arranged as the reader chooses, and else as the rule says', () => {
    expect(arranged(carefulRules.specialist, { by: 'goal' })).toEqual({
      layout: 'table',
      grouping: 'goal',
      oldestFirst: false,
    });
    expect(arranged(carefulRules.family, { order: 'oldest' }).oldestFirst).toBe(true);
  });
});

describe('who can see this, in words', () => {
  it('says what is shown and what is not', () => {
    expect(shownWords({ shows: ['numbers', 'breakdown'] })).toBe(
      'numbers and breakdown; not note, observer, location, behavior, function, intensity, forms or pictures',
    );
    expect(shownWords({ shows: [...reportFields] })).toBe('everything in the report');
    expect(shownWords({ shows: ['intensity'] })).toBe('only on which day each goal was observed');
    const all = reportFields.filter((field) => field !== 'pictures');
    expect(shownWords({ shows: [...all] })).toMatch(/intensity and forms; not pictures$/);
  });

  it('says it of a member and of a way in', () => {
    const member = { role: 'Educator', may: ['observe', 'share'], seesAll: true, until: '2026-12-31' };
    expect(memberSentence(member, carefulRules.team)).toBe(
      'Educator: sees all goals, entries and notes, and may observe and share; until Thu, Dec 31, 2026.',
    );
    expect(memberSentence({ ...member, may: [], seesAll: false, until: null }, carefulRules.team)).toBe(
      'Educator: reads the report: everything in the report.',
    );
    const way = { kind: 'family', endsOn: '2027-06-11', hasPasscode: true, isLocked: true } as const;
    expect(shareLinkSentence(way, { ...carefulRules.family, shows: ['numbers'] })).toMatch(
      /^Family, by a link, with a passcode, until Fri, Jun 11, 2027: numbers; not .* It is locked at the moment\.$/,
    );
  });
});
