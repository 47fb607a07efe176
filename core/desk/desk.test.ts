import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type StepState, stepStates, stepWordsFrom } from '../school/step-words';
import {
  boardRows,
  doneOf,
  justNow,
  minutesSince,
  mostStuckStep,
  needsSomebody,
  orderedRows,
  type StateSaid,
  stepSummaries,
  stuckSpells,
  waitingCells,
} from './board';
import { codeFrom, typedCode } from './card-code';
import { stepSaid, tappedAt, workInput } from './steps';
import { turnNames } from './turn-names';

const clock = (time: string) => new Date(`2026-11-24T${time}:00Z`);
let count = 0;
const say = (studentId: string, stepId: string, state: StepState, time: string, more: Partial<StateSaid> = {}) => {
  count++;
  return {
    id: String(count).padStart(6, '0'),
    studentId,
    stepId,
    state,
    word: '',
    at: clock(time),
    seenAt: null,
    ...more,
  };
};

describe('a class board', () => {
  it('shows what was said last, since it was first said so, with the last word', () => {
    const said = [
      say('a', '1', 'stuck', '09:00'),
      say('a', '1', 'stuck', '09:02', { word: 'The saw jumps.' }),
      say('a', '1', 'stuck', '09:03'),
    ];
    const [row] = boardRows(['a'], ['1', '2'], said);
    expect(row?.cells[0]).toMatchObject({
      state: 'stuck',
      since: clock('09:00'),
      word: 'The saw jumps.',
      timesStuck: 1,
    });
    expect(row?.cells[0]?.saidId).toBe(said[2]?.id);
    // Nobody touched it: it is not begun, and that is no state that somebody gave.
    expect(row?.cells[1]).toMatchObject({ state: 'notBegun', since: null, saidId: null, timesStuck: 0 });
  });

  it('takes what came in late for its own time', () => {
    const late = [say('a', '1', 'done', '09:10'), say('a', '1', 'stuck', '09:05')];
    expect(boardRows(['a'], ['1'], late)[0]?.cells[0]).toMatchObject({ state: 'done', timesStuck: 1 });
  });

  it('says that only what is not seen needs somebody; said anew it does again', () => {
    const seen = say('a', '1', 'pleaseLook', '09:00', { seenAt: clock('09:01') });
    const cellOf = (said: StateSaid[]) => boardRows(['a'], ['1'], said)[0]?.cells[0];
    expect(needsSomebody(cellOf([seen])!)).toBe(false);
    expect(needsSomebody(cellOf([seen, say('a', '1', 'pleaseLook', '09:09')])!)).toBe(true);
    expect(needsSomebody(cellOf([seen, say('a', '1', 'done', '09:09')])!)).toBe(false);
  });

  it('puts who is stuck longest first, then who asks for a look, then the rest by name', () => {
    const rows = boardRows(
      ['a', 'b', 'c', 'd', 'e'],
      ['1'],
      [
        say('b', '1', 'pleaseLook', '08:00'),
        say('c', '1', 'stuck', '09:05'),
        say('d', '1', 'stuck', '09:01'),
        say('e', '1', 'stuck', '08:00', { seenAt: clock('08:10') }),
      ],
    );
    expect(orderedRows(rows, 'need').map(({ studentId }) => studentId)).toEqual(['d', 'c', 'b', 'a', 'e']);
    expect(orderedRows(rows, 'name').map(({ studentId }) => studentId)).toEqual(['a', 'b', 'c', 'd', 'e']);
    const done = boardRows(['a', 'b'], ['1', '2'], [say('a', '1', 'done', '09:00')]);
    expect(orderedRows(done, 'step').map(({ studentId }) => studentId)).toEqual(['b', 'a']);
  });

  it('keeps how long each was stuck: two spells, the second going on', () => {
    const said = [
      say('a', '1', 'stuck', '09:00'),
      say('a', '1', 'stuck', '09:02'),
      say('a', '1', 'atIt', '09:06'),
      say('a', '1', 'stuck', '09:10'),
    ];
    expect(stuckSpells(said)).toEqual([
      { from: clock('09:00'), until: clock('09:06') },
      { from: clock('09:10'), until: null },
    ]);
    const rows = boardRows(['a', 'b'], ['1'], said);
    // 6 and, until 09:14, 4 minutes: the median of two is 5.
    expect(stepSummaries(rows, ['1'], said, clock('09:14'))).toEqual([
      {
        stepId: '1',
        counts: { notBegun: 1, atIt: 0, stuck: 1, pleaseLook: 0, done: 0 },
        ...{ stuckStudents: 1, stuckMinutes: 5 },
      },
    ]);
    expect(stepSummaries(rows, ['2'], said, clock('09:14'))[0]?.stuckMinutes).toBeNull();
  });

  it('counts every student at every step once, in whatever order it came in', () => {
    const one = fc.record({
      studentId: fc.constantFrom('a', 'b', 'c'),
      stepId: fc.constantFrom('1', '2'),
      state: fc.constantFrom(...stepStates),
      minute: fc.integer({ min: 0, max: 59 }),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 30 }), (list) => {
        const said = list.map(({ studentId, stepId, state, minute }) =>
          say(studentId, stepId, state, `09:${String(minute).padStart(2, '0')}`),
        );
        const rows = boardRows(['a', 'b', 'c'], ['1', '2'], said);
        expect(boardRows(['a', 'b', 'c'], ['1', '2'], said.toReversed())).toEqual(rows);
        for (const { counts } of stepSummaries(rows, ['1', '2'], said, clock('10:00'))) {
          expect(Object.values(counts).reduce((a, b) => a + b)).toBe(3);
        }
      }),
    );
  });
});

