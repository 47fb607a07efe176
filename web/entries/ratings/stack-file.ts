import { workFile } from '~/server/entries/ratings/stack-rater';
import { database } from '~/server/platform/db/current';
import { evidenceAnswer } from '../evidence/evidence-answer';
import type { Route } from './+types/stack-file';
import { withErrorsAtSample } from './at-stack';

/** The photograph or PDF of a work sample, for one on whose list it is. */
export const loader = withErrorsAtSample(async (_: Route.LoaderArgs, { sampleId }) =>
  evidenceAnswer({ ...(await workFile(database(), sampleId)), entryId: sampleId, name: 'work' }),
);
