import { Worker } from 'node:worker_threads';

interface Waiting<Made> {
  resolve: (made: Made) => void;
  reject: (error: Error) => void;
}

type Answer<Made> = { id: number; failed: string } | { id: number; failed?: undefined; made: Made };

/**
 * What runs beside the server, in a thread of its own: what takes seconds keeps nobody’s page waiting. The thread begins when it is first
 * needed, and a process may end while it has nothing to do.
 *
 * @param work  the text of a program, since a file would have to be built beside the server: an expression whose value is a function from
 *   what is asked to what is made, or a promise of it; `given` holds what `prepare` gave, `require` loads packages
 * @param prepare  what the thread is given when it begins
 * @returns asks the thread; throws Error with what `work` said when it failed
 */
export function beside<Asked, Made>(
  work: string,
  prepare: () => Promise<unknown> | unknown,
): (asked: Asked) => Promise<Made> {
  const waiting = new Map<number, Waiting<Made>>();
  let thread: Promise<Worker> | undefined;
  let last = 0;

  const start = async () => {
    const worker = new Worker(programOf(work), { eval: true, workerData: await prepare() });
    worker.on('message', (answer: Answer<Made>) => {
      const asker = waiting.get(answer.id);
      waiting.delete(answer.id);
      if (waiting.size === 0) worker.unref();
      if (answer.failed !== undefined) asker?.reject(new Error(answer.failed));
      else asker?.resolve(answer.made);
    });
    worker.on('error', (error) => {
      thread = undefined;
      for (const { reject } of waiting.values()) reject(error instanceof Error ? error : new Error(String(error)));
      waiting.clear();
    });
    worker.unref();
    return worker;
  };

  return async (asked) => {
    // What could not begin may begin the next time.
    thread ??= start().catch((error) => {
      thread = undefined;
      throw error;
    });
    const worker = await thread;
    const id = last++;
    return new Promise((resolve, reject) => {
      waiting.set(id, { resolve, reject });
      worker.ref();
      worker.postMessage({ id, asked });
    });
  };
}

const programOf = (work: string) => `
  const { parentPort, workerData: given } = require('node:worker_threads');
  const work = (${work});
  parentPort.on('message', async ({ id, asked }) => {
    try {
      parentPort.postMessage({ id, made: await work(asked) });
    } catch (error) {
      parentPort.postMessage({ id, failed: String((error && error.message) || error) });
    }
  });
`;
