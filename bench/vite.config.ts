import { defineConfig } from 'vite';

// Bundles the simulated bench as a process of its own.
export default defineConfig({
  build: { ssr: 'src/sim/main.ts', outDir: 'dist', target: 'node20', emptyOutDir: true, sourcemap: true },
  ssr: { noExternal: [/^@lastmark\//] },
});
