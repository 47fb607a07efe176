import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '~': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') } },
  test: {
    include: ['{core,server,web,demo,scripts}/**/*.test.{ts,tsx}', 'tests/house/**/*.test.ts'],
    globalSetup: './tests/database/template.ts',
    maxWorkers: 2,
    // Generous, as in the browser: a machine of two cores can stand still for a while.
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
