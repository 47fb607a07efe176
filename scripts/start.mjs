// Brings everything up: packages, database, tables, demo, build, processes; keeps them up. Ctrl-C ends it all.
import { checkNode, ensureBuild, ensurePackages } from './setup/packages.mjs';
import { ensurePostgres } from './setup/postgres.mjs';
import { environment, projectFolder, run, serverFlags, wantsDemo } from './setup/run.mjs';
import { supervise } from './setup/supervise.mjs';

checkNode();
await ensurePackages();
// The demo is for the project's own database; in one of somebody's own, the school is set up on a page.
const isDemo = wantsDemo();
const { url, stop: stopDatabase } = await ensurePostgres();
// With OIDC=demo a stand-in for a district's own sign-in comes up beside it.
const hasDistrict = process.env.OIDC === 'demo';
const district = hasDistrict
  ? {
      OIDC_ISSUER: 'http://localhost:4330',
      OIDC_CLIENT_ID: 'gentle-margin',
      OIDC_CLIENT_SECRET: 'only-for-trying-out',
      TEST_DISTRICT_RETURN: `${process.env.PUBLIC_URL ?? `http://localhost:${process.env.PORT ?? 4310}`}/sign-in/district/back`,
    }
  : {};
const env = { ...environment({ DATABASE_URL: url }), ...district, NODE_ENV: 'production' };
const end = (code) => {
  stopDatabase();
  process.exit(code);
};
process.on('uncaughtException', (error) => {
  console.error(error.message);
  end(1);
});

await ensureBuild();
if ((await run('tsx', ['scripts/prepare.ts', ...(isDemo ? ['--demo'] : [])], { env })) !== 0) end(1);

const node = (name, args, more = {}) => ({ name, command: process.execPath, args, env, ...more });
let isTold = false;
function tellOnce({ listening } = {}) {
  if (!listening || isTold) return;
  isTold = true;
  const address = process.env.PUBLIC_URL ?? `http://localhost:${listening}`;
  const signIn = isDemo
    ? '\nSign in as hanneke.bruun@quince-lane.example with the password quince-and-thyme, or tap one of the demo people.'
    : '';
  console.log(`\nGentle Margin is at ${address}${signIn}\nCtrl-C stops it.\n`);
}
const { ended, stop } = supervise(
  [
    node('The server', [...serverFlags, 'build/server/index.js'], { onMessage: tellOnce }),
    // Messages and large papers are made beside the pages; messages go to the test mail server unless SMTP_URL says otherwise.
    node('The worker', ['--import', 'tsx', 'server/worker/main.ts']),
    ...(process.env.SMTP_URL
      ? []
      : [node('The test mail server', ['--import', 'tsx', 'test-mail/main.ts'], { isNeeded: false })]),
    ...(hasDistrict
      ? [
          node('The stand-in for a district’s sign-in', ['--import', 'tsx', 'test-district/main.ts'], {
            isNeeded: false,
          }),
        ]
      : []),
  ],
  { cwd: projectFolder },
);
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => stop());
end(await ended);
