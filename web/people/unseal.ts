import { data } from 'react-router';
import { z } from 'zod';
import { LARGEST_WITH_PHOTOGRAPHS } from '~/core/entries/photograph';
import { unseal } from '~/server/people/sealing';
import { database } from '~/server/platform/db/current';
import { jsonOf } from '../platform/http/json-of';
import { personOf } from '../platform/http/request-person';
import type { AboutRoute } from '../platform/http/routes-known';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/unseal';

const input = z.object({ sealed: z.string().min(1) });

/** The same as a device had sealed it: letters for bytes take a third more room. */
export const handle: AboutRoute = { largestBody: 2 * LARGEST_WITH_PHOTOGRAPHS };

/** Opens what this person’s device had sealed before they signed out: null where it is not theirs. */
export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor } = personOf(context);
  const parsed = input.safeParse(await jsonOf(request));
  if (!parsed.success) return data(null, { status: 400 });
  return Response.json(await unseal(database(), actor.personId, parsed.data.sealed));
});
