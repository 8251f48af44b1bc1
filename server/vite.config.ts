import { defineConfig } from 'vite';

// Bundles the server, its worker threads and the packages of this repository; what comes from npm stays outside.
export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist',
    target: 'node20',
    emptyOutDir: true,
    sourcemap: true,
    rolldownOptions: {
      input: { main: 'src/main.ts', worker: 'src/jobs/worker.ts' },
      // All in one folder: what is shared finds the files beside the program from there too.
      output: { entryFileNames: '[name].js', chunkFileNames: '[name]-[hash].js' },
    },
  },
  // The formula library as well: of all it has, little is needed, and a bundle leaves the rest away.
  ssr: { noExternal: [/^@lastmark\//, 'mathjs'] },
});
