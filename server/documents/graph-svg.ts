import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { dayNumber, type IsoDate, isoDate, shortDate } from '~/core/calendar/iso-date';
import type { GoalGraph } from '~/core/progress/graph/goal-graph';

/** The sizes of a graph: on paper in points, of one that is read and of one beside others; on a page as wide as a phone. */
export const graphSizes = {
  large: { width: 480, height: 170, words: 8.5, days: 5, values: 5 },
  small: { width: 480, height: 88, words: 8.5, days: 5, values: 2 },
  onScreen: { width: 340, height: 104, words: 11, days: 2, values: 2 },
};

interface GraphForm {
  size?: keyof typeof graphSizes;
  /** The face of its words. */
  face?: string;
}
const edge = { left: 40, right: 20, top: 16, bottom: 22 };

const ink = { text: '#333d3e', quiet: '#5c6566', rule: '#dcd9d0', fern: '#23675c', clay: '#a65a35', band: '#e6f2ee' };

/** How wide a letter is for its size, about. */
const LETTER = 0.6;

interface At {
  on: IsoDate;
  value: number;
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter] ?? letter);
const round = (n: number) => Math.round(n * 100) / 100;

/**
 * A goal’s graph as a drawing, by the conventions of single-case graphs: points joined within a phase only, phase lines dashed
 * with a label, the aim line dotted, the target as a band, y from 0.
 */
export function graphSvg(graph: GoalGraph, { size = 'large', face = 'Arial, sans-serif' }: GraphForm = {}): string {
  const { width, height, words: wordSize, days: dayCount, values } = graphSizes[size];
  const days = { from: dayNumber(graph.from), to: dayNumber(graph.to) };
  const x = scaleLinear([days.from, days.to], [edge.left, width - edge.right]);
  const y = scaleLinear([0, graph.max], [height - edge.bottom, edge.top]).clamp(true);
  const at = ({ on, value }: At): [number, number] => [round(x(dayNumber(on))), round(y(value))];
  const path = line();
  const joined = (points: At[]) => path(points.map(at)) ?? '';
  const words = (text: string, px: number, py: number, more = '') =>
    `<text x="${round(px)}" y="${round(py)}" font-family="${face}" font-size="${wordSize}" fill="${ink.quiet}" ${more}>${escaped(text)}</text>`;
  const parts = [
    ...(graph.target === null ? [] : [band(graph.target, graph, y, { width, height })]),
    ...y.ticks(values).map((value) => {
      const py = round(y(value));
      return (
        `<line x1="${edge.left}" x2="${width - edge.right}" y1="${py}" y2="${py}" stroke="${ink.rule}" stroke-width=".5"/>` +
        words(`${value}${graph.unit}`, edge.left - 4, py + 3, 'text-anchor="end"')
      );
    }),
    ...dayTicks(days, dayCount).map((day) =>
      words(shortDate(isoDate(day)), x(day), height - 8, 'text-anchor="middle"'),
    ),
    ...graph.phases
      .filter(({ on }) => on >= graph.from && on <= graph.to)
      .map(({ on, label }, at, shown) => {
        const px = round(x(dayNumber(on)));
        // A label that would run into the next one is left out; its line stands.
        const next = shown[at + 1];
        const hasRoom = !next || x(dayNumber(next.on)) - px > label.length * wordSize * LETTER;
        return (
          `<line x1="${px}" x2="${px}" y1="${edge.top - 6}" y2="${height - edge.bottom}" stroke="${ink.clay}" stroke-dasharray="3 2"/>` +
          (hasRoom ? words(label, px + 3, edge.top - 1) : '')
        );
      }),
    ...(graph.aimLine
      ? [
          `<path d="${joined(within(graph.aimLine, graph.to))}" fill="none" stroke="${ink.quiet}" stroke-dasharray="1 3"/>`,
        ]
      : []),
    ...graph.runs.map(
      (run) => `<path d="${joined(run)}" fill="none" stroke="${ink.fern}" stroke-width="1.2" stroke-linejoin="round"/>`,
    ),
    ...(graph.trendBand ? [`<path d="${trendArea(graph.trendBand, at)}" fill="${ink.fern}" fill-opacity=".1"/>`] : []),
    ...(graph.trend ? [`<path d="${joined(graph.trend)}" fill="none" stroke="${ink.fern}" stroke-width=".8"/>`] : []),
    ...(graph.dualCriterion ?? []).map(
      (ends) => `<path d="${joined(ends)}" fill="none" stroke="${ink.clay}" stroke-width=".8" stroke-dasharray="4 2"/>`,
    ),
    ...graph.runs.flat().map((point) => {
      const [px, py] = at(point);
      if (point.isBeyond) {
        return `<path d="M${px - 3} ${py + 3}L${px} ${py - 2}L${px + 3} ${py + 3}" fill="none" stroke="${ink.fern}"/>`;
      }
      const fill = point.isPartial ? '#ffffff' : ink.fern;
      return `<circle cx="${px}" cy="${py}" r="2" fill="${fill}" stroke="${ink.fern}" stroke-width=".8"/>`;
    }),
  ];
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">${parts.join('')}</svg>`;
}

/** The same as the address of a picture, for a page: it stands before any script has run. */
export function graphPicture(graph: GoalGraph, form: GraphForm = {}): string {
  return `data:image/svg+xml,${encodeURIComponent(graphSvg(graph, form))}`;
}

/** A line’s piece up to a day. */
function within([from, to]: [At, At], last: IsoDate): At[] {
  if (to.on <= last) return [from, to];
  const share = (dayNumber(last) - dayNumber(from.on)) / (dayNumber(to.on) - dayNumber(from.on));
  return [from, { on: last, value: from.value + share * (to.value - from.value) }];
}

function band(
  target: number,
  { isUp }: GoalGraph,
  y: (value: number) => number,
  { width, height }: { width: number; height: number },
): string {
  const [top, bottom] = isUp ? [edge.top, y(target)] : [y(target), height - edge.bottom];
  return `<rect x="${edge.left}" y="${round(top)}" width="${width - edge.left - edge.right}" height="${round(Math.max(0, bottom - top))}" fill="${ink.band}"/>`;
}

/** Along the upper edge and back along the lower one. */
function trendArea(band: NonNullable<GoalGraph['trendBand']>, at: (point: At) => [number, number]): string {
  const upper = band.map(({ on, high }) => at({ on, value: high }));
  const lower = band.map(({ on, low }) => at({ on, value: low })).reverse();
  return `${line()([...upper, ...lower]) ?? ''}Z`;
}

/** A few days evenly over the stretch, both ends included. */
function dayTicks({ from, to }: { from: number; to: number }, steps: number): number[] {
  return Array.from({ length: steps + 1 }, (_, i) => Math.round(from + ((to - from) * i) / steps)).filter(
    (_, i) => i > 0 || to > from,
  );
}
