import { describe, expect, it } from 'vitest';
import { may, mayChange, type Right, type Role, roles } from './rights';

describe('who may do what', () => {
  // Written out in full, so that a change of the table is a change of this one too.
  const expected: Record<Role, Right[]> = {
    caseManager: ['see', 'observe', 'changeOwn', 'changeAny', 'setUp', 'share'],
    educator: ['see', 'observe', 'changeOwn'],
    specialist: ['see', 'observe', 'changeOwn'],
    paraprofessional: ['see', 'observe', 'changeOwnRecent'],
  };
  const all: Right[] = ['see', 'observe', 'changeOwn', 'changeOwnRecent', 'changeAny', 'setUp', 'share'];

  it.each(roles)('%s', (role) => {
    expect(all.filter((right) => may(role, right))).toEqual(expected[role]);
  });

  it.each<[Role, boolean, number, boolean]>([
    ['caseManager', false, 200, true],
    ['educator', true, 200, true],
    ['educator', false, 0, false],
    ['specialist', true, 200, true],
    ['paraprofessional', true, 7, true],
    ['paraprofessional', true, 7.1, false],
    ['paraprofessional', false, 0, false],
  ])('%s, own: %s, %s days old: may change %s', (role, isOwn, ageInDays, allowed) => {
    expect(mayChange(role, { isOwn, ageInDays })).toBe(allowed);
  });
});
