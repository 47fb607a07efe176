// The computing core runs in a browser's worker unchanged: no Node.js, no page, and the same figures.
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { build } from 'vite';
import { analyseAbc } from '~/core/analyse/analyse-abc';
import { analyseSeries, nothingSet } from '~/core/analyse/analyse-series';
import { wallTime } from '~/core/calendar/zone';
import { incidentDefinition } from '~/core/entries/incidents/incident';

const root = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');

const rows = Array.from({ length: 40 }, (_, i) => ({
  date: new Date(Date.UTC(2026, 8, 1 + 2 * i)).toISOString().slice(0, 10),
  value: (i * 37) % 23,
  of: null,
  place: null,
  observer: null,
  phase: i < 8 ? 'Baseline' : 'New support',
}));
const options = { ...nothingSet, target: 20, targetDate: '2026-12-18', criterion: { k: 3, n: 4 } };
const notes = rows.map(({ date, value }) => ({
  on: date,
  time: '09:30',
  behaviors: [value > 11 ? 'Leaving' : 'Calling out'],
  antecedents: [value % 3 ? 'Waiting' : 'Asked to begin'],
  consequences: ['Sent back'],
}));

/** The analyses as one script with nothing else in it, as a worker would load it. */
async function workerScript(): Promise<string> {
  const entry = '\0worker';
  const from = (path: string) => JSON.stringify(`${root}/core/${path}`);
  const result = await build({
    configFile: false,
    logLevel: 'silent',
    resolve: { alias: { '~': root } },
    plugins: [
      {
        name: 'worker-entry',
        resolveId: (id) => (id === 'worker-entry' ? entry : null),
        load: (id) =>
          id === entry
            ? `import { analyseSeries } from ${from('analyse/analyse-series.ts')};
               import { analyseAbc } from ${from('analyse/analyse-abc.ts')};
               import { incidentDefinition } from ${from('entries/incidents/incident.ts')};
               import { wallTime } from ${from('calendar/zone.ts')};
               self.onmessage = ({ data: { rows, options, notes } }) => self.postMessage({
                 hasPage: 'document' in self,
                 series: analyseSeries(rows, options),
                 abc: analyseAbc(notes.map((note) => incidentDefinition.parse(note)), { from: null, to: null }),
                 wall: wallTime(new Date('2026-11-01T06:30:00Z'), 'America/New_York'),
               });`
            : null,
      },
    ],
    build: { write: false, rolldownOptions: { input: 'worker-entry', output: { format: 'es' } } },
  });
  const { output } = (Array.isArray(result) ? result[0] : result) as { output: { code?: string }[] };
  expect(output).toHaveLength(1);
  return output[0]?.code ?? '';
}

test('the core computes the same in a browser worker as here', async ({ page }) => {
  const script = await workerScript();
  await page.route('http://core.test/**', (route) =>
    route.request().url().endsWith('.js')
      ? route.fulfill({ contentType: 'text/javascript', body: script })
      : route.fulfill({ contentType: 'text/html', body: '<title>Core</title>' }),
  );
  await page.goto('http://core.test/');
  const answer = await page.evaluate(
    (data) =>
      new Promise((resolve, reject) => {
        const worker = new Worker('/worker.js', { type: 'module' });
        worker.onmessage = (event) => resolve(event.data);
        worker.onerror = (event) => reject(new Error(event.message));
        worker.postMessage(data);
      }),
    { rows, options, notes },
  );
  const here = {
    hasPage: false,
    series: analyseSeries(rows, options),
    abc: analyseAbc(
      notes.map((note) => incidentDefinition.parse(note)),
      { from: null, to: null },
    ),
    wall: wallTime(new Date('2026-11-01T06:30:00Z'), 'America/New_York'),
  };
  expect(here.series.trend.theilSen).not.toBeNull();
  expect(answer).toEqual(JSON.parse(JSON.stringify(here)));
});
