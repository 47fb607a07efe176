import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import type { Question } from '../entries/forms/form';
import { moved, presentersInOrder } from './feedback';
import { type AnsweredForm, answerCounts, answerRows, placesOf } from './form-answers';

const blank = { hint: '', isRequired: false, takesSeveral: false, unit: '', least: null, most: null, lowBelow: null };
const went: Question = {
  ...{ ...blank, id: randomUUID(), kind: 'level', ask: 'How did it go?' },
  options: [
    { words: 'Stuck', standsOut: true },
    { words: 'Well', standsOut: false },
  ],
};
const why: Question = { ...blank, id: randomUUID(), kind: 'text', ask: 'Why?', options: [] };
const picture: Question = { ...blank, id: randomUUID(), kind: 'photograph', ask: 'A picture', options: [] };
const asked = [went, why, picture];

const note = (studentId: string, answers: AnsweredForm['answers'], changes: Partial<AnsweredForm> = {}) => ({
  ...{ id: randomUUID(), studentId, on: '2026-11-24', time: '10:00', by: 'Student', questions: asked, answers },
  ...changes,
});

describe('the answers of a class in one table', () => {
  const newest = note('ada', { [went.id]: 0, [why.id]: 'The saw' });
  const older = note('ada', { [went.id]: 1 }, { on: '2026-11-20' });
  const bens = note('ben', { [why.id]: 'Fine' });

  it('has a row for each student with the newest answer; who has not answered is blank', () => {
    const rows = answerRows(['ada', 'ben', 'cem'], [newest, bens, older], asked);
    expect(rows.map(({ studentId, times, standsOut }) => [studentId, times, standsOut])).toEqual([
      ['ada', 2, true],
      ['ben', 1, false],
      ['cem', 0, false],
    ]);
    expect(rows[0]!.answered!.cells).toEqual([
      { words: 'Stuck', wasAsked: true, standsOut: true, value: 1 },
      { words: 'The saw', wasAsked: true, standsOut: false, value: null },
    ]);
    expect(rows[1]!.answered!.cells[0]).toEqual({ words: '', wasAsked: true, standsOut: false, value: null });
    expect(rows[2]!.answered).toBeNull();
  });

  it('has a row for each answer where all are wanted', () => {
    expect(answerRows(['ada'], [newest, older], asked, { all: true }).map(({ answered }) => answered!.id)).toEqual([
      newest.id,
      older.id,
    ]);
  });

  it('says of a question that is younger than the answer that it was not asked then', () => {
    const before = note('ada', { [why.id]: 'Fine' }, { questions: [why] });
    expect(answerRows(['ada'], [before], asked)[0]!.answered!.cells[0]!.wasAsked).toBe(false);
  });

  it('counts by the words that were said, also where a change has put them in another order', () => {
    const turned = { ...went, options: went.options.toReversed() };
    const then = note('cem', { [went.id]: 0 }, { questions: [turned] });
    const [counts] = answerCounts([newest, bens, then], asked);
    expect(counts).toMatchObject({ answered: 2, ask: 'How did it go?' });
    expect(counts!.counts.map(({ words, n, standsOut }) => [words, n, standsOut])).toEqual([
      ['Stuck', 1, true],
      ['Well', 1, false],
    ]);
    expect(placesOf(went)).toBe(2);
    expect(placesOf({ ...went, kind: 'sure' })).toBe(4);
  });
});

describe('the order of presenters', () => {
  it('keeps those who are in it in their places, and puts others after them', () => {
    expect(presentersInOrder(['b', 'a'], ['a', 'b', 'c'])).toEqual(['b', 'a', 'c']);
    expect(presentersInOrder(['b', 'a'], ['a'])).toEqual(['a']);
  });

  it('is changed one place at a time, and not beyond its ends', () => {
    expect(moved(['a', 'b', 'c'], 'c', -1)).toEqual(['a', 'c', 'b']);
    expect(moved(['a', 'b'], 'a', -1)).toEqual(['a', 'b']);
    expect(moved(['a', 'b'], 'x', 1)).toEqual(['a', 'b']);
  });
});
