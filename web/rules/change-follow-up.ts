import { data } from 'react-router';
import { followUpChange } from '~/core/rules/follow-up';
import { readable } from '~/core/words/readable';
import { database } from '~/server/platform/db/current';
import { Conflict, Invalid } from '~/server/platform/failures';
import { changeFollowUp } from '~/server/rules/follow-ups';
import { sayNext } from '../platform/http/cookies';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { saveOrStay } from '../platform/ui/use-saving';
import type { Route } from './+types/change-follow-up';
import { messagesFrom } from './messages-from';
import { followUpsWords } from './words';

/** It has no page of its own. */
export { loader } from '../platform/ui/unknown';

/** Says what is done with a follow-up. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = readable(followUpChange).safeParse(await jsonOf(request));
  if (!parsed.success) return refusedWith(messagesFrom(parsed.error));
  try {
    await changeFollowUp(database(), actor, idFrom(params.followUpId), parsed.data, now);
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    if (error instanceof Conflict) return refusedWith({ form: followUpsWords.conflict });
    throw error;
  }
  return data({ messages: {} }, { headers: await sayNext({ text: followUpsWords.saved[parsed.data.what] }) });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);
