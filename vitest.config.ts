import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const stored = ['{server,demo,scripts}/**/*.test.ts'];
/** What replaces a package for its own tests must not replace it for others. */
const apart = ['server/people/sign-in.test.ts'];

export default defineConfig({
  resolve: { alias: { '~': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') } },
  test: {
    projects: [
      // What is pure leaves nothing behind: its files share what they load.
      {
        extends: true,
        test: { name: 'pure', isolate: false, include: ['{core,web}/**/*.test.{ts,tsx}', 'tests/house/**/*.test.ts'] },
      },
      // So do those that ask a database: each file has one of its own.
      {
        extends: true,
        test: {
          name: 'stored',
          isolate: false,
          include: stored,
          exclude: apart,
          setupFiles: ['./tests/database/check-rows.ts'],
        },
      },
      { extends: true, test: { name: 'apart', include: apart } },
    ],
    globalSetup: './tests/database/template.ts',
    maxWorkers: 2,
    // Generous, as in the browser: a machine of two cores can stand still for a while.
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
