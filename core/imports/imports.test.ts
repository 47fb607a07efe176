import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { beginningOf } from '../measures/measure';
import { shareCell, signsCell } from '../measures/one-cell';
import { criterionCell } from './criterion-cell';
import { fileDay, guessDayOrder } from './days';
import { type EntryFacts, entriesMapping, entryMark, goalColumn, guessEntries, planEntries } from './entries';
import { guessColumns, plainText, tableOf, Unreadable } from './file-table';
import { type GoalFacts, guessGoals, planGoals } from './goals';
import { guessIncidents, incidentMark, planIncidents } from './incidents';
import { isOneRoster, oneRosterEntries, readOneRoster } from './one-roster';
import { fateCounts } from './preview';
import { guessRoster, planRoster, type RosterFacts, rosterEntries, rosterMapping } from './roster';

const today = '2026-11-24';
const tableFrom = (csv: string) => {
  const table = tableOf('file', Papa.parse<string[]>(csv.trim()).data);
  if (!table) throw new Error('no table');
  return table;
};
const about = { outOf: '', help: 'most', areFractions: false } as const;
const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

describe('a table', () => {
  it('begins at its headings, and knows the rows by the numbers that a spreadsheet shows', () => {
    const table = tableFrom('Class 4,,\n,,\nStudent,Date,Score\nAnsel Dorsey,1/5/2026,3/5');
    expect(table.head).toEqual(['Student', 'Date', 'Score']);
    expect(table.firstRow).toBe(4);
  });
  it('is nothing without rows, and is not too large to be looked through', () => {
    expect(tableOf('empty', [['Student', 'Date']])).toBeNull();
    const many = [['Student', 'Date'], ...Array.from({ length: 20_001 }, () => ['x', 'y'])];
    expect(() => tableOf('large', many)).toThrow(Unreadable);
  });
  it('knows columns by their headings, each field once, whatever their case and accents', () => {
    const fields = [
      { key: 'student', headings: ['student', 'name'] },
      { key: 'note', headings: ['note', 'notes'] },
    ] as const;
    expect(guessColumns(['NÁME', 'Teacher notes', 'Student', 'Date'], fields)).toEqual(['student', 'note', '', '']);
  });
});

describe('dates of a file', () => {
  // ISO 8601, and the two orders of day and month that are in use.
  it.each([
    ['2026-03-04', 'monthFirst', '2026-03-04'],
    ['3/4/2026', 'monthFirst', '2026-03-04'],
    ['3/4/2026', 'dayFirst', '2026-04-03'],
    ['04.03.2026', 'dayFirst', '2026-03-04'],
    ['3/4/26', 'monthFirst', '2026-03-04'],
    ['Mar 4, 2026', 'dayFirst', '2026-03-04'],
    ['2026-03-04 10:30', 'monthFirst', '2026-03-04'],
  ] as const)('reads %s, %s', (text, order, day) => {
    expect(fileDay(text, order, today)).toEqual({ ok: true, value: day });
  });
  it.each(['3/4', 'Mar 4', '13/13/2026', 'soon', '', '2/29/2026'])('does not guess at %s', (text) => {
    expect(fileDay(text, 'monthFirst', today).ok).toBe(false);
  });
  it('finds the order where a date tells', () => {
    expect(guessDayOrder(['3/4/2026', '3/14/2026'])).toBe('monthFirst');
    expect(guessDayOrder(['3/4/2026', '14/3/2026'])).toBe('dayFirst');
    expect(guessDayOrder(['3.4.2026'])).toBe('dayFirst');
    expect(guessDayOrder(['3/4/2026'])).toBe('monthFirst');
  });
});

