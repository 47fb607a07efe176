import { data } from 'react-router';
import { z } from 'zod';
import { counted } from '~/core/words/counting';
import { MOST_UNDONE, undoSaved } from '~/server/entries/undo';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/undo';
import { undoWords } from './words';

const asked = z.object({
  ids: z
    .string()
    .transform((text) => text.split('.'))
    .pipe(z.array(z.uuid()).min(1).max(MOST_UNDONE)),
});

/** Takes back what was saved a moment ago. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const { id } = await requireStudent(database(), actor, idFrom(params.studentId), 'observe');
  const parsed = asked.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) return data(null, { status: 400 });
  const undone = await undoSaved(database(), actor, id, parsed.data.ids, now);
  return data(null, { headers: await sayNext({ text: undoWords.undone(counted(undone, 'entry', 'entries')) }) });
});

export const loader = withErrors(async () => {
  throw new NotFound('There is only something to send here.');
});
