import { redirect } from 'react-router';
import { openDesk } from '~/server/desk/cards';
import { countTry, uncountTry } from '~/server/people/attempts';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import { deskCookie } from '../platform/http/cookies';
import { withFailures } from '../platform/http/failure-answer';
import { addressContext } from '../platform/http/security';
import type { Route } from './+types/open-desk';
import { leaveOpenDesk } from './at-desk';

/** What the square code of a card leads to: the desk, which this browser then keeps open. */
export const loader = withFailures(async (args: Route.LoaderArgs) => {
  const { params, context } = args;
  const address = context.get(addressContext);
  if ((await countTry(database(), 'unknownCard', address)) !== null) return redirect('/desk?card=wait');
  const token = await openDesk(database(), { token: params.token }, now());
  if (!token) return redirect('/desk?card=unknown');
  await leaveOpenDesk(args);
  await uncountTry(database(), 'unknownCard', address);
  return redirect('/desk', { headers: { 'Set-Cookie': await deskCookie.serialize(token) } });
});
