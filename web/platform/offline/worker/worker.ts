import { type PrecacheEntry, precacheAndRoute } from 'workbox-precaching';
import { registerRoute } from 'workbox-routing';
import { keptPage } from '../device';
import { type FromWorker, isKeepable, pageOf, type ToWorker } from '../kept-list';
import { keepAllAnew, keepAnew, keepAnswer, keepListed } from './keep';
import { keepWhole, keptWhole } from './whole';

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: PrecacheEntry[] };

// The whole program, and the page from which kept ones are opened.
const program = self.__WB_MANIFEST;
precacheAndRoute(program, { ignoreURLParametersMatching: [/^to$/], cleanURLs: false });

/** The files of this version of the program. */
const files = new Set(program.map((entry) => (typeof entry === 'string' ? entry : entry.url)));

/** How long a page that is kept waits for a slow network, in milliseconds. */
const PATIENCE = 5000;
/** A page waits no longer than this to hear where its answer comes from. */
const HEARD_WITHIN = 300;

/** After these every page is another: its names are hidden or shown, or it is of another school. */
const CHANGES_ALL = new Set(['/preferences.data', '/school/switch.data']);

/** What stands between us and a server that is not there. */
const UNREACHABLE = new Set([502, 503, 504]);

/** The server’s answer; null where there is none in time. */
async function fetched(request: Request, patience: number | null): Promise<Response | null> {
  const answer = fetch(request).catch(() => null);
  const late = new Promise<null>((resolve) => {
    if (patience !== null) setTimeout(() => resolve(null), patience);
  });
  return patience === null ? answer : Promise.race([answer, late]);
}

/** Tells the page that asks where its answer comes from, and waits until it has heard: it reckons with it. */
async function tell(clientId: string, message: FromWorker): Promise<void> {
  const client = await self.clients.get(clientId);
  if (!client) return;
  const { port1, port2 } = new MessageChannel();
  const heard = new Promise<void>((resolve) => {
    port1.onmessage = () => resolve();
    setTimeout(resolve, HEARD_WITHIN);
  });
  client.postMessage(message, [port2]);
  await heard;
}

const isPage = (path: string) => !/\.\w+$/.test(path);

/** A page as a whole: the server’s, or the one from which what is kept is opened. */
registerRoute(
  ({ request }) => request.mode === 'navigate',
  async ({ request, url }) => {
    const kept = isKeepable(url.pathname) ? await keptPage(url.pathname) : null;
    const answer = await fetched(request, kept && PATIENCE);
    if (answer && !(kept && UNREACHABLE.has(answer.status))) return answer;
    if (!isPage(url.pathname)) return new Response(null, { status: 204 });
    const to = url.pathname + url.search;
    const whole = kept && to === '/' ? await keptWhole((path) => files.has(path)) : null;
    if (whole) return whole;
    return Response.redirect(`/opening?${new URLSearchParams({ to })}`);
  },
);

/** The data of a page: the server’s, which is kept, or what was kept. */
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.endsWith('.data'),
  async ({ request, url, event }) => {
    const page = pageOf(url.pathname);
    const kept = isKeepable(page) ? await keptPage(page) : null;
    const answer = await fetched(request, kept && PATIENCE);
    const { clientId } = event as FetchEvent;
    if (answer && !(kept && UNREACHABLE.has(answer.status))) {
      const isWhole = url.search === '' && isKeepable(page);
      const isSaid = answer.headers.has('X-Said');
      if (isWhole) {
        const keeping = isSaid ? keepAnew(page) : keepAnswer(page, answer.clone());
        event.waitUntil(page === '/' ? keeping.then(keepWhole) : keeping);
      }
      await tell(clientId, { is: 'fresh', at: Date.now() });
      return answer;
    }
    if (!kept) return new Response(null, { status: 504, statusText: 'No connection' });
    await tell(clientId, { is: 'kept', at: kept.at });
    return new Response(kept.data, { headers: { 'Content-Type': 'text/x-script', 'X-Remix-Response': 'yes' } });
  },
);

/** What is sent while there is nobody to send it to: the page says so, and keeps what was typed. */
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.endsWith('.data'),
  async ({ request, url, event }) => {
    const answer = await fetched(request, null);
    if (answer && CHANGES_ALL.has(url.pathname)) event.waitUntil(keepAllAnew());
    return answer ?? new Response(null, { status: 504, statusText: 'No connection' });
  },
  'POST',
);

self.addEventListener('message', (event) => {
  const { is } = event.data as ToWorker;
  if (is === 'takeOver') event.waitUntil(self.skipWaiting());
  if (is === 'keep') event.waitUntil(keepListed());
});

self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
