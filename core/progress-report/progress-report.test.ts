import { describe, expect, it } from 'vitest';
import { calendar, goalOf, session } from '~/tests/examples/series';
import {
  issueWords,
  progressReportDocument,
  progressReportFor,
  progressTable,
} from '../documents/progress-report-document';
import { shownFields } from '../sharing/visibility-rule';
import { noWords, type RichText } from '../words/rich-text';
import { behaviorBrief } from './behavior-brief';
import { goalReport, missingIn, type ProgressReport } from './content';
import { draftInput } from './input';

const PERIOD = { from: '2026-09-08', to: '2026-10-30' };
const goal = {
  ...goalOf({ baseline: { value: 20, on: '2026-09-08' } }),
  ...{ id: 'goal', number: '1', shortName: 'Sands', wording: 'Sands to the line.' },
};
const report = (sessions: ReturnType<typeof session>[], today = '2026-10-30') =>
  goalReport(goal, sessions, PERIOD, noWords, { calendar, today });
const weekly = (n: number, right: (i: number) => number) =>
  Array.from({ length: n }, (_, i) => session(`2026-09-${String(9 + 2 * i).padStart(2, '0')}`, right(i)));

describe('what a progress report says of a goal', () => {
  it('is baseline, present, target and way, counted by hand', () => {
    // 4, 5, 6 of 10 each: the median of the last three points is 50%; (50 − 20) / (80 − 20) is half the way.
    const said = report(weekly(3, (i) => 4 + i));
    expect(said).toMatchObject({
      ...{ baseline: '20%, on Sep 8, 2026', now: '50%', inPeriod: 3 },
      way: '50% of the way from baseline to target.',
    });
    expect(said.target).toMatch(/^80%, by /);
  });

  it('says in words what lies beyond either end', () => {
    expect(report(weekly(3, () => 1)).way).toBe('None yet: now 10%, below the start of 20%.');
    expect(report(weekly(3, () => 10)).way).toBe('Past the target.');
  });

  it('knows nothing of what came after the period, and is as of today while it goes on', () => {
    const later = session('2026-11-05', 10);
    expect(report([...weekly(3, () => 4), later], '2026-11-24')).toEqual(
      report(
        weekly(3, () => 4),
        '2026-11-24',
      ),
    );
    const ahead = session('2026-09-20', 10);
    expect(report([...weekly(3, () => 4), ahead], '2026-09-15').now).toBe('40%');
  });

  it('says that there is nothing, where nothing was seen', () => {
    const said = report([]);
    expect(said).toMatchObject({ now: null, way: null, graph: null, evidence: 'No observation yet.', inPeriod: 0 });
  });

  it('counts the people who observed, and what of it was in this period', () => {
    const earlier = session('2026-09-01', 5);
    const { evidence } = report([earlier, ...weekly(2, () => 5)]);
    expect(evidence).toMatch(
      /^3 observations( by \d (person|people))? since the plan began, 2 of them in this period\.$/,
    );
  });
});

const whole = (changes: Partial<ProgressReport> = {}): ProgressReport => ({
  student: { name: 'Ada Example', shortName: 'Ada E.', grade: 'Grade 4', groups: ['Garden group'] },
  ...{ schoolName: 'Test School', caseManager: 'H. Manager', plan: { startsOn: '2026-09-08', endsOn: '2027-06-11' } },
  period: { label: 'Quarter 1', ...PERIOD },
  ...{ goals: [report(weekly(3, () => 5))], behavior: ['Leaves: 3 times.'], words: noWords },
  ...changes,
});

describe('a draft before it is issued', () => {
  it('lacks goals without data or baseline, and the end of its period', () => {
    const bare = { ...report([]), goalId: 'b', number: '2' };
    const noBaseline = { ...report(weekly(3, () => 5)), baseline: null, goalId: 'c', number: '3' };
    const texts = missingIn(whole({ goals: [...whole().goals, bare, noBaseline] }), '2026-10-12').map(
      ({ text }) => text,
    );
    expect(texts).toEqual([
      '2 Sands: nothing was observed in this period.',
      '3 Sands: there is no baseline.',
      'The period is not over: it ends on Oct 30.',
    ]);
    expect(missingIn(whole(), '2026-10-30')).toEqual([]);
    expect(missingIn(whole({ goals: [] }), '2026-10-30')).toHaveLength(1);
  });
});

