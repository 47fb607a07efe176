import { describe, expect, it } from 'vitest';
import { shareLinkInput, waitAfter } from '../sharing/share-link';
import { acceptanceInput, invitationInput, memberInput } from './team-input';

const id = '7f0f2c1e-5a0f-4d0c-8a43-111111111111';
const problems = (result: { error?: { issues: { path: PropertyKey[]; message: string }[] } }) =>
  result.error?.issues.map(({ path, message }) => [path.join('.'), message]);

describe('what the forms about people send', () => {
  it('is a member with rights and dates in order', () => {
    const member = { personId: id, role: 'educator', rights: ['observe'], from: '2026-09-01' };
    expect(memberInput.parse(member)).toEqual({ ...member, alsoOf: [] });
    expect(memberInput.parse({ ...member, rights: undefined }).rights).toEqual([]);
    expect(problems(memberInput.safeParse({ ...member, until: '2026-08-31' }))).toEqual([
      ['until', 'It ends before it begins.'],
    ]);
    // The case manager is chosen on the roster, and rights that there are not cannot be given.
    expect(memberInput.safeParse({ ...member, role: 'caseManager' }).success).toBe(false);
    expect(memberInput.safeParse({ ...member, rights: ['manage'] }).success).toBe(false);
  });

  it('is an invitation to an address that can be one', () => {
    const invitation = { id, name: ' Odile ', email: 'odile@home', role: 'specialist' };
    expect(problems(invitationInput.safeParse(invitation))).toEqual([
      ['email', 'This does not look like an email address.'],
    ]);
    expect(invitationInput.parse({ ...invitation, email: 'odile@home.example' }).name).toBe('Odile');
  });

  it('is an account with a long password, typed twice', () => {
    const account = { name: 'Odile', password: 'a long password', again: 'a long password' };
    expect(acceptanceInput.parse(account).work).toBe('');
    expect(problems(acceptanceInput.safeParse({ ...account, again: 'another one' }))).toEqual([
      ['again', 'The two are not the same.'],
    ]);
    expect(problems(acceptanceInput.safeParse({ ...account, password: 'short', again: 'short' }))?.[0]).toEqual([
      'password',
      'A password has 12 characters or more.',
    ]);
  });

  it('is a way in for a kind of reader, with a passcode that is not too short', () => {
    const way = { id, readerName: 'Aunt Ida', kind: 'family', endsOn: '2026-12-31' };
    expect(shareLinkInput.parse(way)).toEqual(way);
    expect(problems(shareLinkInput.safeParse({ ...way, passcode: '1234' }))).toEqual([
      ['passcode', 'A passcode has 6 characters or more.'],
    ]);
    expect(problems(shareLinkInput.safeParse({ ...way, kind: 'team' }))).toEqual([
      ['kind', 'Choose what kind of reader this is.'],
    ]);
  });
});

describe('a wrong passcode', () => {
  it('costs nothing for three slips, then ever longer', () => {
    expect([0, 1, 3, 4, 5, 6, 7].map(waitAfter)).toEqual([0, 0, 0, 5, 10, 20, 40]);
  });
});
