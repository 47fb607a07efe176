import { writeReadableStreamToWritable } from '@react-router/node';
import type { Response as Answer, Request as Asked, RequestHandler } from 'express';
import { createRequestHandler, RouterContextProvider, type ServerBuild } from 'react-router';
import { senderOf } from './bodies';
import { knowRoutes, routeAt } from './routes-known';
import { addressContext, addressOf, nonceContext } from './security';
import { inShare, TooManyAtOnce } from './shares';
import { pagesWords } from './words';

/** The request as React Router reads it; what was sent is in memory already. */
function requestOf(asked: Asked, answer: Answer): Request {
  const gone = new AbortController();
  answer.once('close', () => {
    if (!answer.writableFinished) gone.abort();
  });
  const headers = new Headers();
  for (const [name, value] of Object.entries(asked.headers)) {
    for (const one of [value ?? []].flat()) headers.append(name, one);
  }
  const host = (asked.get('host') ?? 'localhost').split(/[\\/?#@]/)[0];
  const body: Buffer<ArrayBuffer> | undefined = asked.body;
  return new Request(new URL(asked.originalUrl, `${asked.protocol}://${host}`), {
    method: asked.method,
    headers,
    signal: gone.signal,
    ...(body !== undefined && { body }),
  });
}

async function send(response: Response, answer: Answer): Promise<void> {
  if (answer.destroyed || answer.writableEnded) return void (await response.body?.cancel());
  answer.statusMessage = response.statusText;
  answer.status(response.status);
  for (const [name, value] of response.headers) answer.append(name, value);
  if (response.headers.get('Content-Type')?.startsWith('text/event-stream')) answer.flushHeaders();
  if (!response.body) return void answer.end();
  await writeReadableStreamToWritable(response.body, answer).catch((error) => {
    // Whoever asked has gone.
    if (!answer.destroyed) throw error;
  });
}

/** Answers with the pages of a build, each sender in their share. */
export function pages(build: ServerBuild): RequestHandler {
  knowRoutes(build.routes);
  const handle = createRequestHandler(build, 'production');
  return async (asked, answer, next) => {
    try {
      const context = new RouterContextProvider();
      context.set(nonceContext, answer.locals.nonce);
      context.set(addressContext, addressOf(asked));
      const request = requestOf(asked, answer);
      const sender = senderOf(asked, routeAt(asked.path).params.token);
      await send(await inShare(asked, sender, () => handle(request, context)), answer);
    } catch (error) {
      if (!(error instanceof TooManyAtOnce)) return next(error);
      answer.status(429).set('Retry-After', '5').type('text').send(pagesWords.muchAtOnce);
    }
  };
}
