// A stand-in for a district's own sign-in, by OpenID Connect on loopback: whoever types an address there is that person, whatever the
// password; an address that begins with “unproven” was never verified. For trying out and for tests, never for a school.
import { once } from 'node:events';
import { createServer } from 'node:http';
import Provider from 'oidc-provider';

const { TEST_DISTRICT_PORT = '4330', TEST_DISTRICT_RETURN = 'http://localhost:4310/sign-in/district/back' } =
  process.env;

const server = createServer();
server.listen(Number(TEST_DISTRICT_PORT), '127.0.0.1');
await once(server, 'listening');
const address = server.address();
const port = typeof address === 'object' && address ? address.port : TEST_DISTRICT_PORT;

const provider = new Provider(`http://localhost:${port}`, {
  clients: [
    {
      client_id: 'gentle-margin',
      client_secret: 'only-for-trying-out',
      redirect_uris: [TEST_DISTRICT_RETURN],
      token_endpoint_auth_method: 'client_secret_post',
    },
  ],
  claims: { openid: ['sub'], email: ['email', 'email_verified'], profile: ['name'] },
  // What it says of somebody stands in the signed token itself.
  conformIdTokenClaims: false,
  cookies: { keys: ['only-for-trying-out'] },
  findAccount: (_, sub) => ({
    accountId: sub,
    claims: () => ({ sub, email: sub, email_verified: !sub.startsWith('unproven'), name: sub.split('@')[0] ?? sub }),
  }),
  pkce: { required: () => true },
});
server.on('request', provider.callback());
process.send?.({ listening: port });
console.log(`The stand-in for a district's sign-in is at http://localhost:${port}`);

for (const reason of ['SIGTERM', 'SIGINT', 'disconnect'] as const) {
  process.once(reason, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
}
