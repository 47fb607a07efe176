import type { ChartConfiguration, ChartDataset } from 'chart.js';
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { parseISO } from 'date-fns';
import { useCallback, useEffect, useState } from 'react';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { GoalGraph } from '~/core/progress/graph/goal-graph';
import { graphKey } from '~/core/progress/graph/graph-key';
import type { Inks } from '../platform/ui/charts';
import { useChart } from '../platform/ui/use-chart';
import { goalChartWords } from './words';

const timeOf = (on: IsoDate) => parseISO(on).getTime();

/** The first dataset holds the points; what is drawn beside them cannot be pointed at. */
const POINTS = 0;

/**
 * A goal's graph by the conventions of single-case work: joined within a phase only, dashed phase lines, dotted aim line,
 * target as a band, real dates. The arrow keys go from point to point.
 */
export function GoalChart({ graph, picture }: { graph: GoalGraph; picture?: string }) {
  const configure = useCallback((inks: Inks) => configuration(graph, inks), [graph]);
  const { canvas, chart } = useChart(configure);
  const points = graph.runs.flat();
  const [at, setAt] = useState<number | null>(null);
  const [isDrawn, setDrawn] = useState(false);
  useEffect(() => setDrawn(true), []);

  const goTo = (next: number) => {
    const index = Math.min(points.length - 1, Math.max(0, next));
    setAt(index);
    const element = { datasetIndex: POINTS, index: indexAmongGaps(graph, index) };
    chart.current?.setActiveElements([element]);
    chart.current?.tooltip?.setActiveElements([element], { x: 0, y: 0 });
    chart.current?.update('none');
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const last = points.length - 1;
    const next = {
      ArrowRight: at === null ? 0 : at + 1,
      ArrowLeft: at === null ? last : at - 1,
      Home: 0,
      End: last,
    }[event.key];
    if (next === undefined || points.length === 0) return;
    event.preventDefault();
    goTo(next);
  };
  return (
    <figure>
      {/* biome-ignore lint/a11y/useSemanticElements: it groups a picture and its keys, not fields */}
      <div
        role="group"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the arrow keys go from point to point
        tabIndex={0}
        aria-label={goalChartWords.graphTheArrowKeysGo}
        onKeyDown={onKeyDown}
        className="relative h-80 overflow-hidden"
      >
        {picture && !isDrawn && <img src={picture} alt="" className="absolute inset-0 size-full" />}
        <canvas ref={canvas} role="img" aria-label={graph.caption} />
      </div>
      <p aria-live="polite" className="sr-only">
        {at !== null && points[at]?.said}
      </p>
      <figcaption className="mt-2 text-small text-ink-2">
        {graph.caption} {graphKey(graph)}
      </figcaption>
    </figure>
  );
}

type Drawn = { x: number; y: number | null; said?: string; isPartial?: boolean; isBeyond?: boolean };

/** Runs with an empty place between them, so that no line crosses a phase line or a gap. */
function withGaps({ runs }: GoalGraph): Drawn[] {
  return runs.flatMap((run, i) => {
    const drawn: Drawn[] = run.map(({ on, value, said, isPartial, isBeyond }) => ({
      ...{ x: timeOf(on), y: value, said, isPartial, isBeyond },
    }));
    return i === 0 ? drawn : [{ x: drawn[0]?.x ?? 0, y: null }, ...drawn];
  });
}

function indexAmongGaps({ runs }: GoalGraph, index: number): number {
  let before = 0;
  for (const [i, run] of runs.entries()) {
    before += run.length;
    if (index < before) return index + i;
  }
  return index;
}

const isMarked = (raw: unknown, mark: 'isPartial' | 'isBeyond') =>
  // What `withGaps` made; Chart.js hands its own points back as unknown.
  (raw as Drawn | undefined)?.[mark] === true;

/** The trend’s band: the upper edge, filled down to the lower one. */
function bandOf({ trendBand = [] }: GoalGraph, inks: Inks): ChartDataset<'line', Drawn[]>[] {
  const quiet = { borderWidth: 0, pointRadius: 0, pointHitRadius: 0, pointHoverRadius: 0 };
  if (trendBand.length === 0) return [];
  const edge = (of: 'low' | 'high') => trendBand.map(({ on, [of]: y }) => ({ x: timeOf(on), y }));
  return [
    { data: edge('low'), ...quiet },
    { data: edge('high'), ...quiet, fill: '-1', backgroundColor: `color-mix(in srgb, ${inks.fern} 14%, transparent)` },
  ];
}