describe('a session in one cell', () => {
  it.each([
    ['3/5', null, { amount: 3, of: 5 }],
    ['3 of 5', null, { amount: 3, of: 5 }],
    ['60%', 10, { amount: 6, of: 10 }],
    ['60', 5, { amount: 3, of: 5 }],
    // A third, as people round it.
    ['33%', 6, { amount: 2, of: 6 }],
    ['67', 3, { amount: 2, of: 3 }],
    ['0', 5, { amount: 0, of: 5 }],
  ])('reads %s of %s', (text, planned, value) => {
    expect(shareCell(text, about, planned)).toEqual({ ok: true, value });
  });
  it('takes a column beside it, and shares written as 0.6', () => {
    expect(shareCell('3', { ...about, outOf: '5' }, null)).toEqual({ ok: true, value: { amount: 3, of: 5 } });
    expect(shareCell('0,6', { ...about, areFractions: true }, 10)).toEqual({ ok: true, value: { amount: 6, of: 10 } });
  });
  it.each([
    ['65%', 10, 'not a whole number'],
    ['60%', null, 'of how many'],
    ['6/5', null, 'more than there were'],
    ['0/0', null, 'no score'],
    ['120%', 10, 'outside'],
    ['good', 10, 'How many of how many'],
  ])('does not make up %s of %s', (text, planned, said) => {
    expect(shareCell(text, about, planned)).toEqual({ ok: false, message: expect.stringContaining(said) });
  });
  it('reads signs in order, and no total of items', () => {
    const steps = [{ key: 'a' }, { key: 'b' }, { key: 'c' }];
    expect(signsCell('+ − +', steps, 'step')).toEqual({ ok: true, value: { a: '+', b: '−', c: '+' } });
    expect(signsCell('2/3', steps, 'step').ok).toBe(false);
    expect(signsCell('++', steps, 'step')).toEqual({ ok: false, message: expect.stringContaining('there are 3') });
  });
});

describe('a criterion in words', () => {
  const trials = beginningOf('trials');
  it.each([
    ['80%', 80, { kind: 'ofLast', k: 3, n: 4 }, 'atLeast'],
    ['at least 80% in 3 of 4 sessions', 80, { kind: 'ofLast', k: 3, n: 4 }, 'atLeast'],
    ['90% over 4 out of 5 days', 90, { kind: 'ofLast', k: 4, n: 5 }, 'atLeast'],
    ['4/5 trials in 3 consecutive sessions', 80, { kind: 'inARow', n: 3 }, 'atLeast'],
    ['≥ 75 % 2 sessions in a row', 75, { kind: 'inARow', n: 2 }, 'atLeast'],
    ['no more than 20%', 20, { kind: 'ofLast', k: 3, n: 4 }, 'atMost'],
  ])('reads %s', (text, value, rule, comparison) => {
    expect(criterionCell(text, trials)).toMatchObject({ ok: true, value: { value, rule, comparison } });
  });
  it('does not guess what it cannot read', () => {
    expect(criterionCell('mastery', trials).ok).toBe(false);
    expect(criterionCell('80% in 3 sessions', trials).ok).toBe(false);
    expect(criterionCell('3/5', beginningOf('duration')).ok).toBe(false);
  });
});

const trials = beginningOf('trials');
const goals = [
  { studentId: id(1), number: '1', shortName: 'Asks', measure: trials, n: 11 },
  { studentId: id(1), number: '2', shortName: 'Begins', measure: beginningOf('latency'), n: 12 },
  { studentId: id(2), number: '1', shortName: 'Reads', measure: { ...trials, mostSupport: 'gesture' }, n: 21 },
];
const student = (n: number, first: string, last: string) => ({
  ...{ id: id(n), name: `${first} ${last}` },
  names: [`${first} ${last}`, `${last} ${first}`, first].map(plainText),
});
const facts: EntryFacts = {
  today,
  students: [student(1, 'Ansel', 'Dorsey'), student(2, 'Briar', 'Quillen'), student(3, 'Briar', 'Vale')],
  goals: goals.map(({ n, measure, ...goal }) => ({
    ...{
      ...goal,
      id: id(n),
      names: [goal.number, `goal ${goal.number}`, goal.shortName].map(plainText),
      opensOn: '2025-09-01',
    },
    measures: [{ version: 1, from: '2025-09-01', measure }],
  })),
  people: [{ id: id(90), names: ['lotte varga'], studentIds: [id(1)] }],
  locations: [{ id: id(80), names: ['workshop'] }],
  observerId: id(91),
  there: new Map(),
};
const planned = (csv: string, mapping: Record<string, unknown> = {}, more: Partial<EntryFacts> = {}) => {
  const table = tableFrom(csv);
  const all = { ...facts, ...more };
  return planEntries(table, entriesMapping.parse({ ...guessEntries(table, all), ...mapping }), all);
};
const firstMessage = (csv: string) => planned(csv).rows[0]?.messages[0];

