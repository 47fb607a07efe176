import type { RequestHandler } from 'express';
import pino from 'pino';
import { config } from '~/server/platform/config';

export const log = pino({ level: config.LOG_LEVEL, base: null, timestamp: pino.stdTimeFunctions.isoTime });

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/gi;

/**
 * An address as the log may know it: no ids, no tokens, no search words.
 *
 * @example loggedPath('/shared/abc?goal=2a') // '/shared/:token'
 */
export function loggedPath(url: string): string {
  const [path = ''] = url.split('?');
  return path
    .replace(UUID, ':id')
    .replace(/^\/(shared|invited|stop|rate|stack|desk\/in|seat\/in)\/[^/]+/, '/$1/:token');
}

/** One line for each answer: method, kind of address, status, milliseconds. Nothing of any student. */
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
