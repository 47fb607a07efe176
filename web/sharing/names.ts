import { data } from 'react-router';
import { z } from 'zod';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { namesIn } from '~/server/sharing/other-children';
import { jsonOf } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/names';

/** There is nothing to look at here. */
export { loader } from '../platform/ui/unknown';

const asked = z.object({ text: z.string().max(4000) });

/** Other children’s names in a text that is being written: only those that stand in it, never a list. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor } = personOf(context);
  const studentId = idFrom(params.studentId);
  const parsed = asked.safeParse(await jsonOf(request));
  try {
    return { names: await namesIn(database(), actor, studentId, parsed.success ? parsed.data.text : '') };
  } catch (error) {
    if (error instanceof Invalid) return data({ names: [] }, { status: 429 });
    throw error;
  }
});
