import { fileName } from '~/core/documents/file-name';
import { batchFile } from '~/server/documents/batches';
import { database } from '~/server/platform/db/current';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import type { Route } from './+types/batch-file';
import { fileAnswer } from './file-answer';

/** The documents of several students, in one PDF or packed, for whoever asked for it. */
export const loader = withErrorsInTurn(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now } = personOf(context);
  const file = await batchFile(database(), actor, idFrom(params.batchId), { school, now });
  return fileAnswer(file.content, `application/${file.type}`, `${fileName('', 'reports', actor.today)}.${file.type}`);
});
