import type { RequestHandler } from 'express';
import { database } from '~/server/db/current';
import { type Health, healthOf } from '~/server/db/health';

/** An answer that takes longer than this is none, in milliseconds. */
const PATIENCE = 5000;

/** Says whether the installation is well: 503 when its database cannot be reached, or cannot be written to. */
export const health: RequestHandler = async (_request, response) => {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<Health>((resolve) => {
    timer = setTimeout(() => resolve({ ok: false, database: 'unreachable', worker: null }), PATIENCE);
  });
  const found = await Promise.race([healthOf(database()), late]);
  clearTimeout(timer);
  response
    .status(found.ok ? 200 : 503)
    .set('Cache-Control', 'no-store')
    .json(found);
};