describe('what the board says beside its cells', () => {
  const said = [
    say('a', '1', 'done', '09:00'),
    say('a', '2', 'stuck', '09:10', { word: 'The lid.' }),
    say('b', '1', 'pleaseLook', '09:05'),
    say('c', '1', 'stuck', '09:02', { seenAt: clock('09:03') }),
    say('c', '2', 'atIt', '08:30'),
  ];
  const rows = boardRows(['a', 'b', 'c'], ['1', '2'], said);

  it('names what waits, stuck before what only asks for a look, and not what was seen', () => {
    expect(waitingCells(rows).map(({ studentId, stepId, at, word }) => [studentId, stepId, at, word])).toEqual([
      ['a', '2', 1, 'The lid.'],
      ['b', '1', 0, ''],
    ]);
  });

  it('tells what was begun and finished within a quarter of an hour, newest first, five of it at most', () => {
    expect(justNow(said, clock('09:12')).map(({ stepId }) => stepId)).toEqual(['1']);
    // At 09:15 the first is fifteen minutes old: it is no longer just now.
    expect(justNow(said, clock('09:15'))).toEqual([]);
    const many = Array.from({ length: 8 }, (_, i) => say('a', String(i), 'done', `09:0${i}`));
    expect(justNow(many, clock('09:08')).map(({ stepId }) => stepId)).toEqual(['7', '6', '5', '4', '3']);
  });

  it('counts whole minutes, none where nobody touched it or a clock was ahead', () => {
    expect(minutesSince(clock('09:00'), new Date(clock('09:06').getTime() - 1))).toBe(5);
    expect(minutesSince(clock('09:00'), clock('09:06'))).toBe(6);
    expect([minutesSince(null, clock('09:00')), minutesSince(clock('09:01'), clock('09:00'))]).toEqual([0, 0]);
  });

  it('counts what is done of all, and says where most were stuck, if anybody was', () => {
    expect(doneOf(rows)).toEqual({ count: 1, of: 6 });
    expect(doneOf([])).toEqual({ count: 0, of: 0 });
    const summaries = stepSummaries(rows, ['1', '2'], said, clock('09:12'));
    // One at each: the first of them. From 09:02 to 09:12 are ten minutes.
    expect(mostStuckStep(summaries)).toMatchObject({ stepId: '1', stuckStudents: 1, stuckMinutes: 10 });
    const more = [...said, say('b', '2', 'stuck', '09:11')];
    expect(mostStuckStep(stepSummaries(rows, ['1', '2'], more, clock('09:12')))?.stepId).toBe('2');
    expect(mostStuckStep(stepSummaries(rows, ['1', '2'], [], clock('09:12')))).toBeNull();
  });
});

