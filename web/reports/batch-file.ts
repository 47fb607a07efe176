import { fileName } from '~/core/paper/file-name';
import { database } from '~/server/db/current';
import { batchFile } from '~/server/progress-reports/batches';
import { askerOf, idFrom } from '../http/asker';
import { answeringHeavy } from '../http/heavy';
import type { Route } from './+types/batch-file';
import { fileAnswer } from './file-answer';

/** The papers of a class group in one PDF, for whoever asked for it. */
export const loader = answeringHeavy(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, now } = askerOf(context);
  const file = await batchFile(database(), actor, idFrom(params.batchId), now);
  return fileAnswer(file, 'application/pdf', `${fileName('', 'reports', actor.today)}.pdf`);
});
