import { fileURLToPath } from 'node:url';
import { reactRouter } from '@react-router/dev/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';
import { loadedByName } from './scripts/setup/loaded-by-name.mjs';

/** The core only declares; what a page does not call, it need not load. (A test holds that the core is pure.) */
const treeshake = { moduleSideEffects: [{ test: /\/core\/[^?]+\.ts$/, sideEffects: false }] };

/**
 * daisyUI styles a disabled field by what lies in it too. No field of ours is wrapped, and to ask of each whether one is makes a browser
 * style the whole page anew with every tap.
 */
const withoutWrappedFields: Plugin = {
  name: 'without-wrapped-fields',
  generateBundle: {
    order: 'post',
    handler(_, bundle) {
      const wrapped = /\.(?:input|select|textarea|file-input):has\(>\s*(?:input|select|textarea)\[disabled\]\),\s*/g;
      for (const file of Object.values(bundle)) {
        if (file.type === 'asset' && file.fileName.endsWith('.css'))
          file.source = String(file.source).replace(wrapped, '');
      }
    },
  },
};

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [tailwindcss(), reactRouter(), withoutWrappedFields],
  resolve: { alias: { '~': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') } },
  // Built into one bundle the packages load in a third of the time; those that load parts of themselves by name stay out.
  ssr: isSsrBuild ? { noExternal: true, external: loadedByName } : {},
  build: {
    // The server build is the whole server: Express, its settings and React Router's own build in one bundle.
    rollupOptions: isSsrBuild ? { input: './web/platform/http/main.ts', treeshake } : { treeshake },
  },
}));
