import { useEffect } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { localPath } from '../http/local-path';
import type { Route } from './+types/opening';
import { openingWords } from './words';

interface RouteFiles {
  module: string;
  imports?: string[];
}

/** What the first page needs is asked for at once, while this one is still coming to life: it is a cold start. */
function askAhead(): void {
  const { __reactRouterManifest: manifest } = window as unknown as {
    __reactRouterManifest?: { routes: Record<string, RouteFiles | undefined> };
  };
  const ask = (what: Partial<HTMLLinkElement>) =>
    document.head.append(Object.assign(document.createElement('link'), what));
  const isForToday = (new URLSearchParams(location.search).get('to') ?? '/') === '/';
  if (isForToday) ask({ rel: 'preload', as: 'fetch', crossOrigin: 'anonymous', href: '/_root.data' });
  for (const route of ['today/shell', 'today/today'].map((id) => manifest?.routes[id])) {
    for (const href of route ? [route.module, ...(route.imports ?? [])] : []) ask({ rel: 'modulepreload', href });
  }
}
if (typeof window !== 'undefined') askAhead();

export const meta: Route.MetaFunction = () => [{ title: openingWords.pageTitle }];

/** What a device shows first when there is no network: kept with the program, it leads on to the page that was asked for. */
export default function Opening() {
  const [search] = useSearchParams();
  const to = localPath(search.get('to')) ?? '/';
  const navigate = useNavigate();
  useEffect(() => {
    void navigate(to, { replace: true });
  }, [navigate, to]);
  return (
    <main className="mx-auto max-w-xl px-6 py-20 text-ink-2">
      <h1 className="text-2xl text-ink">{openingWords.gentleMargin}</h1>
      <p className="mt-4">{openingWords.openingWhatIsKept}</p>
      <noscript>
        <p className="mt-4">
          <Link to={to} className="link">
            {openingWords.goOn}
          </Link>
        </p>
      </noscript>
    </main>
  );
}
