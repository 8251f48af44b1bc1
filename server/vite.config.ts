import { defineConfig } from 'vite';

// Bundles the server and its worker threads with what they are made of.
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
  // A thread that starts reads one file instead of a thousand. What brings files or machine code of its own stays outside.
  ssr: {
    noExternal: true,
    external: ['@node-rs/argon2', 'pdfmake', 'pino', 'pino-http', 'piscina', 'serialport', 'sharp'],
  },
});
