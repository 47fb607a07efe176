import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '~': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') } },
  test: {
    include: ['{core,server,web,demo,scripts}/**/*.test.{ts,tsx}', 'tests/house/**/*.test.ts'],
    globalSetup: './tests/database/template.ts',
    maxWorkers: 2,
  },
});
