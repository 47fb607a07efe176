import { type ReactNode, useEffect } from 'react';
import { data, Links, Meta, Outlet, Scripts, ScrollRestoration, useRouteLoaderData } from 'react-router';
import type { Route } from './+types/root';
import './app.css';
import { type Preferences, preferencesOf, readCookie, type Toast, toast, toastCookie } from './platform/http/cookies';
import { listen } from './platform/offline/connection';
import { staysWhenUnreachable } from './platform/offline/unreachable';
import { Announced } from './platform/ui/announced';
import { FailurePage } from './platform/ui/failure-page';
import { useNonce } from './platform/ui/nonce';
import { OnItsWay } from './platform/ui/on-its-way';
import { Toasts } from './platform/ui/toasts';

interface RootData extends Preferences {
  toast: (Toast & { id: number }) | null;
}

export async function loader({ request }: Route.LoaderArgs) {
  const preferences = await preferencesOf(request);
  // What has just been done is said to people, not to a device that keeps pages for later.
  const isForLater = request.headers.has('X-Kept') || new URL(request.url).pathname === '/opening';
  const said = isForLater ? null : await readCookie(request, toastCookie, toast);
  const answer: RootData = { ...preferences, toast: said && { ...said, id: Date.now() } };
  const headers = said ? { 'Set-Cookie': await toastCookie.serialize('', { maxAge: 0 }) } : undefined;
  return data(answer, { headers });
}

/** Paper by day and by night, as `app.css` has them: what stands around the page of an installed application. */
const themeColors = { light: '#faf9f4', dark: '#151d1e' };

/** Whatever is sent from any page. */
export const clientMiddleware: Route.ClientMiddlewareFunction[] = [staysWhenUnreachable];

listen();

export const meta: Route.MetaFunction = () => [{ title: 'Gentle Margin' }];

export function Layout({ children }: { children: ReactNode }) {
  const nonce = useNonce();
  const preferences = useRouteLoaderData<RootData>('root');
  const theme = preferences?.theme ?? 'system';
  return (
    <html
      lang="en"
      data-theme={theme === 'system' ? undefined : theme}
      data-shortcuts={preferences?.shortcuts === false ? 'off' : undefined}
    >
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1, viewport-fit=cover" />
        <link rel="icon" href="/mark.svg" type="image/svg+xml" />
        <link rel="manifest" href="/manifest.webmanifest" />
        <link rel="apple-touch-icon" href="/icons/apple-touch-icon.png" />
        <meta name="theme-color" content={themeColors.light} media="(prefers-color-scheme: light)" />
        <meta name="theme-color" content={themeColors.dark} media="(prefers-color-scheme: dark)" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function Root({ loaderData }: Route.ComponentProps) {
  useEffect(() => {
    // Once the page stands: nobody works by keyboard before that.
    const kept = import('./platform/ui/focus-kept').then(({ keepFocus }) => keepFocus());
    return () => void kept.then((letGo) => letGo()).catch(() => {});
  }, []);
  return (
    <Toasts toast={loaderData.toast}>
      <OnItsWay />
      <Announced />
      <Outlet />
    </Toasts>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <FailurePage error={error} />;
}