describe('past entries', () => {
  it('long: a row is an entry, as the goal is measured', () => {
    const { commands, rows } = planned(`Student,Goal,Date,Score,Observer,Location,Notes
"Dorsey, Ansel",1,10/5/2026,8/10,Lotte Varga,Workshop,fine day
Ansel Dorsey,Begins,10/6/2026,12; 8; none,,,`);
    expect(rows.map(({ row, fate }) => [row, fate])).toEqual([
      [2, 'new'],
      [3, 'new'],
    ]);
    expect(commands[0]).toMatchObject({
      ...{ studentId: id(1), goalId: id(11), on: '2026-10-05', time: '12:00', note: 'fine day' },
      ...{ observerId: id(90), locationId: id(80), version: 1 },
      outcome: { data: { counts: { independent: 8, incorrect: 2 }, opportunities: 10 }, reason: null },
    });
    expect(commands[1]).toMatchObject({ observerId: id(91), outcome: { data: { responses: [12, 8, null] } } });
    expect(rows[0]?.says).toContain('8 of 10');
  });
  it('says so where a bare count does not tell how much help it took', () => {
    const [entry] = planned('Student,Date,Score\nBriar Quillen,10/5/2026,3/5').commands;
    expect(entry).toMatchObject({
      outcome: { data: { counts: { gesture: 3, incorrect: 2 } } },
      note: 'From a file: “3/5”, without how much help it took.',
    });
    const [least] = planned('Student,Date,Score\nBriar Quillen,10/5/2026,3/5', { help: 'least' }).commands;
    expect(least).toMatchObject({ outcome: { data: { counts: { independent: 3, incorrect: 2 } } } });
  });
  it('wide: a column is a goal, and a blank cell is nothing', () => {
    const csv = 'Date,Ansel Asks,Ansel Begins,Weather\n10/5/2026,7/10,,dry\n10/6/2026,,14,wet\n10/7/2026,Absent,0/10,';
    const table = tableFrom(csv);
    expect(guessEntries(table, facts).columns).toEqual(['on', goalColumn(id(11)), goalColumn(id(12)), '']);
    const { commands, rows } = planned(csv);
    expect(commands.map(({ goalId, on, outcome }) => [goalId, on, outcome.reason])).toEqual([
      [id(11), '2026-10-05', null],
      [id(12), '2026-10-06', null],
      [id(11), '2026-10-07', 'absent'],
    ]);
    expect(fateCounts(rows)).toMatchObject({ new: 3, wrong: 1 });
  });
  it('a column for each part of the score', () => {
    const { commands } = planned('Student,Goal,Date,Independent,Gesture,Incorrect\nAnsel Dorsey,1,10/5/2026,3,2,');
    expect(commands[0]?.outcome.data).toEqual({ counts: { independent: 3, gesture: 2 }, opportunities: 5 });
  });
  it('one that is there is not doubled, and twice in the file is twice', () => {
    const csv = 'Student,Goal,Date,Score\nAnsel Dorsey,1,10/5/2026,8/10\nAnsel Dorsey,1,10/5/2026,8/10';
    const outcome = { data: { opportunities: 10, counts: { incorrect: 2, independent: 8 } }, reason: null };
    const there = new Map([[entryMark(id(11), '2026-10-05', outcome), 1]]);
    expect(fateCounts(planned(csv).rows)).toMatchObject({ new: 2, there: 0 });
    expect(fateCounts(planned(csv, {}, { there }).rows)).toMatchObject({ new: 1, there: 1 });
  });
  it('takes the measure that held on the day', () => {
    const measures = [
      { version: 1, from: '2025-09-01', measure: trials },
      { version: 2, from: '2026-10-01', measure: beginningOf('latency') },
    ];
    const changed = [{ ...facts.goals[0], measures } as EntryFacts['goals'][number]];
    const csv = 'Student,Date,Score\nAnsel Dorsey,9/5/2026,8/10\nAnsel Dorsey,10/5/2026,12';
    expect(planned(csv, {}, { goals: changed }).commands.map(({ version }) => version)).toEqual([1, 2]);
  });
  it('merged cells go on with the one above, where that is said', () => {
    const csv = 'Student,Goal,Date,Score\nAnsel Dorsey,1,10/5/2026,8/10\n,1,10/6/2026,9/10\n,1,10/7/2026,9/10';
    expect(fateCounts(planned(csv, { fillsDown: true }).rows)).toMatchObject({ new: 3 });
    expect(planned(csv, { fillsDown: false }).rows[1]?.messages[0]).toContain('merged cell');
  });
  it.each([
    ['Briar,1,10/5/2026,3/5', 'could be more than one student'],
    ['Nobody Known,1,10/5/2026,3/5', 'nobody whom you observe'],
    ['Ansel Dorsey,7,10/5/2026,3/5', 'There are: 1 Asks; 2 Begins.'],
    ['Ansel Dorsey,1,10/5,3/5', 'with its year'],
    ['Ansel Dorsey,1,12/5/2026,3/5', 'in the future'],
    ['Ansel Dorsey,1,10/5/2024,3/5', 'The plan began on'],
    ['Ansel Dorsey,1,10/5/2026,made a date: 2026-03-05', 'made a date of it'],
    ['Ansel Dorsey,1,10/5/2026,great', 'Score: How many of how many'],
    ['Ansel Dorsey,2,10/5/2026,soon', 'Minutes and seconds'],
    ['Briar Vale,1,10/5/2026,3/5', 'has no goal yet'],
  ])('tells at the row what is wrong with %s', (row, said) => {
    expect(firstMessage(`Student,Goal,Date,Score\n${row}`)).toContain(said);
  });
});

