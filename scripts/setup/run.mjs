import { spawn, spawnSync } from 'node:child_process';
import { delimiter, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const projectFolder = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');

/** The environment in which the project's own commands (`tsx`, `vitest` …) are found by name. */
export function environment(extra = {}) {
  const path = [join(projectFolder, 'node_modules', '.bin'), process.env.PATH].join(delimiter);
  return { ...process.env, ...extra, PATH: path };
}

/** Runs a command to its end, showing what it prints (quietly, on the error output). Resolves to its exit code. */
export function run(command, args, { env = {}, isQuiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: projectFolder,
      stdio: ['inherit', isQuiet ? 2 : 1, 2],
      env: environment(env),
    });
    const pass = (signal) => child.kill(signal);
    process.on('SIGINT', pass);
    process.on('SIGTERM', pass);
    child.on('error', reject);
    child.on('exit', (code, signal) => {
      process.off('SIGINT', pass);
      process.off('SIGTERM', pass);
      resolve(code ?? (signal ? 130 : 1));
    });
  });
}

/** Runs a command quietly. */
export function quietly(command, args, options = {}) {
  const done = spawnSync(command, args, { encoding: 'utf8', ...options });
  return { ok: done.status === 0, output: `${done.stdout ?? ''}${done.stderr ?? ''}`.trim() };
}

export const isRoot = process.getuid?.() === 0;

/** A school's server needs little: without a bound, Node.js lets its heap grow with the machine instead of tidying it. */
export const serverFlags = [
  `--max-old-space-size=${Number(process.env.WEB_MEMORY) || 384}`,
  '--max-semi-space-size=16',
];

/** The demo is for the project's own database; in one of somebody's own a school is set up, unless DEMO=1 says otherwise. */
export const wantsDemo = ({ DEMO, DATABASE_URL } = process.env) => (DEMO ? DEMO === '1' : !DATABASE_URL);
