// Builds browser and server when their sources changed.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';
import { giveUp, say } from './say.mjs';

const SOURCES = [
  'core/src',
  'bench/src',
  'contract/src',
  'server/src',
  'web/src',
  'web/index.html',
  'web/vite.config.ts',
  'server/vite.config.ts',
  'bench/vite.config.ts',
  'package-lock.json',
];
const STAMP = join(ROOT, 'server', 'dist', '.sources');

function* files(path) {
  const entries = readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1));
  for (const entry of entries) {
    const inner = join(path, entry.name);
    if (entry.isDirectory()) yield* files(inner);
    else yield inner;
  }
}

function fingerprint() {
  const hash = createHash('sha256');
  for (const source of SOURCES) {
    const path = join(ROOT, source);
    for (const file of source.includes('.') ? [path] : files(path)) hash.update(file).update(readFileSync(file));
  }
  return hash.digest('hex');
}

/** Fingerprint of the sources of the last build. */
export const builtOf = () => readFileSync(STAMP, 'utf8');

/** Build unless the last build was made from the same sources. */
export function needBuild() {
  const now = fingerprint();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === now) return;
  for (const part of ['web', 'server', 'bench']) {
    say(`building ${part}`);
    const { status, stdout, stderr } = spawnSync('npm', ['run', '-s', 'build', '-w', part], {
      cwd: ROOT,
      encoding: 'utf8',
      // Whoever asks for it, tests included: what is built is what is shipped.
      env: { ...process.env, NODE_ENV: 'production' },
    });
    if (status !== 0) giveUp(`Building ${part} failed:\n${stdout}${stderr}`);
  }
  writeFileSync(STAMP, now);
}
