import { describe, expect, it } from 'vitest';
import type { GoalGraph } from '~/core/progress/graph/goal-graph';
import { graphSizes, graphSvg } from './graph-svg';

const at = (on: string, value: number) => ({ on, value, said: '' });
const graph: GoalGraph = {
  runs: [[at('2026-09-08', 20), at('2026-09-10', 40)], [at('2026-10-08', 60)]],
  aimLine: [
    { on: '2026-09-08', value: 20 },
    { on: '2026-11-07', value: 80 },
  ],
  ...{ trend: null, phases: [{ on: '2026-10-01', label: 'A & <b>' }], from: '2026-09-08', to: '2026-10-08' },
  ...{ target: 80, isUp: true, max: 100, unit: '%', caption: '' },
};
const numbers = (d: string) => [...d.matchAll(/-?[\d.]+/g)].map(([n]) => Number(n));
const paths = (svg: string, stroke: string) =>
  [...svg.matchAll(/<path d="([^"]+)"[^>]*stroke="([^"]+)"/g)]
    .filter(([, , of]) => of === stroke)
    .map(([, d]) => d ?? '');

describe('a goal’s graph on paper', () => {
  it('joins points within a stretch only, and marks each', () => {
    const svg = graphSvg(graph);
    const lines = paths(svg, '#23675c');
    expect(lines).toHaveLength(2);
    expect(numbers(lines[0] ?? '')).toHaveLength(4);
    expect(svg.match(/<circle /g)).toHaveLength(3);
  });

  it('ends its course where the graph ends: half of the way in dates is half of the way in value', () => {
    const [course = ''] = paths(graphSvg(graph), '#5c6566');
    const [x0, y0, x1, y1] = numbers(course) as [number, number, number, number];
    // From 20 to 80 over 60 days; the graph shows 30 of them, up to 50. The plot is 132 points high for 100%.
    expect(x0).toBe(40);
    expect(x1).toBe(graphSizes.large.width - 20);
    expect(y0 - y1).toBeCloseTo(0.3 * 132, 1);
  });

  it('draws the target from its value to the better end', () => {
    const height = (isUp: boolean) => Number(/<rect [^>]*height="([\d.]+)"/.exec(graphSvg({ ...graph, isUp }))?.[1]);
    expect(height(true)).toBeCloseTo(0.2 * 132, 1);
    expect(height(false)).toBeCloseTo(0.8 * 132, 1);
    expect(graphSvg({ ...graph, target: null })).not.toContain('<rect');
  });

  it('holds words as words, whatever is in them', () => {
    expect(graphSvg(graph)).toContain('A &amp; &lt;b&gt;');
    expect(graphSvg({ ...graph, phases: [{ on: '2027-01-01', label: 'Later' }] })).not.toContain('Later');
  });
});
