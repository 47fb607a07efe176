// What runs in threads: tasks that `inThread` (`server/platform/threads.ts`) asks for by their names. What a task needs is
// loaded when it is first asked for.
import { z } from 'zod';
import { existing, Invalid } from '../platform/failures';
import type { TaskAnswer } from '../platform/threads';

z.config({ jitless: true });

/** What is wrong with what it was given is told apart from a fault of its own: no error keeps its kind on the way between threads. */
const task =
  <Asked, Made>(load: () => Promise<(asked: Asked) => Made | Promise<Made>>) =>
  async (asked: Asked): Promise<TaskAnswer<Made>> => {
    try {
      return { made: await (await load())(asked) };
    } catch (error) {
      if (error instanceof Invalid) return { invalid: error.fields };
      throw error;
    }
  };

const tasks: Record<string, ReturnType<typeof task<never, unknown>>> = {
  prepareFile: task(async () => (await import('../entries/evidence/prepare')).prepareFile),
  readTables: task(async () => (await import('../imports/read-tables')).readTables),
  readCalendar: task(async () => (await import('../school/read-calendar')).readCalendar),
  readArchive: task(async () => (await import('../student-record/read-archive')).readArchive),
  setPages: task(async () => (await import('../documents/set-pages')).setPages),
  writeText: task(async () => (await import('../documents/write-text')).writeText),
  writeSheets: task(async () => (await import('../platform/write-sheets')).writeSheets),
};

export default ({ name, asked }: { name: string; asked: unknown }): Promise<TaskAnswer<unknown>> =>
  existing(tasks[name])(asked as never);
