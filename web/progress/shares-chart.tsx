import type { ChartConfiguration } from 'chart.js';
import { useCallback } from 'react';
import { percent } from '~/core/words/counting';
import type { Inks } from '../platform/ui/charts';
import { useChart } from '../platform/ui/use-chart';
import { sharesChartWords } from './words';

/** The share at each support level, session by session, oldest first. */
export interface Shares {
  sessions: string[];
  parts: { key: string; label: string; tone: string; shares: number[] }[];
}

/** How much help each session took: darker means less. */
export function SharesChart({ shares }: { shares: Shares }) {
  const configure = useCallback((inks: Inks) => configuration(shares, inks), [shares]);
  const { canvas } = useChart(configure);
  return (
    <figure>
      <div className="relative h-44 overflow-hidden">
        <canvas ref={canvas} role="img" aria-label={sharesChartWords.theShareAtEachSupport} />
      </div>
      <figcaption className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-small text-ink-2">
        {shares.parts.map(({ key, label, tone }) => (
          <span key={key} className="flex items-center gap-1.5">
            <span aria-hidden className={`trial-mark size-3 ${tone}`} /> {label}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}

function hatch({ ink3, paper }: Inks): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = tile.height = 6;
  const pen = tile.getContext('2d');
  if (!pen) return paper;
  pen.fillStyle = paper;
  pen.fillRect(0, 0, 6, 6);
  pen.strokeStyle = ink3;
  pen.beginPath();
  pen.moveTo(-1, 7);
  pen.lineTo(7, -1);
  pen.stroke();
  return pen.createPattern(tile, 'repeat') ?? paper;
}

function fillOf(tone: string, inks: Inks) {
  if (tone === 'outcome-refused') return hatch(inks);
  if (tone === 'outcome-noResponse') return inks.wash;
  if (tone === 'outcome-incorrect') return inks.paper;
  return inks.support[Number(tone.slice(-1))] ?? inks.ink3;
}

function configuration({ sessions, parts }: Shares, inks: Inks): ChartConfiguration {
  return {
    type: 'bar',
    data: {
      labels: sessions,
      datasets: parts.map(({ label, tone, shares }) => ({
        label,
        data: shares,
        backgroundColor: fillOf(tone, inks),
        borderColor: inks.ink3,
        borderWidth: tone.startsWith('outcome') ? 1 : 0,
        categoryPercentage: 0.95,
        barPercentage: 0.9,
        maxBarThickness: 22,
      })),
    },
    options: {
      maintainAspectRatio: false,
      scales: {
        x: {
          stacked: true,
          grid: { display: false },
          ticks: { color: inks.ink2, maxRotation: 0, autoSkipPadding: 20 },
        },
        y: {
          stacked: true,
          min: 0,
          max: 100,
          border: { display: false },
          grid: { color: inks.rule },
          ticks: { color: inks.ink2, stepSize: 50, callback: (value) => `${value}%` },
        },
      },
      plugins: {
        tooltip: {
          backgroundColor: inks.ink,
          titleColor: inks.paper,
          bodyColor: inks.paper,
          displayColors: false,
          filter: (item) => Number(item.raw) > 0,
          callbacks: { label: (item) => `${item.dataset.label}: ${percent(Number(item.raw))}` },
        },
      },
    },
  };
}
