import { spawn } from 'node:child_process';

/** Waits between two starts, in milliseconds: the first, and the longest that doubling comes to. */
const [FIRST_WAIT, LONGEST_WAIT] = [500, 10_000];
/** Who lives for so long, in milliseconds, is well: what was before is forgiven. */
const WELL_AFTER = 30_000;
/** Deaths in a row, before it is well again, until it is given up. */
const MOST_DEATHS = 6;
/** So long, in milliseconds, what was told to stop may take. */
const STOP_WITHIN = 10_000;
/** A process that ends with this says that another start would not help (`EX_CONFIG` of sysexits.h). */
export const NO_USE = 78;

/**
 * Keeps processes alive: who dies is started again, later and later; when one that the others need is given up, all end.
 *
 * @param programs  `{ name, command, args, env, isNeeded, onMessage }`; one that is not needed may be given up without the others
 * @param options  `cwd`; `say(sentence)` for what happens; `pace` scales the waits, for tests
 * @returns `ended`, a promise of the exit code: 0 after `stop()`, 1 when it was given up
 */
export function supervise(programs, { cwd, say = console.error, pace = 1 } = {}) {
  let isStopping = false;
  let finish;
  const ended = new Promise((resolve) => {
    finish = resolve;
  });
  const running = new Map();

  const begin = (program, deaths = 0) => {
    if (isStopping) return;
    const { name, command, args, env, isNeeded = true, onMessage } = program;
    const startedAt = Date.now();
    let wasUp = deaths > 0;
    const child = spawn(command, args, { cwd, env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
    running.set(name, child);
    child.on('message', (message) => {
      wasUp = true;
      onMessage?.(message);
    });
    let isOver = false;
    const over = (how, code) => {
      if (isOver) return;
      isOver = true;
      running.delete(name);
      if (isStopping) return;
      const row = Date.now() - startedAt >= WELL_AFTER ? 1 : deaths + 1;
      if (row >= MOST_DEATHS || (code === NO_USE && !wasUp)) {
        say(`${name} ${how}; it is not started again.`);
        if (isNeeded) void stop(1);
        return;
      }
      const wait = pace * Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** (row - 1));
      say(`${name} ${how}; it is started again.`);
      setTimeout(() => begin(program, row), wait);
    };
    child.on('error', (error) => over(`could not start (${error.message})`, null));
    child.on('exit', (code, signal) => over(`has ended (${signal ?? `code ${code}`})`, code));
  };

  /** Tells all to stop, the last started first, and waits for them; who does not listen is ended. */
  const stop = async (code = 0) => {
    if (isStopping) return;
    isStopping = true;
    const left = [...running.values()].reverse();
    const gone = left.map(
      (child) =>
        new Promise((resolve) => {
          if (child.exitCode !== null || child.signalCode !== null) resolve();
          else child.once('exit', resolve);
        }),
    );
    for (const child of left) child.kill('SIGTERM');
    const late = setTimeout(() => {
      for (const child of left) child.kill('SIGKILL');
    }, pace * STOP_WITHIN);
    await Promise.all(gone);
    clearTimeout(late);
    finish(code);
  };

  for (const program of programs) begin(program);
  return { ended, stop };
}
