// Learns the shapes of the API's answers anew: the API tests run, and what they saw is written down for the description
// at /api/openapi.json. Every API test holds its answers against it from then on. With `-- --add` what is known stays, and is
// only widened: what depends on which of two things came first is not seen in every run.
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
  env: {
    ...process.env,
    LASTMARK_ANSWERS: folder,
    LASTMARK_ANSWERS_ADD: process.argv.includes('--add') ? 'yes' : 'no',
  },
});
rmSync(folder, { recursive: true });
process.exit(status ?? 1);
