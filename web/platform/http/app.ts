import { createRequestHandler } from '@react-router/express';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import { RouterContextProvider, type ServerBuild } from 'react-router';
import { config } from '~/server/platform/config';
import { health } from './health';
import { logRequests } from './log';
import { moved } from './moved';
import { addressContext, guardSubmissions, keepPrivate, nonceContext, securityHeaders } from './security';

const compress = compression();

/** Pages and files are worth compressing; the few bytes that answer a submission are not, and what is live would wait for more. */
const compressPages: RequestHandler = (request, response, next) => {
  if (request.method === 'GET' && request.path !== '/live') compress(request, response, next);
  else next();
};

/** The whole server: what stands around the pages, then the pages. */
export function makeApp(build: ServerBuild, { assets }: { assets: string }): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', /^\d+$/.test(config.TRUST_PROXY) ? Number(config.TRUST_PROXY) : config.TRUST_PROXY);
  app.use(compressPages);
  app.use('/assets', express.static(`${assets}/assets`, { immutable: true, maxAge: '1y', index: false }));
  // A browser asks for these again and again: whether there is a newer program, and what it is called.
  app.get(['/worker.js', '/manifest.webmanifest'], express.static(assets, { maxAge: 0, index: false }));
  app.get(/\.\w+$/, express.static(assets, { maxAge: '1h', index: false }));
  app.use(logRequests);
  app.get('/health', health);
  app.use(securityHeaders({ isSecure: config.PUBLIC_URL.startsWith('https:') }), guardSubmissions(config.PUBLIC_URL));
  app.use(moved);
  app.use(['/shared', '/invited', '/stop', '/rate', '/desk'], keepPrivate);
  const getLoadContext = (request: express.Request, response: express.Response) => {
    const context = new RouterContextProvider();
    context.set(nonceContext, response.locals.nonce);
    context.set(addressContext, request.ip ?? 'unknown');
    return context;
  };
  app.use(createRequestHandler({ build, getLoadContext, mode: 'production' }));
  return app;
}
