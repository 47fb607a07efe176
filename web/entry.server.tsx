import { Writable } from 'node:stream';
import { renderToPipeableStream } from 'react-dom/server';
import { type EntryContext, type HandleErrorFunction, type RouterContextProvider, ServerRouter } from 'react-router';
import { logFailure } from './platform/http/log';
import { nonceContext } from './platform/http/security';
import { Nonce } from './platform/ui/nonce';

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  routerContext: EntryContext,
  context: Readonly<RouterContextProvider>,
): Promise<Response> {
  const nonce = context.get(nonceContext);
  return new Promise((resolve, reject) => {
    const page = (
      <Nonce value={nonce}>
        <ServerRouter context={routerContext} url={request.url} nonce={nonce} />
      </Nonce>
    );
    const { pipe, abort } = renderToPipeableStream(page, {
      nonce,
      // Pages hold no deferred parts: the whole is sent at once, which costs less than a stream of small pieces, and a failure can
      // still become an error page.
      onAllReady() {
        headers.set('Content-Type', 'text/html; charset=utf-8');
        const pieces: Buffer[] = [];
        const whole = new Writable({
          write(piece, _, done) {
            pieces.push(Buffer.from(piece));
            done();
          },
          final(done) {
            resolve(new Response(Buffer.concat(pieces), { headers, status }));
            done();
          },
        });
        pipe(whole);
      },
      onShellError: reject,
      onError: (error) => logFailure(error, new URL(request.url).pathname),
    });
    request.signal.addEventListener('abort', () => abort(), { once: true });
  });
}

export const handleError: HandleErrorFunction = (error, { request }) => {
  if (!request.signal.aborted) logFailure(error, new URL(request.url).pathname);
};
