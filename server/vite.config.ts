import { defineConfig } from 'vite';

// Bundles the server and the packages of this repository; everything from npm stays outside.
export default defineConfig({
  build: { ssr: 'src/main.ts', outDir: 'dist', target: 'node20', emptyOutDir: true, sourcemap: true },
  ssr: { noExternal: [/^@lastmark\//] },
});
