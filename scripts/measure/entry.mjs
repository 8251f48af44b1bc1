// The core, built once for what a measurement uses of it.
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'vite';
import { ROOT } from '../lib/paths.mjs';

/** Build an entry of this folder, and work with what it exports, in a folder that is gone afterwards. */
export async function withEntry(entry, work) {
  const folder = mkdtempSync(join(ROOT, 'node_modules', '.measure-'));
  try {
    await build({
      configFile: false,
      logLevel: 'error',
      root: ROOT,
      build: { ssr: join('scripts', 'measure', entry), outDir: folder, target: 'node20' },
      ssr: { noExternal: true },
    });
    return await work(await import(join(folder, entry.replace(/\.ts$/, '.js'))), folder);
  } finally {
    rmSync(folder, { recursive: true });
  }
}
