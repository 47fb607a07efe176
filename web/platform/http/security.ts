import { randomBytes } from 'node:crypto';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { createContext } from 'react-router';
import { LARGEST_FILE } from '~/core/entries/evidence';
import { securityWords } from './words';

/** The nonce that this answer's inline scripts must carry. */
export const nonceContext = createContext<string>('');

/** The address a request came from, for rate limits. */
export const addressContext = createContext<string>('unknown');

/** More than the largest honest submission: a session of many goals with long notes. */
const LARGEST_BODY = 512 * 1024;

/** Gives each answer a nonce and the headers that keep foreign scripts and frames out. */
export function securityHeaders({ isSecure }: { isSecure: boolean }): RequestHandler[] {
  const nonce: RequestHandler = (_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64');
    next();
  };
  const headers = helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'", (_request, response) => `'nonce-${(response as Response).locals.nonce}'`],
        styleSrc: ["'self'"],
        styleSrcAttr: ["'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        manifestSrc: ["'self'"],
        formAction: ["'self'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: isSecure,
    // A share link is an address that must not travel on to other sites.
    referrerPolicy: { policy: 'same-origin' },
    xFrameOptions: { action: 'deny' },
  });
  return [nonce, headers];
}

/** For pages behind a share link: neither kept nor found, and their address goes nowhere. */
export const keepPrivate: RequestHandler = (_request, response, next) => {
  response.set({
    'Cache-Control': 'no-store',
    'X-Robots-Tag': 'noindex, nofollow',
    'Referrer-Policy': 'no-referrer',
  });
  next();
};

/** Where a photograph or a file is sent to, which is larger than all else. */
const EVIDENCE = /^\/(students\/[^/]+\/evidence\/of\/|class\/work-samples\/[^/]+(\.data)?$)/;
const LARGEST_UPLOAD = LARGEST_FILE + 64 * 1024;
/** What may bring photographs along that their device made smaller: what is observed, and answers to a form. */
const WITH_PHOTOGRAPHS = /^\/(students\/[^/]+\/(sessions|behavior-entries|notes)|desk\/note)(\.data)?$/;
const LARGEST_WITH_PHOTOGRAPHS = 5 * 1024 * 1024;
/** The same once more, as a device had sealed it: letters for bytes take a third more room. */
const LARGEST_SEALED = 2 * LARGEST_WITH_PHOTOGRAPHS;

/** From a page of ours: of the address that people type, or of the one that this was sent to. */
function comesFromHere({ headers }: Request, publicOrigin: string): boolean {
  const { origin, host, 'sec-fetch-site': site } = headers;
  if (origin) return origin === publicOrigin || (URL.canParse(origin) && new URL(origin).host === host);
  return site === 'same-origin' || site === 'none';
}

function refusal(request: Request, publicOrigin: string): [status: number, sentence: string] | null {
  if (request.method === 'GET' || request.method === 'HEAD') return null;
  // A mail program that presses “unsubscribe” for its reader comes from nowhere: the address itself is the secret.
  if (!comesFromHere(request, publicOrigin) && !request.path.startsWith('/stop/'))
    return [403, securityWords.thisWasSentFromAnother];
  const length = request.headers['content-length'];
  if (length === undefined) return [411, securityWords.theLengthOfWhatIs];
  const bringsPhotographs = WITH_PHOTOGRAPHS.test(request.path);
  const isSealed = request.path === '/unseal';
  const larger = isSealed ? LARGEST_SEALED : bringsPhotographs ? LARGEST_WITH_PHOTOGRAPHS : LARGEST_BODY;
  const largest = EVIDENCE.test(request.path) ? LARGEST_UPLOAD : larger;
  if (Number(length) > largest) return [413, securityWords.thisIsLargerThanAn];
  return null;
}

/**
 * Lets only pages of this site send anything, and nothing larger than an entry can be.
 *
 * @param publicUrl  the address people type: behind a proxy that writes another host into its requests, it says what this site is
 */
export function guardSubmissions(publicUrl: string): RequestHandler {
  const { origin: publicOrigin, host: publicHost, protocol } = new URL(publicUrl);
  return (request: Request, response: Response, next: NextFunction) => {
    const refused = refusal(request, publicOrigin);
    if (refused) {
      response.status(refused[0]).type('text').send(refused[1]);
      return;
    }
    // React Router holds the two against each other once more, host and protocol.
    if (request.headers.origin === publicOrigin) {
      request.headers.host = publicHost;
      delete request.headers['x-forwarded-host'];
      Object.defineProperty(request, 'protocol', { value: protocol.slice(0, -1) });
    }
    next();
  };
}
