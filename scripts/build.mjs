// Builds the application, then the worker that keeps it on a device.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'vite';
import { loadedByName } from './setup/loaded-by-name.mjs';
import { projectFolder, run } from './setup/run.mjs';

const code = await run('react-router', ['build']);
if (code !== 0) process.exit(code);

const client = join(projectFolder, 'build', 'client');
const hashOf = (text) => createHash('sha256').update(text).digest('hex').slice(0, 16);

/** The program as the browser loads it: what is built carries its hash in its name. */
const assets = readdirSync(join(client, 'assets')).map((file) => ({ url: `/assets/${file}`, revision: null }));
/** What stands beside it, and the page from which kept ones are opened: new with every build. */
const beside = ['mark.svg', 'manifest.webmanifest'].map((file) => ({
  url: `/${file}`,
  revision: hashOf(readFileSync(join(client, file))),
}));
const opening = { url: '/opening', revision: hashOf(assets.map(({ url }) => url).join('\n')) };

/** What runs in threads beside the server: a program of its own. */
await build({
  root: projectFolder,
  configFile: false,
  envDir: false,
  logLevel: 'warn',
  publicDir: false,
  resolve: { alias: { '~': projectFolder } },
  ssr: { noExternal: true, external: loadedByName },
  build: {
    ssr: true,
    outDir: join(projectFolder, 'build', 'threads'),
    emptyOutDir: true,
    rollupOptions: {
      input: join(projectFolder, 'server/threads/program.ts'),
      output: { entryFileNames: 'program.js' },
    },
  },
});

await build({
  root: projectFolder,
  configFile: false,
  envDir: false,
  logLevel: 'warn',
  publicDir: false,
  resolve: { alias: { '~': projectFolder } },
  define: {
    'self.__WB_MANIFEST': JSON.stringify([...assets, ...beside, opening]),
    'process.env.NODE_ENV': '"production"',
  },
  build: {
    outDir: client,
    emptyOutDir: false,
    rollupOptions: {
      input: join(projectFolder, 'web/platform/offline/worker/worker.ts'),
      output: { format: 'iife', entryFileNames: 'worker.js' },
    },
  },
});
