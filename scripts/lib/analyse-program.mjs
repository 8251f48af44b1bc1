// The program behind `npm run analyse`, built once for the sources it is made of.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';
import { say } from './say.mjs';

const SOURCES = [
  'core/src',
  'server/src/analyse',
  'server/src/packages/form.ts',
  'server/src/packages/read.ts',
  'server/src/export/verdict.ts',
  'server/src/dossier/judged.ts',
];
const PROGRAM = 'main.js';

function fingerprint() {
  const hash = createHash('sha256').update(readFileSync(join(ROOT, 'package-lock.json')));
  for (const source of SOURCES) {
    const files = source.endsWith('.ts')
      ? [join(ROOT, source)]
      : readdirSync(join(ROOT, source), { recursive: true, withFileTypes: true })
          .filter((entry) => entry.isFile() && !entry.name.includes('.test.'))
          .map((entry) => join(entry.parentPath, entry.name))
          .sort();
    for (const file of files) hash.update(file.slice(ROOT.length)).update(readFileSync(file));
  }
  return hash.digest('hex').slice(0, 16);
}

/** Path of the program. Several may ask at once: each builds aside, and the first one done is kept. */
export async function analyseProgram() {
  const folder = join(ROOT, 'node_modules', '.analyse');
  const made = join(folder, fingerprint());
  if (existsSync(join(made, PROGRAM))) return join(made, PROGRAM);
  say('building the program (some seconds, once)');
  mkdirSync(folder, { recursive: true });
  const aside = mkdtempSync(join(folder, 'building-'));
  const { build } = await import('vite');
  await build({
    configFile: false,
    logLevel: 'error',
    root: ROOT,
    build: {
      ssr: 'server/src/analyse/main.ts',
      outDir: aside,
      target: 'node20',
      rolldownOptions: { output: { entryFileNames: PROGRAM } },
    },
    ssr: { noExternal: true },
  });
  try {
    renameSync(aside, made);
  } catch {
    // Another one was quicker.
    rmSync(aside, { recursive: true, force: true });
  }
  return join(made, PROGRAM);
}
