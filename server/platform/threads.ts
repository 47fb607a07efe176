import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import { Busy, Invalid } from './failures';

/** What takes longer, or more memory, than anything honest needs. */
export class TooMuchWork extends Error {
  override name = 'TooMuchWork';
}

/** What is known of a task before it is done. */
interface Task {
  /** It is given up after so many seconds. */
  seconds: number;
  /** Whether it takes apart what others made: of these one thread at least is kept free. */
  isReading: boolean;
}

const MEMORY_MB = 640;
const MOST_WAITING = 60;
const THREADS = Math.max(3, availableParallelism());
/** Threads that have nothing to do end, in milliseconds. */
const IDLE = 60_000;

/** As it is built beside the server; from its source where nothing is built, in tests and in the worker. */
function program(): string {
  const from = (path: string) => fileURLToPath(new URL(path, import.meta.url));
  // Built, this stands in `build/server/`, or in a folder of its pieces.
  const built = ['../threads/program.js', '../../threads/program.js'].map(from).find((path) => existsSync(path));
  return built ?? from('../threads/from-source.mjs');
}

let pool: Piscina | undefined;

function thePool(): Piscina {
  pool ??= new Piscina({
    ...{
      filename: program(),
      execArgv: [],
      minThreads: 0,
      maxThreads: THREADS,
      idleTimeout: IDLE,
      maxQueue: MOST_WAITING,
    },
    ...{ concurrentTasksPerWorker: 1, recordTiming: false },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB, maxYoungGenerationSizeMb: 64 },
  });
  // A thread that ends is begun again; what it was doing is told to who asked for it.
  pool.on('error', () => {}).setMaxListeners(0);
  return pool;
}

const reading = new PQueue({ concurrency: THREADS - 1 });

/** What a task answers: what it made, or what is wrong with what it was given. */
export type TaskAnswer<Made> = { made: Made } | { invalid: Record<string, string> };

/**
 * Does in a thread of its own what takes long, or takes apart what others made: the thread that answers pages goes on meanwhile, and has
 * neither its time nor its memory filled.
 *
 * @param name  of a task in `server/threads/program.ts`
 * @returns asks for it; throws Invalid as the task does, TooMuchWork where it needs too long or too much memory, and Busy where too many wait
 */
export function inThread<Asked, Made>(name: string, { seconds, isReading }: Task): (asked: Asked) => Promise<Made> {
  const run = async (asked: Asked): Promise<Made> => {
    let answer: TaskAnswer<Made>;
    try {
      answer = await thePool().run({ name, asked }, { signal: AbortSignal.timeout(1000 * seconds) });
    } catch (error) {
      const { name: kind, code, message } = (error ?? {}) as { name?: string; code?: string; message?: string };
      if (kind === 'AbortError' || kind === 'TimeoutError' || code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new TooMuchWork(`${name} took too long, or too much memory.`, { cause: error });
      }
      if (message === 'Task queue is at limit' || message === 'No task queue available and all Workers are busy')
        throw new Busy('Many files are being worked on at the moment.');
      throw error;
    }
    if ('invalid' in answer) throw new Invalid(answer.invalid);
    return answer.made;
  };
  if (!isReading) return run;
  return async (asked) => {
    if (reading.size >= MOST_WAITING) throw new Busy('Many files are being read at the moment.');
    return reading.add(() => run(asked), { throwOnTimeout: true });
  };
}
