// What the start command does with the processes that it starts: see scripts/setup/supervise.mjs.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { NO_USE, type Program, supervise } from '../../scripts/setup/supervise.mjs';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'supervised-'));
  writeFileSync(join(folder, 'starts'), '');
});
afterEach(() => rmSync(folder, { recursive: true }));

const starts = () => readFileSync(join(folder, 'starts'), 'utf8').split('\n').filter(Boolean);
const pidsOf = (name: string) =>
  starts().flatMap((line) => (line.startsWith(`${name} `) ? [Number(line.split(' ')[1])] : []));
const isAlive = (pid: number) => {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
};
/** A program that notes each of its starts, and then does something. */
const program = (name: string, then: string, more: Partial<Program> = {}): Program => ({
  ...{ name, command: process.execPath, env: process.env, ...more },
  args: [
    '-e',
    `require('fs').appendFileSync(${JSON.stringify(join(folder, 'starts'))}, '${name} ' + process.pid + '\\n'); ${then}`,
  ],
});
const stay = 'setInterval(() => {}, 1000); process.on("SIGTERM", () => process.exit(0));';
const until = async (condition: () => boolean) => {
  while (!condition()) await pause(20);
};

describe('what is supervised', () => {
  it('is started again when it dies, and the others stay; told to stop, all end and the exit code is 0', async () => {
    const said: string[] = [];
    const { ended, stop } = supervise([program('pages', stay), program('worker', stay)], {
      pace: 0.02,
      say: (sentence) => said.push(sentence),
    });
    await until(() => starts().length === 2);
    const [pages, worker] = [pidsOf('pages')[0], pidsOf('worker')[0]] as [number, number];
    process.kill(worker, 'SIGKILL');
    await until(() => starts().length === 3);
    expect(said).toEqual(['worker has ended (SIGKILL); it is started again.']);
    expect(isAlive(pages)).toBe(true);
    const pids = [...pidsOf('pages'), ...pidsOf('worker')];
    await stop();
    expect(await ended).toBe(0);
    expect(pids.filter(isAlive)).toEqual([]);
  });

  it('is given up after some deaths in a row: then the others are ended, and the exit code is not 0', async () => {
    const said: string[] = [];
    const { ended } = supervise([program('pages', 'process.exit(3)'), program('worker', stay)], {
      pace: 0.005,
      say: (sentence) => said.push(sentence),
    });
    expect(await ended).toBe(1);
    const tried = starts();
    expect(tried.filter((line) => line.startsWith('pages'))).toHaveLength(6);
    expect(said.at(-1)).toBe('pages has ended (code 3); it is not started again.');
    expect(tried.map((line) => Number(line.split(' ')[1])).filter(isAlive)).toEqual([]);
  });

  it('is not tried again when that would not help; one that is not needed ends alone', async () => {
    const { ended, stop } = supervise(
      [program('pages', stay), program('test mail', `process.exit(${NO_USE})`, { isNeeded: false })],
      { pace: 0.005, say: () => {} },
    );
    await until(() => starts().length === 2);
    await pause(200);
    expect(starts()).toHaveLength(2);
    await stop();
    expect(await ended).toBe(0);
    const failing = supervise([program('pages', `process.exit(${NO_USE})`)], { pace: 0.005, say: () => {} });
    expect(await failing.ended).toBe(1);
    expect(starts()).toHaveLength(3);
  });

  it('is ended by force when it does not listen', async () => {
    const deaf = 'setInterval(() => {}, 1000); process.on("SIGTERM", () => {});';
    const { ended, stop } = supervise([program('pages', deaf)], { pace: 0.02, say: () => {} });
    await until(() => starts().length === 1);
    await pause(300);
    const pid = Number(starts()[0]?.split(' ')[1]);
    await stop();
    expect(await ended).toBe(0);
    expect(isAlive(pid)).toBe(false);
  });
});