function configuration(graph: GoalGraph, inks: Inks): ChartConfiguration {
  const line = (ends: GoalGraph['aimLine'], style: Omit<ChartDataset<'line', Drawn[]>, 'data'>) => ({
    data: (ends ?? []).map(({ on, value }) => ({ x: timeOf(on), y: value })),
    pointRadius: 0,
    pointHitRadius: 0,
    pointHoverRadius: 0,
    ...style,
  });
  const datasets: ChartDataset<'line', Drawn[]>[] = [
    {
      data: withGaps(graph),
      borderColor: inks.ink,
      borderWidth: 1.7,
      pointRadius: 3.5,
      pointHoverRadius: 6,
      pointHitRadius: 10,
      pointStyle: ({ raw }) => (isMarked(raw, 'isBeyond') ? 'triangle' : 'circle'),
      pointBackgroundColor: ({ raw }) =>
        isMarked(raw, 'isPartial') || isMarked(raw, 'isBeyond') ? inks.paper : inks.ink,
      pointBorderColor: inks.ink,
      pointHoverBackgroundColor: inks.clay,
      pointBorderWidth: ({ raw }) => (isMarked(raw, 'isPartial') || isMarked(raw, 'isBeyond') ? 1.5 : 0),
      spanGaps: false,
      // A point on the edge is drawn whole.
      clip: 6,
    },
    line(graph.aimLine, { borderColor: inks.ink3, borderDash: [2, 4], borderWidth: 2 }),
    line(graph.trend, { borderColor: inks.fern, borderWidth: 1.5 }),
    ...bandOf(graph, inks),
    ...(graph.dualCriterion ?? []).map((ends) =>
      line(ends, { borderColor: inks.clay, borderDash: [9, 4], borderWidth: 1.2 }),
    ),
  ];
  return {
    type: 'line',
    data: { datasets: datasets as ChartDataset<'line'>[] },
    options: {
      maintainAspectRatio: false,
      parsing: false,
      interaction: { mode: 'nearest', intersect: true },
      scales: {
        x: {
          type: 'time',
          min: timeOf(graph.from),
          max: timeOf(graph.to),
          time: {
            minUnit: 'day',
            tooltipFormat: 'MMM d',
            displayFormats: { day: 'MMM d', week: 'MMM d', month: 'MMM' },
          },
          grid: { display: false },
          border: { color: inks.rule },
          ticks: { color: inks.ink2, maxRotation: 0, autoSkipPadding: 24 },
        },
        y: {
          min: 0,
          max: graph.max,
          grid: { color: inks.rule },
          border: { display: false },
          ticks: {
            color: inks.ink2,
            stepSize: graph.max <= 10 && Number.isInteger(graph.max) ? 1 : graph.max / 5,
            callback: (value) => `${value}${graph.unit}`,
          },
        },
      },
      plugins: {
        tooltip: {
          displayColors: false,
          backgroundColor: inks.ink,
          titleColor: inks.paper,
          bodyColor: inks.paper,
          padding: 10,
          callbacks: {
            title: () => '',
            label: (item) => wrapped((item.raw as Drawn).said ?? ''),
          },
        },
        annotation: { annotations: annotationsOf(graph, inks) },
      },
    },
  };
}

/** A tooltip’s text in lines that fit. */
function wrapped(text: string): string[] {
  return text.split(' · ').flatMap((part) => part.match(/.{1,56}(\s|$)/g)?.map((piece) => piece.trim()) ?? []);
}

function annotationsOf(graph: GoalGraph, inks: Inks): AnnotationOptions[] {
  const { target } = graph;
  const band: AnnotationOptions | null =
    target === null
      ? null
      : {
          type: 'box',
          ...(graph.isUp ? { yMin: target, yMax: graph.max } : { yMin: 0, yMax: target }),
          backgroundColor: inks.fernWash,
          borderWidth: 0,
          drawTime: 'beforeDraw',
        };
  const edge: AnnotationOptions | null =
    target === null
      ? null
      : {
          type: 'line',
          yMin: target,
          yMax: target,
          borderColor: inks.fern,
          borderWidth: 1,
          drawTime: 'beforeDatasetsDraw',
        };
  const phases = graph.phases.map(
    ({ on, label }, i): AnnotationOptions => ({
      type: 'line',
      xMin: timeOf(on),
      xMax: timeOf(on),
      borderColor: inks.clay,
      // The first phase begins with the graph: it has a name, but no line.
      borderWidth: i === 0 ? 0 : 1.5,
      borderDash: [5, 5],
      drawTime: 'beforeDatasetsDraw',
      label: {
        display: true,
        content: label,
        position: 'end',
        textAlign: 'start',
        // At the left edge the label is pushed into the picture already.
        xAdjust: on === graph.from ? 4 : 6 + label.length * 3.1,
        // One below the other, so that short phases do not write over each other.
        yAdjust: i * 16,
        backgroundColor: 'transparent',
        color: inks.clayDeep,
        font: { size: 12, weight: 600 },
        padding: 2,
      },
    }),
  );
  return [band, edge, ...phases].filter((one) => one !== null);
}