describe('goals of a file', () => {
  const goalFacts: GoalFacts = {
    today,
    students: [
      { ...student(1, 'Ansel', 'Dorsey'), plan: null },
      { ...student(2, 'Briar', 'Quillen'), plan: { startsOn: '2026-09-01', endsOn: '2027-08-31' } },
    ],
    goals: [{ studentId: id(2), number: '1', wording: 'Briar reads six labels.' }],
  };
  const plan = (csv: string) => {
    const table = tableFrom(csv);
    return planGoals(table, guessGoals(table, goalFacts), goalFacts);
  };
  it('become goals, with the plan of a student who has none', () => {
    const { commands, rows } = plan(`Student,Goal number,Goal,Area,Measure,Trials,Criterion,Baseline,Plan start,Plan end
Ansel Dorsey,1,"Ansel will ask for a tool,
8 of 10 times.",Communication,percent correct,10,at least 80% in 3 of 4 sessions,40%,9/1/2026,8/31/2027
Ansel Dorsey,2,Ansel will begin within 15 seconds.,Work,Latency,,at most 15,,,`);
    expect(rows.map(({ messages }) => messages)).toEqual([[], []]);
    expect(commands[0]).toMatchObject({
      plan: { startsOn: '2026-09-01', endsOn: '2027-08-31' },
      goal: {
        ...{
          number: '1',
          wording: 'Ansel will ask for a tool,\n8 of 10 times.',
          area: 'Communication',
          baselineValue: 40,
        },
        ...{ baselineOn: '2026-09-01', startsOn: '2026-09-01', targetOn: '2027-08-31' },
        measure: { kind: 'trials', planned: 10 },
        criterion: { comparison: 'atLeast', value: 80, rule: { kind: 'ofLast', k: 3, n: 4 }, minimumOpportunities: 5 },
      },
    });
    expect(commands[1]).toMatchObject({
      plan: null,
      goal: { measure: { kind: 'latency' }, criterion: { comparison: 'atMost', value: 15 } },
    });
  });
  it('a goal that is there is not made twice, and a number is given once', () => {
    const { rows } = plan(`Student,Number,Wording
Briar Quillen,1,Briar reads six labels.
Briar Quillen,1,Another goal.
Briar Quillen,2,One.
Briar Quillen,2,Two.`);
    expect(rows.map(({ fate }) => fate)).toEqual(['there', 'wrong', 'new', 'wrong']);
  });
  it.each([
    ['Briar Quillen,3,Reads.,telepathy,80%', 'Measure: one of'],
    ['Briar Quillen,3,Reads.,trials,mastery', 'Criterion: A criterion such as'],
    ['Briar Quillen,3,Reads.,trials,120%', 'Criterion: This lies outside'],
    ['Briar Quillen,,Reads.,trials,80%', 'Number: Type the number'],
    ['Ansel Dorsey,3,Reads.,trials,80%', 'no plan yet'],
    ['Nobody,3,Reads.,trials,80%', 'nobody whose goals you set up'],
  ])('tells at the row what is wrong with %s', (row, said) => {
    const { rows } = plan(`Student,Number,Wording,Measure,Criterion\n${row}`);
    expect(rows[0]?.messages.join(' ')).toContain(said);
  });
});

