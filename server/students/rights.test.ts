import { describe, expect, it } from 'vitest';
import { type Granted, type Role, roles } from '~/core/students/roles';
import { can, canChange, type Right } from './rights';

describe('who may do what', () => {
  // Written out in full, so that a change of the table is a change of this one too.
  const expected: Record<Role, Right[]> = {
    caseManager: ['read', 'see', 'observe', 'changeOwn', 'changeAny', 'editGoals', 'share', 'manage'],
    educator: ['read', 'see', 'observe', 'changeOwn'],
    specialist: ['read', 'see', 'observe', 'changeOwn'],
    paraprofessional: ['read', 'see', 'observe', 'changeOwnRecent'],
  };
  const all: Right[] = [
    'read',
    'see',
    'observe',
    'changeOwn',
    'changeOwnRecent',
    'changeAny',
    'editGoals',
    'share',
    'manage',
  ];
  const rightsOf = (role: Role, rights: Granted[] | null) => all.filter((right) => can({ role, rights }, right));

  it.each(roles)('%s', (role) => {
    expect(rightsOf(role, null)).toEqual(expected[role]);
  });

  it('is what was given to a member, and at the least to read; a case manager stays one', () => {
    expect(rightsOf('educator', [])).toEqual(['read']);
    expect(rightsOf('paraprofessional', ['share'])).toEqual(['read', 'see', 'share']);
    expect(rightsOf('specialist', ['observe', 'editGoals'])).toEqual([
      'read',
      'see',
      'observe',
      'changeOwn',
      'editGoals',
    ]);
    expect(rightsOf('caseManager', [])).toEqual(expected.caseManager);
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
    expect(canChange({ role, rights: null }, { isOwn, ageInDays })).toBe(allowed);
  });
});
