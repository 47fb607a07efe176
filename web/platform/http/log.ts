import type { RequestHandler } from 'express';
import pino from 'pino';
import { config } from '~/server/platform/config';
import { routeAt } from './routes-known';

export const log = pino({ level: config.LOG_LEVEL, base: null, timestamp: pino.stdTimeFunctions.isoTime });

/** An address as the log may know it: the pattern of its route. Whatever is in it of ids, tokens and words stays out. */
export const loggedPath = (url: string): string => routeAt(url).pattern;

/** One line for each answer: method, pattern of the address, status, milliseconds. Nothing of any student. */
export const logRequests: RequestHandler = (request, response, next) => {
  const start = performance.now();
  response.on('finish', () => {
    const ms = Math.round(10 * (performance.now() - start)) / 10;
    log.info({ method: request.method, path: loggedPath(request.originalUrl), status: response.statusCode, ms });
  });
  next();
};

/** Logs what went wrong without the values that a query or form held. */
export function logFailure(error: unknown, path: string): void {
  const { name, code, stack } = (error ?? {}) as { name?: string; code?: string; stack?: string };
  const frames = stack
    ?.split('\n')
    .filter((line) => line.trimStart().startsWith('at '))
    .slice(0, 6);
  log.error({ name, code, frames, path: loggedPath(path) }, 'failed');
}
