import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { environment, isRoot, projectFolder, quietly, run } from './run.mjs';
import { giveUp } from './say.mjs';

const data = join(projectFolder, '.data');
const OLDEST_NODE = [20, 20];

/** Ends with one sentence on a Node.js that is too old. */
export function checkNode(version = process.versions.node) {
  const [major, minor] = version.split('.').map(Number);
  if (major < OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor < OLDEST_NODE[1])) {
    giveUp(`Gentle Margin needs Node.js ${OLDEST_NODE.join('.')} or newer; this is ${version}.`);
  }
}

/** Does a step only when what it depends on has changed since it last succeeded. */
async function onceFor(name, fingerprint, isThere, step) {
  const stamp = join(data, `${name}.stamp`);
  if (isThere && existsSync(stamp) && readFileSync(stamp, 'utf8') === fingerprint) return;
  await step();
  mkdirSync(data, { recursive: true });
  writeFileSync(stamp, fingerprint);
}

const hashOf = (text) => createHash('sha256').update(text).digest('hex');

/**
 * Installs the npm packages of the lock file, when they are not there yet.
 * Quietly, it says so on the error output only: the standard output then belongs to what comes after.
 */
export async function ensurePackages({ isQuiet = false } = {}) {
  const lock = readFileSync(join(projectFolder, 'package-lock.json'), 'utf8');
  const isThere = existsSync(join(projectFolder, 'node_modules', 'react-router'));
  await onceFor('packages', hashOf(lock), isThere, async () => {
    console[isQuiet ? 'error' : 'log']('Installing the packages …');
    if ((await run('npm', ['ci', '--no-audit', '--no-fund'], { isQuiet })) !== 0)
      giveUp('The npm packages could not be installed.');
  });
}

function* filesBelow(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesBelow(path);
    else yield path;
  }
}

/** Builds the application, when its sources have changed. */
export async function ensureBuild() {
  const sources = ['core', 'server', 'web', 'demo', 'public'].flatMap((folder) => [
    ...filesBelow(join(projectFolder, folder)),
  ]);
  sources.push(
    ...['package-lock.json', 'vite.config.ts', 'react-router.config.ts', 'scripts/build.mjs'].map((f) =>
      join(projectFolder, f),
    ),
  );
  const facts = sources.sort().map((path) => `${path} ${statSync(path).size} ${statSync(path).mtimeMs}`);
  const isThere = existsSync(join(projectFolder, 'build', 'server', 'index.js'));
  await onceFor('build', hashOf(facts.join('\n')), isThere, async () => {
    console.log('Building …');
    const built = quietly('node', ['scripts/build.mjs'], { cwd: projectFolder, env: environment() });
    if (!built.ok) giveUp(`The application could not be built:\n${built.output}`);
  });
}

/** Installs a Debian package where that is possible; else says what to install. */
export async function ensureDebianPackage(name, isThere, whatFor) {
  if (isThere()) return;
  if (isRoot && quietly('apt-get', ['--version']).ok) {
    console.log(`Installing ${name} …`);
    const env = { DEBIAN_FRONTEND: 'noninteractive' };
    await run('apt-get', ['update', '-qq'], { env });
    await run('apt-get', ['install', '-y', '-qq', name], { env });
  }
  if (!isThere()) giveUp(`${whatFor} is missing; install it with: sudo apt-get install ${name}`);
}
