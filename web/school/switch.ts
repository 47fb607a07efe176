import { data, redirect } from 'react-router';
import { z } from 'zod';
import { goToSchool } from '~/server/people/sessions';
import { database } from '~/server/platform/db/current';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/switch';

const choice = z.object({ school: z.uuid() });

/** Goes to another of one’s schools, and begins there with today: a page of the one before is not there. */
export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, sessionId } = personOf(context);
  const parsed = choice.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) return data(null, { status: 400 });
  await goToSchool(database(), actor, sessionId, parsed.data.school);
  return redirect('/');
});

export const loader = () => redirect('/');
