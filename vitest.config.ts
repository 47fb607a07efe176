import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '~': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') } },
  test: {
    projects: [
      // What is pure leaves nothing behind: its files share what they load.
      {
        extends: true,
        test: { name: 'pure', isolate: false, include: ['{core,web}/**/*.test.{ts,tsx}', 'tests/house/**/*.test.ts'] },
      },
      { extends: true, test: { name: 'stored', include: ['{server,demo,scripts}/**/*.test.ts'] } },
    ],
    globalSetup: './tests/database/template.ts',
    maxWorkers: 2,
    // Generous, as in the browser: a machine of two cores can stand still for a while.
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
