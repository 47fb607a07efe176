import { redirect } from 'react-router';
import { beginDistrict, districtName } from '~/server/people/district';
import { districtCookie } from '../platform/http/cookies';
import { localPath } from '../platform/http/local-path';
import { log } from '../platform/http/log';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/district';

/** Sends the browser to the district's own service to sign in there. */
export const loader = withErrors(async ({ request }: Route.LoaderArgs) => {
  if (districtName() === null) throw new Response(null, { status: 404 });
  const next = localPath(new URL(request.url).searchParams.get('next'));
  try {
    const { to, kept } = await beginDistrict(next);
    return redirect(to, { headers: { 'Set-Cookie': await districtCookie.serialize(kept) } });
  } catch (error) {
    log.warn({ error: String(error) }, 'the district’s sign-in cannot be reached');
    throw redirect('/sign-in?district=unreachable');
  }
});