describe('incidents of a file', () => {
  const choice = {
    words: '',
    discreetWord: '',
    unlike: '',
    direction: 'decrease',
    abc: true,
    counted: false,
    timed: false,
    state: 'offered',
    mergedInto: null,
    locationId: null,
  } as const;
  const incidentFacts = {
    ...{ today, students: facts.students, people: facts.people, observerId: id(91), there: new Map<string, number>() },
    choices: new Map([
      [
        id(1),
        [
          { ...choice, id: id(70), kind: 'behavior' as const, name: 'Runs off' },
          { ...choice, id: id(71), kind: 'antecedent' as const, name: 'Loud saw', mergedInto: id(72) },
          { ...choice, id: id(72), kind: 'antecedent' as const, name: 'Noise' },
        ],
      ],
    ]),
  };
  const plan = (csv: string, more = {}) => {
    const table = tableFrom(csv);
    return planIncidents(table, guessIncidents(table, incidentFacts), { ...incidentFacts, ...more });
  };
  it('name the student’s own choices, merged ones as what they are now; what is new is told', () => {
    const { commands, notes } = plan(`Student,Date,Time,A,B,C,Duration (min)
Ansel Dorsey,10/5/2026,9:15,loud saw,Runs off; throws,Redirected,2
Ansel Dorsey,10/6/2026,,Noise,runs off,Redirected,1:30`);
    expect(commands[0]).toMatchObject({ time: '09:15', seconds: 120 });
    expect(commands[0]?.named).toEqual([
      { kind: 'behavior', id: id(70), name: 'Runs off' },
      { kind: 'behavior', id: null, name: 'throws' },
      { kind: 'antecedent', id: id(72), name: 'Loud saw' },
      { kind: 'consequence', id: null, name: 'Redirected' },
    ]);
    expect(commands[1]).toMatchObject({ time: '12:00', seconds: 90 });
    expect(notes).toEqual([
      'Ansel Dorsey, behavior: “throws” (1 time)',
      'Ansel Dorsey, consequence: “Redirected” (2 times)',
    ]);
  });
  it('one that is there is not doubled', () => {
    const there = new Map([[incidentMark(id(1), '2026-10-05', '09:15', ['Runs off']), 1]]);
    const { rows } = plan('Student,Date,Time,Behavior\nAnsel Dorsey,10/5/2026,9:15,runs off', { there });
    expect(rows[0]?.fate).toBe('there');
  });
  it('says what is missing', () => {
    const { rows } = plan('Student,Date,Time,Behavior,Duration\nAnsel Dorsey,10/5/2026,25:00,,long');
    expect(rows[0]?.messages.join(' ')).toMatch(/Time:.*Duration:.*Behavior: say what happened/);
  });
});

