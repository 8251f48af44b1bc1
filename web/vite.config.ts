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
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022' },
  worker: { format: 'es' },
  server: { proxy: { '/api': 'http://localhost:4310' } },
});
