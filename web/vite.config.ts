import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
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