describe('a roster', () => {
  const rosterFacts: RosterFacts = {
    students: [
      {
        id: id(1),
        firstName: 'Ansel',
        lastName: 'Dorsey',
        grade: '4',
        sourcedId: 's-1',
        groups: ['Oaks'],
        isArchived: false,
        managerId: id(91),
      },
      {
        id: id(2),
        firstName: 'Briar',
        lastName: 'Quillen',
        grade: '5',
        sourcedId: null,
        groups: [],
        isArchived: true,
        managerId: id(91),
      },
      {
        id: id(3),
        firstName: 'Jory',
        lastName: 'Whitlock',
        grade: '6',
        sourcedId: 's-3',
        groups: [],
        isArchived: false,
        managerId: id(91),
      },
    ],
    staff: [{ id: id(91), name: 'Hanneke Bruun', email: 'hanneke@school.example' }],
  };
  const plan = (csv: string, mapping: Record<string, unknown> = {}) => {
    const table = tableFrom(csv);
    const said = rosterMapping.parse({ ...guessRoster(table), managerId: id(91), ...mapping });
    return planRoster(rosterEntries(table, said), said, rosterFacts);
  };
  const head = 'First name,Last name,Student id,Grade,Group,Case manager,Case manager email';
  it('tells who is new, changed, there, and gone', () => {
    const { rows, commands } = plan(
      `${head}
Ansel,Dorsey,s-1,5,Oaks,Hanneke Bruun,hanneke@school.example
Briar,Quillen,s-2,5,,,
Emrys,Vale,s-9,4,Oaks; Garden,Lena Ortiz,lena@school.example`,
      { isWhole: true },
    );
    expect(rows.map(({ about, fate }) => [about, fate])).toEqual([
      ['Ansel Dorsey', 'changed'],
      ['Briar Quillen', 'changed'],
      ['Emrys Vale', 'new'],
      ['Jory Whitlock', 'gone'],
    ]);
    expect(rows[0]?.says).toBe('Grade: Grade 4 → Grade 5');
    expect(rows[1]?.says).toContain('Was archived');
    expect(commands[2]).toMatchObject({
      managerId: id(91),
      awaited: [{ email: 'lena@school.example', role: 'caseManager' }],
    });
  });
  it('archives nobody where the file is of some', () => {
    expect(plan(`${head}\nAnsel,Dorsey,s-1,4,Oaks,,`).rows.map(({ fate }) => fate)).toEqual(['there']);
  });
  it('reads whole names both ways', () => {
    const { rows } = plan('Student,Grade\n"Vale, Emrys",4\nNell Zapata,5');
    expect(rows.map(({ about, fate }) => [about, fate])).toEqual([
      ['Emrys Vale', 'new'],
      ['Nell Zapata', 'new'],
    ]);
  });
  it.each([
    ['Ansell,Dorsey,,4,,,', 'there is already Ansel Dorsey'],
    ['Emrys,,,4,,,', 'first and last name'],
    ['Emrys,Vale,,,,,', 'Grade: say which'],
    ['Emrys,Vale,,99,,,', '“99” is none'],
    // One number, two names: a new name, or another student.
    ['Emrys,Vale,s-3,6,,,', 's-3 is Jory Whitlock'],
    // The same name and grade under another number.
    ['Ansel,Dorsey,s-77,4,,,', 'there is already Ansel Dorsey'],
    ['Emrys,Vale,,4,,,not-an-address', 'does not look like an address'],
  ])('asks about %s', (row, said) => {
    expect(plan(`${head}\n${row}`).rows[0]?.messages.join(' ')).toContain(said);
  });
  it('two of one name are told apart by their numbers, or asked about', () => {
    const same = `${head}\nNell,Zapata,,5,,,\nNell,Zapata,,5,,,`;
    expect(plan(same).rows[1]?.messages[0]).toContain('Row 2 is the same student');
    const apart = `${head}\nNell,Zapata,s-7,5,,,\nNell,Zapata,s-8,5,,,`;
    expect(plan(apart).rows[1]?.messages[0]).toContain('row 2 has the same name and grade');
    expect(plan(apart, { isSomeoneElse: true }).rows.map(({ fate }) => fate)).toEqual(['new', 'new']);
  });
  it('a number is the same with or without the zeros that it begins with', () => {
    const known = { ...rosterFacts.students[0]!, sourcedId: '000454' };
    const table = tableFrom(`${head}\nAnsel,Dorsey,454,4,Oaks,,`);
    const said = rosterMapping.parse(guessRoster(table));
    const planned = planRoster(rosterEntries(table, said), said, { ...rosterFacts, students: [known] });
    expect(planned.rows.map(({ fate }) => fate)).toEqual(['there']);
    const twice = plan(`${head}\nNell,Zapata,0071,5,,,\nNell,Zapata,71,5,,,`);
    expect(twice.rows[1]?.messages[0]).toContain('Row 2 is the same student');
  });
  it('a new name is taken over where it is said to be one', () => {
    const renamed = plan(`${head}\nEmrys,Vale,s-3,6,,,`, { isRenamed: true });
    expect(renamed.rows[0]).toMatchObject({ fate: 'changed', says: 'Name: Jory Whitlock → Emrys Vale' });
  });
  it('never takes a family’s address, or a student’s, for that of a member of staff', () => {
    const of = (heading: string) =>
      guessRoster(tableFrom(`First name,Last name,Grade,${heading}\nA,B,4,x@home.example`)).columns[3];
    for (const heading of [
      'Parent Email',
      'Guardian teacher email',
      'Email',
      'Student Email',
      'Family contact email',
      'Email of mother',
    ])
      expect(of(heading), heading).toBe('');
    expect(of('Case manager email')).toBe('managerEmail');
  });
  it('archives nobody unless it is said that the file is of everybody', () => {
    const table = tableFrom(`${head}\nAnsel,Dorsey,s-1,4,Oaks,,`);
    expect(guessRoster(table)).toMatchObject({ isWhole: false, managerId: null, invites: [] });
  });
});

