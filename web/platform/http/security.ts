import { randomBytes } from 'node:crypto';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { createContext } from 'react-router';
import { fileSize } from '~/core/entries/evidence';
import { routeAt } from './routes-known';
import { securityWords } from './words';

/** The nonce that this answer's inline scripts must carry. */
export const nonceContext = createContext<string>('');

/** The address a request came from, for rate limits. */
export const addressContext = createContext<string>('unknown');

/**
 * Whose tries are counted together: an IPv6 address is one of the many that its owner has, so its network counts (RFC 6177: a /64 is one
 * site's at the least); one that carries an IPv4 address is that.
 *
 * @example addressKey('2001:db8:1:2:aaaa::1') // '2001:db8:1:2::/64'
 * @example addressKey('::ffff:192.0.2.7') // '192.0.2.7'
 */
export function addressKey(address: string): string {
  const four = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  if (four) return four;
  if (!address.includes(':')) return address;
  const [head = '', tail] = address.replace(/%.*$/, '').split('::');
  const groups = head === '' ? [] : head.split(':');
  const after = tail ? tail.split(':') : [];
  const all = tail === undefined ? groups : [...groups, ...Array(8 - groups.length - after.length).fill('0'), ...after];
  return `${all
    .slice(0, 4)
    .map((one) => one.toLowerCase().replace(/^0+(?=.)/, ''))
    .join(':')}::/64`;
}

/** Where a request came from, as its tries are counted. */
export const addressOf = (request: Request): string => addressKey(request.ip ?? 'unknown');

/** What a route takes that does not say: more than a session of many goals with long notes. One that takes more says so by `handle.largestBody`. */
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

/** For pages whose address is a secret, and for desks: neither kept nor found, and their address goes nowhere. */
export const keepPrivate: RequestHandler = (request, response, next) => {
  const { pattern } = routeAt(request.path);
  if (!pattern.includes('/:token') && !pattern.startsWith('/desk')) return next();
  response.set({
    'Cache-Control': 'no-store',
    'X-Robots-Tag': 'noindex, nofollow',
    'Referrer-Policy': 'no-referrer',
  });
  next();
};

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
  const largest = routeAt(request.path).largestBody ?? LARGEST_BODY;
  if (Number(length) > largest) return [413, securityWords.tooLarge(fileSize(largest))];
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
