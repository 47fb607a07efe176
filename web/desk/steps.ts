import { data } from 'react-router';
import { stepSaid } from '~/core/desk/steps';
import { readable } from '~/core/words/readable';
import { sayStep } from '~/server/desk/steps';
import { database } from '~/server/platform/db/current';
import { Invalid, NotFound } from '~/server/platform/failures';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import type { Route } from './+types/steps';
import { deskFor, withErrorsAtDesk } from './at-desk';
import { deskWords } from './words';

/** Takes what a student says of one step, at once or from a device on which it waited. */
export const action = withErrorsAtDesk(async ({ request }: Route.ActionArgs, open) => {
  const desk = deskFor(request, open);
  const parsed = readable(stepSaid).safeParse(await jsonOf(request));
  if (!parsed.success) return refusedWith({ form: parsed.error.issues[0]?.message ?? deskWords.cannotBeRead });
  try {
    await sayStep(database(), desk, parsed.data, desk.now);
    return data({ id: parsed.data.id });
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    throw error;
  }
});

export const loader = withErrorsAtDesk(async () => {
  throw new NotFound('There is only something to send here.');
});