// Names of files and columns as in the CSV binding of OneRoster 1.2 (1EdTech), from memory; what stands in them is made up.
describe('OneRoster 1.2', () => {
  const lines = (csv: string) => Papa.parse<Record<string, string>>(csv.trim(), { header: true }).data;
  const files = (more: Record<string, string> = {}) =>
    new Map(
      Object.entries({
        'manifest.csv': 'propertyName,value\nmanifest.version,1.0\noneroster.version,1.2',
        'orgs.csv': 'sourcedId,status,name,type\no1,,Alder School,school\nd1,,District,district',
        'academicSessions.csv':
          'sourcedId,title,type,startDate,endDate\nt1,Fall,term,2026-09-01,2027-01-31\nt0,Last,term,2025-09-01,2026-06-30',
        'classes.csv': 'sourcedId,title,schoolSourcedId,termSourcedIds\nc1,Workshop A,o1,t1\nc0,Old class,o1,t0',
        'users.csv':
          'sourcedId,status,enabledUser,givenName,familyName,email,grades\nu1,,true,Ansel,Dorsey,,04\nu2,,true,Lena,Ortiz,lena@school.example,\nu3,tobedeleted,true,Nell,Zapata,,05',
        'roles.csv': 'sourcedId,userSourcedId,role,orgSourcedId\nr1,u1,student,o1\nr2,u2,teacher,o1',
        'enrollments.csv':
          'sourcedId,classSourcedId,userSourcedId,role,primary\ne1,c1,u1,student,\ne2,c1,u2,teacher,true\ne3,c1,u3,student,',
        ...more,
      }).map(([name, csv]) => [name, lines(csv)] as const),
    );
  it('gives students with their classes and who teaches them', () => {
    const found = readOneRoster(files(), today);
    expect(found.classes.map(({ title }) => title)).toEqual(['Workshop A']);
    expect(oneRosterEntries(found, { org: 'o1', classes: ['c1'] })).toEqual([
      {
        ...{
          row: null,
          firstName: 'Ansel',
          lastName: 'Dorsey',
          grade: 'Grade 4',
          sourcedId: 'u1',
          otherId: 'u1',
          messages: [],
        },
        groups: [{ name: 'Workshop A', sourcedId: 'c1' }],
        teachers: [{ name: 'Lena Ortiz', email: 'lena@school.example' }],
      },
    ]);
  });
  it('gives the school’s own number, where there is one', () => {
    const users =
      'sourcedId,status,enabledUser,givenName,familyName,identifier,email,grades\nu1,,true,Ansel,Dorsey,000454,,KG\nu2,,true,Lena,Ortiz,,lena@school.example,\nu3,,true,Nell,Zapata,,,05';
    const [entry] = oneRosterEntries(readOneRoster(files({ 'users.csv': users }), today), {
      org: 'o1',
      classes: ['c1'],
    });
    expect(entry).toMatchObject({ sourcedId: '000454', otherId: 'u1', grade: 'K' });
  });
  it('says which part is missing, and of which version it is', () => {
    const without = files();
    without.delete('roles.csv');
    expect(() => readOneRoster(without, today)).toThrow('roles.csv is missing');
    expect(() => readOneRoster(files({ 'users.csv': 'sourcedId,name\nu1,Ansel' }), today)).toThrow(
      'no column givenName, familyName',
    );
    expect(() => readOneRoster(files({ 'manifest.csv': 'propertyName,value\noneroster.version,1.1' }), today)).toThrow(
      '1.1',
    );
    expect(isOneRoster(['users.csv', 'orgs.csv'])).toBe(true);
    expect(isOneRoster(['entries.csv'])).toBe(false);
  });
});
