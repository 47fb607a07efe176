import type { ChartConfiguration } from 'chart.js';
import { type RefObject, useEffect, useRef } from 'react';
import { useRouteLoaderData } from 'react-router';
import { Chart, type Inks, inkOf } from './charts';

/** Draws a chart on a canvas, and draws it anew when its data or the theme change. */
export function useChart(configure: (inks: Inks) => ChartConfiguration): {
  canvas: RefObject<HTMLCanvasElement | null>;
  chart: RefObject<Chart | null>;
} {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart | null>(null);
  const theme = useRouteLoaderData<{ theme: string }>('root')?.theme;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme changes what the colours come to
  useEffect(() => {
    const draw = () => {
      chart.current?.destroy();
      if (canvas.current) chart.current = new Chart(canvas.current, configure(inkOf(canvas.current)));
    };
    draw();
    const night = matchMedia('(prefers-color-scheme: dark)');
    night.addEventListener('change', draw);
    return () => {
      night.removeEventListener('change', draw);
      chart.current?.destroy();
      chart.current = null;
    };
  }, [configure, theme]);
  return { canvas, chart };
}
