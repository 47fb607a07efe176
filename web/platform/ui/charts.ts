import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  TimeScale,
  Tooltip,
} from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import 'chartjs-adapter-date-fns';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  TimeScale,
  Tooltip,
  annotation,
);
Chart.defaults.animation = false;
Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', sans-serif";
Chart.defaults.font.size = 12;

/** The theme's colours as they are now; a canvas knows no CSS variables. */
export function inkOf(element: HTMLElement) {
  const style = getComputedStyle(element);
  const read = (name: string) => style.getPropertyValue(name).trim();
  return {
    ink: read('--color-base-content'),
    ink2: read('--ink-2'),
    ink3: read('--ink-3'),
    rule: read('--color-base-300'),
    wash: read('--color-base-200'),
    paper: read('--color-base-100'),
    fern: read('--fern-text'),
    fernWash: read('--fern-wash'),
    clay: read('--color-accent'),
    clayDeep: read('--color-secondary'),
    support: [0, 1, 2, 3, 4].map((i) => read(`--support-${i}`)),
  };
}
export type Inks = ReturnType<typeof inkOf>;

export { Chart };
