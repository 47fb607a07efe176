import { fileName } from '~/core/documents/file-name';
import { batchFile } from '~/server/documents/batches';
import { database } from '~/server/platform/db/current';
import { askerOf, idFrom } from '../platform/http/asker';
import { answeringHeavy } from '../platform/http/heavy';
import type { Route } from './+types/batch-file';
import { fileAnswer } from './file-answer';

/** The papers of a class group in one PDF, for whoever asked for it. */
export const loader = answeringHeavy(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, now } = askerOf(context);
  const file = await batchFile(database(), actor, idFrom(params.batchId), now);
  return fileAnswer(file, 'application/pdf', `${fileName('', 'reports', actor.today)}.pdf`);
});
