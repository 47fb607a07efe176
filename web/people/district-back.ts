import { redirect } from 'react-router';
import { districtName, identityFrom, keptSignIn, signInByDistrict } from '~/server/people/district';
import { beginHalf, secondFactorOf } from '~/server/people/second-factor';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { joinAwaitedEverywhere } from '~/server/students/awaited';
import { districtCookie, halfCookie, readCookie } from '../platform/http/cookies';
import { log } from '../platform/http/log';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/district-back';
import { letIn } from './let-in';

/** Where the district's own service sends people back to: who was invited is let in, and nobody else. */
export const loader = withErrors(async ({ request }: Route.LoaderArgs) => {
  if (districtName() === null) throw new Response(null, { status: 404 });
  const refuse = async (why: string) =>
    redirect(`/sign-in?district=${why}`, {
      headers: { 'Set-Cookie': await districtCookie.serialize('', { maxAge: 0 }) },
    });
  const kept = await readCookie(request, districtCookie, keptSignIn);
  if (!kept) throw await refuse('begunElsewhere');
  const identity = await identityFrom(new URL(request.url).search, kept).catch(async (error) => {
    log.warn({ error: String(error) }, 'an answer of the district’s sign-in was refused');
    throw await refuse('refused');
  });
  const answer = await signInByDistrict(database(), identity, now());
  if ('refused' in answer) throw await refuse(answer.refused);
  const { personId } = answer;
  await joinAwaitedEverywhere(database(), personId, now());
  if (!(await secondFactorOf(database(), personId)).isOn) {
    return letIn(request, { personId, isShared: false }, { next: kept.next, ends: districtCookie });
  }
  const headers = new Headers({
    'Set-Cookie': await halfCookie.serialize(await beginHalf(database(), personId, false, now())),
  });
  headers.append('Set-Cookie', await districtCookie.serialize('', { maxAge: 0 }));
  const search = kept.next ? `?next=${encodeURIComponent(kept.next)}` : '';
  return redirect(`/sign-in/code${search}`, { headers });
});
