import type { ReactNode } from 'react';
import { data, Links, Meta, Outlet, Scripts, ScrollRestoration, useRouteLoaderData } from 'react-router';
import type { Route } from './+types/root';
import './app.css';
import { type Preferences, preferencesOf, readCookie, type Toast, toast, toastCookie } from './platform/http/cookies';
import { FailurePage } from './platform/ui/failure-page';
import { useNonce } from './platform/ui/nonce';
import { OnItsWay } from './platform/ui/on-its-way';
import { Toasts } from './platform/ui/toasts';

interface RootData extends Preferences {
  toast: (Toast & { id: number }) | null;
}

export async function loader({ request }: Route.LoaderArgs) {
  const preferences = await preferencesOf(request);
  const said = await readCookie(request, toastCookie, toast);
  const answer: RootData = { ...preferences, toast: said && { ...said, id: Date.now() } };
  const headers = said ? { 'Set-Cookie': await toastCookie.serialize('', { maxAge: 0 }) } : undefined;
  return data(answer, { headers });
}

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
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href="/mark.svg" type="image/svg+xml" />
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
  return (
    <Toasts toast={loaderData.toast}>
      <OnItsWay />
      <Outlet />
    </Toasts>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <FailurePage error={error} />;
}
