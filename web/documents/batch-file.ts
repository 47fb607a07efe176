import { fileName } from '~/core/documents/file-name';
import { batchFile } from '~/server/documents/batches';
import { database } from '~/server/platform/db/current';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import type { Route } from './+types/batch-file';
import { fileAnswer } from './file-answer';

/** The documents of a class group in one PDF, for whoever asked for it. */
export const loader = withErrorsInTurn(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, now } = personOf(context);
  const file = await batchFile(database(), actor, idFrom(params.batchId), now);
  return fileAnswer(file, 'application/pdf', `${fileName('', 'reports', actor.today)}.pdf`);
});
