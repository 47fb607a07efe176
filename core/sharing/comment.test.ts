import { describe, expect, it } from 'vitest';
import { answerable, type Comment, canAnswer, commentInput, commentsSeenBy, hidingInput, kindSaidBy } from './comment';

const said = (by: Comment['by'], changes: Partial<Comment> = {}): Comment => ({
  ...{
    id: by.name,
    entryId: 'e',
    kind: kindSaidBy(by.kind),
    by,
    to: null,
    on: '2026-11-24',
    time: '09:00',
    text: 'x',
    hidden: null,
    outcome: null,
    answers: null,
  },
  ...changes,
});
const all = [
  said({ kind: 'team', name: 'H. B.', linkId: null }),
  said({ kind: 'family', name: 'Aunt Ida', linkId: 'ida' }),
  said({ kind: 'family', name: 'Uncle Jo', linkId: 'jo' }),
  said({ kind: 'student', name: 'Ada', linkId: 'ada' }),
  said({ kind: 'team', name: 'N. H.', linkId: null }, { hidden: { by: 'H. B.', reason: 'Private' } }),
];
const names = (kind: Comment['by']['kind'], linkId: string | null, namesAdults = true) =>
  commentsSeenBy(all, { kind, linkId, namesAdults }).map(({ by }) => by.name);

describe('what was said of an entry', () => {
  it('is all there for the team, what was hidden too', () => {
    expect(names('team', null)).toEqual(['H. B.', 'Aunt Ida', 'Uncle Jo', 'Ada', 'N. H.']);
  });

  it('is for others what the team answered and what they said themselves; for the family the reflections too', () => {
    expect(names('family', 'ida')).toEqual(['H. B.', 'Aunt Ida', 'Ada']);
    expect(names('student', 'ada')).toEqual(['H. B.', 'Ada']);
    expect(names('specialist', 'dr')).toEqual(['H. B.']);
  });

  it('goes to whom it answers, and to the team', () => {
    const answer = said({ kind: 'team', name: 'To Ida', linkId: null }, { to: { name: 'Aunt Ida', linkId: 'ida' } });
    const sees = (kind: Comment['by']['kind'], linkId: string | null) =>
      commentsSeenBy([answer], { kind, linkId, namesAdults: true }).length === 1;
    expect([sees('team', null), sees('family', 'ida')]).toEqual([true, true]);
    expect([sees('family', 'jo'), sees('student', 'ada'), sees('specialist', 'dr')]).toEqual([false, false, false]);
    expect(answerable([...all, { ...(all[1] as Comment), id: 'again' }])).toEqual([
      { id: 'again', name: 'Aunt Ida' },
      { id: 'Ada', name: 'Ada' },
      { id: 'Uncle Jo', name: 'Uncle Jo' },
    ]);
  });

  it('is said by “the team” where adults are not named', () => {
    expect(names('family', 'jo', false)).toEqual(['The team', 'Uncle Jo', 'Ada']);
  });

  it('is a reflection when the student says it; specialists only read', () => {
    expect(all.map(({ kind }) => kind)).toEqual(['comment', 'comment', 'comment', 'reflection', 'comment']);
    expect(['team', 'family', 'student', 'specialist'].map((kind) => canAnswer(kind as never))).toEqual([
      true,
      true,
      true,
      false,
    ]);
  });

  it('has words, not too many, and a reason where it is hidden', () => {
    const id = '7f0f2c1e-5a0f-4d0c-8a43-111111111111';
    const problem = (text: string) => commentInput.safeParse({ id, entryId: null, text }).error?.issues[0]?.message;
    expect(problem('   ')).toBe('Write something first.');
    expect(problem('x'.repeat(2001))).toBe('Keep it to 2,000 characters.');
    expect(hidingInput.safeParse({ id, reason: ' ' }).error?.issues[0]?.message).toBe(
      'Say why, for whoever asks later.',
    );
  });
});
