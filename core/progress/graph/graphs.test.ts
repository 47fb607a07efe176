import { describe, expect, it } from 'vitest';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { progressOf } from '../progress';
import { joinedRuns } from '../series';
import { goalGraph } from './goal-graph';
import { GRAPH, smallGraphShape } from './small-graph-shape';

const goal = goalOf({
  phases: [
    { label: 'Baseline', startsOn: '2026-09-01', isBaseline: true },
    { label: 'New support', startsOn: '2026-09-04', isBaseline: false },
  ],
});
const sessions = ['2026-09-01', '2026-09-02', '2026-09-03', '2026-09-04', '2026-09-07', '2026-10-07'].map((on) =>
  session(on, 4),
);
const today = '2026-10-08';
const progress = progressOf(goal, sessions, { calendar, today });

describe('graphs', () => {
  it('never join points across a phase line or a long gap', () => {
    expect(joinedRuns(progress.points).map((run) => run.length)).toEqual([3, 2, 1]);
    const { line, dots, phaseLines } = smallGraphShape(goal, progress, today);
    expect(line.match(/M/g)).toHaveLength(3);
    expect(dots.match(/h0/g)).toHaveLength(6);
    expect(phaseLines).toHaveLength(1);
  });

  it('stay within the picture and put the target zone where it belongs', () => {
    const { line, band, caption } = smallGraphShape(goal, progress, today);
    const numbers = line.match(/[\d.]+/g)?.map(Number) ?? [];
    expect(Math.max(...numbers)).toBeLessThanOrEqual(GRAPH.width);
    expect(Math.min(...numbers)).toBeGreaterThanOrEqual(0);
    expect(band.y).toBe(0);
    const down = goalOf({ criterion: { comparison: 'atMost', value: 20, rule: { kind: 'inARow', n: 1 } }, target: 20 });
    expect(smallGraphShape(down, progress, today).band).toMatchObject({
      y: expect.any(Number),
      edge: expect.any(Number),
    });
    expect(smallGraphShape(down, progress, today).band.y).toBeGreaterThan(GRAPH.height / 2);
    expect(caption).toBe('6 scores from Sep 1 to Oct 7; now 40%, target 80%.');
  });

  it('draw nothing of a goal without points', () => {
    const none = progressOf(goal, [], { calendar, today });
    expect(smallGraphShape(goal, none, today)).toMatchObject({
      line: '',
      dots: '',
      aimLine: '',
      caption: 'No scores yet.',
    });
  });

  it('say each point in words', () => {
    const entry = { id: '2026-09-01 4', observer: 'H. Bruun', location: 'Kitchen', note: 'Warm hands.' } as Parameters<
      typeof goalGraph
    >[2][number];
    const graph = goalGraph(goal, progress, [entry], today);
    expect(graph.runs[0]?.[0]?.said).toBe('Tue, Sep 1, 2026: 4 of 10, 40% · H. Bruun · Kitchen · Warm hands.');
    expect(graph.to > today).toBe(true);
  });
});
