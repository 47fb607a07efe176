import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import type { ServerBuild } from 'react-router';
import { config } from '~/server/platform/config';
import { readBodies } from './bodies';
import { health } from './health';
import { logRequests } from './log';
import { moved } from './moved';
import { pages } from './pages';
import { guardSubmissions, keepPrivate, securityHeaders } from './security';

const compress = compression();

/** Pages and files are worth compressing; the few bytes that answer a submission are not, and what is live would wait for more. */
const compressPages: RequestHandler = (request, response, next) => {
  if (request.method === 'GET' && request.path !== '/live') compress(request, response, next);
  else next();
};

/** The whole server: what stands around the pages, then the pages. */
export function makeApp(build: ServerBuild, { assets }: { assets: string }): Express {
  const app = express();
  const answerPages = pages(build);
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
  app.use(keepPrivate, readBodies, answerPages);
  return app;
}