describe('a shared tablet', () => {
  const at = (studentId: string, firstName: string, initials: string) => ({ studentId, firstName, initials });
  const named = (...all: ReturnType<typeof at>[]) => turnNames(all).map(({ name }) => name);

  it('names students by initials, and by as much of the first name as tells them apart', () => {
    expect(named(at('1', 'Ione', 'IC'), at('2', 'Jory', 'JW'))).toEqual(['IC', 'JW']);
    expect(named(at('1', 'Ada', 'AD'), at('2', 'Ansel', 'AD'), at('3', 'Bo', 'BD'))).toEqual(['Ad D', 'An D', 'BD']);
    expect(named(at('1', 'Anna', 'AD'), at('2', 'Ansel', 'AD'))).toEqual(['Ann D', 'Ans D']);
    expect(named(at('1', 'Ann', 'AD'), at('2', 'Anna', 'AD'))[1]).toBe('Anna D');
  });

  it('never calls two by the same name', () => {
    const child = fc.record({
      firstName: fc.constantFrom('Ann', 'Anna', 'Annabel', 'Bo'),
      last: fc.constantFrom('D', 'E'),
    });
    fc.assert(
      fc.property(fc.array(child, { maxLength: 8 }), (children) => {
        const names = turnNames(
          children.map(({ firstName, last }, i) => ({
            studentId: String(i),
            firstName,
            initials: `${firstName.charAt(0)}${last}`,
          })),
        ).map(({ name }) => name);
        expect(new Set(names).size).toBe(names.length);
      }),
    );
  });
});

describe('a card', () => {
  it('has four words out of 256, and is read however it is typed', () => {
    expect(codeFrom([0, 1, 2, 3, 255])).toBe('acorn amber anchor ant swan');
    const all = Array.from({ length: 256 }, (_, i) => codeFrom([i, i, i, i, i]).split(' ')[0]);
    expect(new Set(all).size).toBe(256);
    expect(all.every((word) => /^[a-z]{3,9}$/.test(word ?? ''))).toBe(true);
    expect(typedCode(' Acorn-AMBER  anchor, swan. ')).toBe('acorn amber anchor swan');
  });
});

describe('a school’s own words', () => {
  it('stand for the meanings for which there are some; the others are called as usual', () => {
    expect(stepWordsFrom({ stuck: 'I need help', done: '' })).toMatchObject({ stuck: 'I need help', done: 'Done' });
    expect(Object.keys(stepWordsFrom({}))).toEqual([...stepStates]);
  });
});

describe('what arrives', () => {
  it('is taken for its own time only where the device’s clock can be right', () => {
    const cameIn = clock('10:00');
    expect(tappedAt(clock('09:58').getTime(), cameIn)).toEqual(clock('09:58'));
    expect(tappedAt(clock('10:05').getTime(), cameIn)).toEqual(cameIn);
    expect(tappedAt(cameIn.getTime() - 25 * 3_600_000, cameIn)).toEqual(cameIn);
  });

  it('is refused where it says too much or too little', () => {
    const id = 'a2f1f5b0-0000-4000-8000-000000000001';
    const said = { id, workId: id, stepId: id, state: 'stuck', at: 1 };
    expect(stepSaid.parse(said).word).toBe('');
    expect(stepSaid.safeParse({ ...said, state: 'bored' }).success).toBe(false);
    expect(stepSaid.safeParse({ ...said, word: 'x'.repeat(201) }).error?.issues[0]?.message).toContain('200');
    const work = { id, title: '🪴', steps: [{ id, title: ' Cut ' }] };
    expect(workInput.parse(work)).toMatchObject({ title: '🪴', steps: [{ id, title: 'Cut', hint: '' }] });
    expect(workInput.safeParse({ ...work, steps: [] }).error?.issues[0]?.message).toContain('at least one step');
  });
});