describe('a progress report as a document', () => {
  const words = (text: string): RichText => ({
    type: 'doc',
    content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
  });
  const textOf = (paper: ReturnType<typeof progressReportDocument>) => JSON.stringify(paper.blocks);

  it('is numbered and dated when it is issued, and says what it replaces', () => {
    expect(issueWords(null)).toBe('Draft: not issued');
    expect(issueWords({ number: 1, issuedOn: '2026-10-30', replaces: null })).toBe('No. 1, issued Fri, Oct 30, 2026');
    expect(issueWords({ number: 3, issuedOn: '2026-10-30', replaces: 2 })).toMatch(/, in place of no\. 2$/);
  });

  it('names its one student and its period at the head of each page', () => {
    expect(progressReportDocument(whole(), null).head).toBe(
      'Ada E. · progress report · Quarter 1, Sep 8 – Oct 30, 2026 · Test School',
    );
  });

  it('holds own words only where there are any, and ends with signatures', () => {
    const paper = progressReportDocument(whole({ words: words('For the whole') }), null);
    expect(paper.blocks.filter(({ kind }) => kind === 'rich')).toHaveLength(1);
    expect(textOf(paper)).toContain('For the whole');
    expect(paper.blocks.at(-1)).toMatchObject({
      kind: 'signatures',
      names: ['Case manager', 'Parent or guardian', 'Student'],
    });
    expect(progressReportDocument(whole(), null).blocks.some(({ kind }) => kind === 'rich')).toBe(false);
  });

  it('shows behavior to readers who are shown ABC notes', () => {
    const seen = (fields: Parameters<typeof shownFields>[0]) =>
      textOf(progressReportDocument(progressReportFor(whole(), shownFields(fields)), null)).includes('Leaves: 3 times');
    expect([seen(['numbers', 'abc']), seen(['numbers'])]).toEqual([true, false]);
  });

  it('is a row for each goal in a file', () => {
    const { fields, rows } = progressTable(whole());
    expect(rows).toHaveLength(1);
    expect(rows[0]).toHaveLength(fields.length);
    expect(rows[0]?.[fields.indexOf('now')]).toBe('50%');
  });
});

describe('behavior in brief', () => {
  const note = (on: string, ...behaviors: string[]) => ({ on, behaviors });
  const before = { from: '2026-09-07', to: '2026-09-11' };
  const period = { from: '2026-09-14', to: '2026-09-18' };
  const when = { calendar: { weekdays: [1, 2, 3, 4, 5], closures: [] }, today: '2026-11-24', since: '2026-09-07' };

  it('is how often, per school day, and against the period before', () => {
    const notes = [
      ...['2026-09-07', '2026-09-08', '2026-09-09', '2026-09-10'].map((on) => note(on, 'Leaves')),
      ...['2026-09-14', '2026-09-15'].map((on) => note(on, 'Leaves', 'Shouts')),
    ];
    const [leaves, shouts] = behaviorBrief(notes, period, before, when);
    // 2 on 5 school days against 4 on 5: half as many.
    expect(leaves).toMatch(
      /^Leaves: 2 times in 5 school days, 0\.4 a day\. Against the period before, 0\.5 times as many a school day; likely /,
    );
    expect(shouts).toBe('Shouts: 2 times in 5 school days, 0.4 a day.');
  });

  it('says of what was noted only before that it was not noted, and nothing where nobody followed behavior', () => {
    const notes = [note('2026-09-08', 'Leaves')];
    expect(behaviorBrief(notes, period, before, when)[0]).toMatch(/^Leaves: none in 5 school days, 0 a day\./);
    expect(behaviorBrief([], period, before, { ...when, since: null })).toEqual([]);
    expect(behaviorBrief(notes, period, null, { ...when, since: '2026-10-01' })).toEqual([]);
  });

  it('has no rate for a period without a school day, and counts days only since the first note', () => {
    const holiday = {
      ...when,
      calendar: { weekdays: [1, 2, 3, 4, 5], closures: [{ first: '2026-09-14', last: '2026-09-18' }] },
    };
    expect(behaviorBrief([note('2026-09-15', 'Leaves')], period, null, holiday)).toEqual(['Leaves: 1 time.']);
    const late = { ...when, since: '2026-09-17' };
    expect(behaviorBrief([note('2026-09-17', 'Leaves')], period, null, late)).toEqual([
      'Leaves: 1 time in 2 school days, 0.5 a day.',
    ]);
  });
});

describe('what a draft’s form sends', () => {
  const id = '7f0f2c1e-5a0f-4d0c-8a43-111111111111';
  const send = (content: unknown) =>
    draftInput.safeParse({
      period: '2026-10-30',
      version: 0,
      words: { whole: noWords, goals: { [id]: { type: 'doc', content } } },
    }).success;

  it('is paragraphs and lists with bold and italic, and nothing else', () => {
    const paragraph = (...content: unknown[]) => ({ type: 'paragraph', content });
    const bold = { type: 'text', text: 'x', marks: [{ type: 'bold' }] };
    expect(send([paragraph(bold, { type: 'hardBreak' })])).toBe(true);
    expect(send([{ type: 'bulletList', content: [{ type: 'listItem', content: [paragraph(bold)] }] }])).toBe(true);
    expect(send([{ type: 'heading', content: [bold] }])).toBe(false);
    expect(
      send([paragraph({ type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:x' } }] })]),
    ).toBe(false);
    expect(send([paragraph({ type: 'image', attrs: { src: 'http://elsewhere' } })])).toBe(false);
  });
});
