import {
  allowInsecureRequests,
  authorizationCodeGrant,
  buildAuthorizationUrl,
  type Configuration,
  calculatePKCECodeChallenge,
  discovery,
  randomNonce,
  randomPKCECodeVerifier,
  randomState,
} from 'openid-client';
import { z } from 'zod';
import { config } from '../platform/config';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { writeChange } from '../school/changes';
import { enterSchool } from './join';
import { worksSomewhere } from './own';
import { ownAccount } from './own-account';
import { hashPassword } from './passwords';
import { newToken } from './tokens';

/** Seconds that the service may take to answer. */
const PATIENCE = 10;

/** What the sign-in page calls the district's own service; null where there is none. */
export const districtName = (): string | null =>
  config.OIDC_ISSUER && config.OIDC_CLIENT_ID ? config.OIDC_NAME : null;

/** Where the service sends people back to: it has to be told this address beforehand. */
export const districtReturn = () => `${config.PUBLIC_URL}/sign-in/district/back`;

let found: Promise<Configuration> | undefined;

/** What the service says of itself; asked once, and again where it could not be reached. */
function service(): Promise<Configuration> {
  const { OIDC_ISSUER = '', OIDC_CLIENT_ID = '', OIDC_CLIENT_SECRET } = config;
  const issuer = new URL(OIDC_ISSUER);
  // The stand-in on the same machine has no certificate.
  const isHere = ['localhost', '127.0.0.1'].includes(issuer.hostname);
  found ??= discovery(issuer, OIDC_CLIENT_ID, OIDC_CLIENT_SECRET, undefined, {
    timeout: PATIENCE,
    ...(isHere && { execute: [allowInsecureRequests] }),
  }).catch((error) => {
    found = undefined;
    throw error;
  });
  return found;
}

/** What the browser keeps while somebody is at the service: with it alone the answer can be taken. */
export const keptSignIn = z.object({
  state: z.string(),
  nonce: z.string(),
  verifier: z.string(),
  next: z.string().nullable(),
});
export type KeptSignIn = z.infer<typeof keptSignIn>;

/**
 * Begins a sign-in at the district's service (authorization code with PKCE, OpenID Connect Core 1.0, RFC 7636).
 *
 * @returns where to send the browser, and what it is to keep
 * @throws Error where the service cannot be reached
 */
export async function beginDistrict(next: string | null): Promise<{ to: string; kept: KeptSignIn }> {
  const kept = { state: randomState(), nonce: randomNonce(), verifier: randomPKCECodeVerifier(), next };
  const to = buildAuthorizationUrl(await service(), {
    ...{ redirect_uri: districtReturn(), scope: 'openid email profile', state: kept.state, nonce: kept.nonce },
    ...{ code_challenge: await calculatePKCECodeChallenge(kept.verifier), code_challenge_method: 'S256' },
  });
  return { to: to.href, kept };
}

const claims = z.object({
  iss: z.string(),
  sub: z.string(),
  email: z.string().trim().max(200).pipe(z.email()).optional(),
  email_verified: z.boolean().optional(),
  name: z.string().trim().min(1).max(120).optional(),
});

/** Who somebody is at the service. */
export interface DistrictIdentity {
  issuer: string;
  subject: string;
  /** Only an address that the service itself has verified. */
  email: string | null;
  name: string | null;
}

/**
 * Who came back from the service. Its signature, audience, times, state and nonce are held against what was asked.
 *
 * @throws Error where the answer is not one to what was asked
 */
export async function identityFrom(search: string, { state, nonce, verifier }: KeptSignIn): Promise<DistrictIdentity> {
  const answered = await authorizationCodeGrant(await service(), new URL(`${districtReturn()}${search}`), {
    ...{ expectedState: state, expectedNonce: nonce, pkceCodeVerifier: verifier, idTokenExpected: true },
  });
  const { iss, sub, email, email_verified: isVerified, name } = claims.parse(answered.claims());
  return { issuer: iss, subject: sub, email: isVerified && email ? email : null, name: name ?? null };
}

export type DistrictAnswer = { personId: string } | { refused: 'notVerified' | 'uninvited' | 'another' };

const joinRow = z.object({
  id: z.string(),
  schoolId: z.string(),
  timeZone: z.string(),
  name: z.string(),
  email: z.string(),
  isAdmin: z.boolean(),
});

/**
 * Lets somebody in whom the district's service knows: whoever came before, by its own name for them; whoever comes first, by a verified
 * address that has an account here or was asked to join. Nobody gets in uninvited. What a school asked them is answered with it.
 */
export async function signInByDistrict(
  db: Database,
  { issuer, subject, email, name }: DistrictIdentity,
  now: Date,
): Promise<DistrictAnswer> {
  // It opens nothing: nobody is told it.
  const passwordHash = await hashPassword(newToken());
  return db.transaction(async (trx): Promise<DistrictAnswer> => {
    const bound = await trx('district_accounts').where({ issuer, subject }).first('person_id');
    if (bound) {
      return (await worksSomewhere(trx, bound.person_id, now))
        ? { personId: bound.person_id }
        : { refused: 'uninvited' };
    }
    if (email === null) return { refused: 'notVerified' };
    const account = await trx('people')
      .whereRaw('lower(email) = lower(?)', [email])
      .forUpdate()
      .first('id', 'name', 'work', 'email_proven_at');
    const joins = await openJoinsOf(trx, email, now);
    const works = account !== undefined && (await worksSomewhere(trx, account.id, now));
    if (!works && joins.length === 0) return { refused: 'uninvited' };
    if (account && (await trx('district_accounts').where({ issuer, person_id: account.id }).first('subject'))) {
      return { refused: 'another' };
    }
    const personId =
      account?.email_proven_at != null
        ? account.id
        : await ownAccount(
            trx,
            { accountId: account?.id ?? null, email, isReadOut: false },
            { name: account?.name ?? joins[0]?.name ?? name ?? email, work: account?.work ?? '', passwordHash },
            { of: { schoolId: joins[0]?.schoolId ?? (await schoolOf(trx, account?.id ?? '')) }, now },
          );
    for (const join of joins) await enterSchool(trx, join, personId, now);
    await trx('district_accounts').insert({ issuer, subject, person_id: personId, since: now });
    const change = { before: null, after: { 'district account': 'connected' } };
    await writeChange(trx, personId, { what: 'account', personId, ...change }, now);
    return { personId };
  });
}

const schoolOf = async (db: Database, personId: string): Promise<string> =>
  (await db('school_staff').where({ person_id: personId }).orderBy('from_date', 'desc').first('school_id'))
    ?.school_id ?? '';

const openJoinsOf = (db: Database, email: string, now: Date) =>
  rowsOf(
    db,
    joinRow,
    `select l.id, l.school_id as "schoolId", c.time_zone as "timeZone", l.name, l.email, l.is_admin as "isAdmin"
       from account_links l join schools c on c.id = l.school_id
      where l.kind = 'join' and lower(l.email) = lower(:email) and l.used_at is null and l.withdrawn_at is null and l.ends_at > :now
      order by l.made_at for update of l`,
    { email, now },
  );
