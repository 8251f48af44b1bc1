import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** The letters of the first view are fetched beside the script, not after it. */
const preloadLetters: Plugin = {
  name: 'preload-letters',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle = {} }) =>
      Object.keys(bundle)
        .filter((file) => /latin-(400|600)-normal.*\.woff2$/.test(file))
        .map((file) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', crossorigin: '', href: `/${file}` },
          injectTo: 'head' as const,
        })),
  },
};

export default defineConfig({
  plugins: [react(), preloadLetters],
  resolve: {
    alias: {
      '@stdlib/utils-global': fileURLToPath(new URL('./globalThis.cjs', import.meta.url)),
      '@stdlib/utils-eval': fileURLToPath(new URL('./noEval.cjs', import.meta.url)),
    },
  },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    target: 'es2022',
    rolldownOptions: {
      output: {
        // What several pages share comes in a few larger files, not in a hundred small ones: each is a request.
        codeSplitting: {
          groups: [
            { name: 'first', tags: ['$initial'], priority: 2 },
            { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 20_000, priority: 1 },
          ],
        },
        chunkFileNames: ({ name }) => `assets/${name.split('~')[0]}-[hash].js`,
        // Parts that need each other in a ring are begun in the order their lines are in.
        strictExecutionOrder: true,
      },
    },
  },
  worker: { format: 'es' },
  server: { proxy: { '/api': 'http://localhost:4310' } },
});
