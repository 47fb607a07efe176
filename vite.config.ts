import { fileURLToPath } from 'node:url';
import { reactRouter } from '@react-router/dev/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

const loadedByName = [
  'pg-listen',
  '@node-rs/argon2',
  'compression',
  'docx',
  'express',
  'helmet',
  'knex',
  'pdf-lib',
  'pdfmake',
  'pg',
  'pino',
  'rate-limiter-flexible',
  'sharp',
];

/** The core only declares; what a page does not call, it need not load. (A test holds that the core is pure.) */
const treeshake = { moduleSideEffects: [{ test: /\/core\/[^?]+\.ts$/, sideEffects: false }] };

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { alias: { '~': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') } },
  // Built into one bundle the packages load in a third of the time; those that load parts of themselves by name stay out.
  ssr: isSsrBuild ? { noExternal: true, external: loadedByName } : {},
  build: {
    // The server build is the whole server: Express, its settings and React Router's own build in one bundle.
    rollupOptions: isSsrBuild ? { input: './web/platform/http/main.ts', treeshake } : { treeshake },
  },
}));
