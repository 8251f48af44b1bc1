// Learns the shapes of the API's answers anew: the API tests run, and what they saw is written down for the description
// at /api/openapi.json. Every API test holds its answers against it from then on.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from './lib/paths.mjs';

const folder = mkdtempSync(join(tmpdir(), 'lastmark-answers-'));
const vitest = join(ROOT, 'node_modules', 'vitest', 'vitest.mjs');
const { status } = spawnSync(process.execPath, [vitest, 'run', '--project', 'api'], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, LASTMARK_ANSWERS: folder },
});
rmSync(folder, { recursive: true });
process.exit(status ?? 1);
