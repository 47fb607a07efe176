import { describe, expect, it } from 'vitest';
import { calendar, goalOf, session } from '~/tests/examples/series';
import {
  progressReportDocument,
  progressReportFor,
  progressReportOutside,
} from '../documents/progress-report-document';
import type { GoalDefinition } from '../goals/goal';
import { everything, shownFields } from '../sharing/visibility-rule';
import { noWords } from '../words/rich-text';
import { goalReport, type ProgressReport } from './content';
import type { FurtherSession } from './further';

const PERIOD = { from: '2026-09-08', to: '2026-10-30' };
const about = { id: 'goal', number: '1', shortName: 'Sands', wording: 'Sands to the line beside Wren.' };
const goal = { ...goalOf({}), ...about };
const day = (n: number) => `2026-09-${String(8 + n).padStart(2, '0')}`;

/** Sessions as they are kept, each with what is said beside it. */
const kept = (sessions: ReturnType<typeof session>[], of: GoalDefinition, changes: Partial<FurtherSession>[] = []) =>
  sessions.map(
    (one, at): FurtherSession => ({
      ...{ id: `s${at}`, on: one.on, outcome: one.outcome, fidelity: null, pairsWith: null },
      ...{ measure: of.measure, isAsNow: true },
      ...changes[at],
    }),
  );
const facts = (of: Parameters<typeof goalReport>[0], all: FurtherSession[], counting = all) => {
  const sessions = counting.map(({ on, outcome, id }) => ({ id, on, outcome, location: null, observer: 'a' }));
  const when = { calendar, today: '2026-10-30', all };
  return Object.fromEntries(goalReport(of, sessions, PERIOD, noWords, when).further ?? []);
};

describe('what a progress report says besides the figure', () => {
  it('pools the opportunities of the period by support level, with their counts; of the time before, nothing', () => {
    // 4 + 6 of 20 alone; the ten of September 1 lie before the period.
    const sessions = [session('2026-09-01', 10), session(day(1), 4), session(day(2), 6)];
    expect(facts(goal, kept(sessions, goal))).toEqual({
      'Support levels': 'Independent 10 (50%), Incorrect 10 (50%), of 20 opportunities in 2 sessions in this period.',
    });
  });

  it('says which points are partial, by hand: three of five opportunities that the criterion asks for', () => {
    const strict = { ...goal, criterion: { ...goal.criterion, minimumOpportunities: 5 } };
    const sessions = [session(day(1), 3, 3), session(day(2), 6)];
    expect(facts(strict, kept(sessions, strict)).Partial).toBe(
      '1 of 2 points hold less than the 5 that the criterion asks for; they count neither for nor against it.',
    );
  });

  it('says how far two observers agree, where some session was seen by two', () => {
    const sessions = [session(day(1), 10), session(day(1), 10), session(day(2), 5)];
    const all = kept(sessions, goal, [{}, { pairsWith: 's0' }]);
    const counting = all.filter(({ pairsWith }) => pairsWith === null);
    // One of two sessions; all ten tries alike.
    expect(facts(goal, all, counting).Agreement).toBe(
      'So far: 1 of 2 sessions were seen by two (50%); they agree to 100% in the mean.',
    );
  });

  it('says how far the support in place was carried out, and that a goal is retired', () => {
    const phased = { ...goal, phases: [{ label: 'Cards', startsOn: '2026-09-01', isBaseline: false }] };
    const marks = [
      { key: 'a', label: 'Waits', isDone: true },
      { key: 'b', label: 'Shows', isDone: false },
    ];
    const all = kept([session(day(1), 4), session(day(2), 6)], phased, [{ fidelity: marks }]);
    const found = facts({ ...phased, retired: { on: '2026-10-20', how: 'met' as const } }, all);
    expect(found.Fidelity).toBe('Cards, since Sep 1: 50% of its steps were done, as said in 1 of 2 sessions.');
    expect(found.Retired).toBe('Met, on Oct 20.');
    // What comes after the report is not known to it.
    expect(facts({ ...phased, retired: { on: '2026-11-20', how: 'met' as const } }, all).Retired).toBeUndefined();
  });

  it('ends its graph with the period', () => {
    const sessions = kept([session(day(1), 4), session(day(2), 6)], goal);
    const counting = sessions.map(({ id, on, outcome }) => ({ id, on, outcome, location: null, observer: 'a' }));
    const { graph } = goalReport(goal, counting, PERIOD, noWords, { calendar, today: '2026-12-24', all: sessions });
    expect(graph?.to).toBe(PERIOD.to);
  });
});

describe('one issued report', () => {
  const sessions = [session(day(1), 4), session(day(2), 6)];
  const report: ProgressReport = {
    student: { name: 'Ada Example', shortName: 'Ada E.', grade: 'Grade 4', groups: [] },
    ...{ schoolName: 'Test School', caseManager: 'H. M.', plan: { startsOn: '2026-09-08', endsOn: '2027-06-11' } },
    period: { label: 'Quarter 1', ...PERIOD },
    goals: [goalReport(goal, sessions, PERIOD, noWords, { calendar, today: '2026-10-30' })],
    ...{ behavior: ['Leaves: 3 times.'], words: noWords },
  };
  const textOf = (of: ProgressReport) => JSON.stringify(progressReportDocument(of, null).blocks);

  it('is the same for all, and says to whoever is not shown it what is left out', () => {
    expect(textOf(report)).not.toContain('Left out');
    const withoutBehavior = progressReportFor(report, shownFields(['numbers']));
    expect(textOf(withoutBehavior)).toContain('Left out for this reader: behavior in brief.');
    const outside = progressReportOutside(report, shownFields(['numbers']), (text) =>
      text.replace('Wren', 'a classmate'),
    );
    expect(textOf(outside)).toContain('Left out for this reader: behavior in brief and names of other children.');
    // Where nothing was to be hidden, nothing is said.
    expect(textOf(progressReportOutside(report, everything, (text) => text))).not.toContain('Left out');
  });

  it('carries what a family states of it, before its signatures', () => {
    const statement = {
      ...{ kind: 'statement' as const, to: null, outcome: null, on: '2026-11-20', text: 'It is otherwise at home.' },
      by: { kind: 'family' as const, name: 'Aunt Ida', linkId: 'l' },
    };
    const issue = { number: 1, issuedOn: '2026-11-10', replaces: null, statements: [statement] };
    const { blocks } = progressReportDocument(report, issue);
    expect(blocks.slice(-3)).toEqual([
      { kind: 'heading', level: 3, text: 'Aunt Ida, a statement, Fri, Nov 20, 2026' },
      { kind: 'text', text: 'It is otherwise at home.' },
      expect.objectContaining({ kind: 'signatures' }),
    ]);
  });
});
