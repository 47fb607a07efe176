import type { RequestHandler } from 'express';
import { database } from '~/server/platform/db/current';
import { type Health, healthOf } from '~/server/platform/db/health';

/** An answer that takes longer than this is none, in milliseconds. */
const PATIENCE = 5000;

/** Whoever asks while somebody else is answered gets the same answer: many at once ask the database once. */
let asked: Promise<Health> | undefined;

function askOnce(): Promise<Health> {
  asked ??= healthOf(database()).finally(() => {
    asked = undefined;
  });
  return asked;
}

/** Says whether the installation is well: 503 when its database cannot be reached, or cannot be written to. */
export const health: RequestHandler = async (_request, response) => {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<Health>((resolve) => {
    timer = setTimeout(
      () => resolve({ ok: false, database: 'unreachable', worker: null, backupProblem: null }),
      PATIENCE,
    );
  });
  const found = await Promise.race([askOnce(), late]);
  clearTimeout(timer);
  response
    .status(found.ok ? 200 : 503)
    .set('Cache-Control', 'no-store')
    .json(found);
};
