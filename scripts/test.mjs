// npm test: everything that must hold, from style to browser journeys, with the counts of each.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { needBuild } from './lib/build.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

const RESULTS = join(ROOT, 'test-results');
const BIN = join(ROOT, 'node_modules', '.bin');

const results = [];

/** Run one step; its output goes straight to the terminal. */
function step(name, command, args, count) {
  say(name);
  const { status } = spawnSync(join(BIN, command), args, { cwd: ROOT, stdio: 'inherit' });
  const counted = count?.() ?? { passed: status === 0 ? 1 : 0, failed: status === 0 ? 0 : 1, skipped: 0 };
  // A runner that broke down before counting has failed, whatever it counted.
  if (status !== 0 && counted.failed === 0) counted.failed = 1;
  results.push({ name, ...counted });
}

const readJson = (path) => (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null);

function vitest(name, project) {
  const file = join(RESULTS, `${project}.json`);
  rmSync(file, { force: true });
  step(
    name,
    'vitest',
    ['run', '--project', project, '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`],
    () => {
      const report = readJson(file);
      if (!report) return undefined;
      return { passed: report.numPassedTests, failed: report.numFailedTests, skipped: report.numPendingTests };
    },
  );
}

function journeys() {
  const file = join(RESULTS, 'journeys.json');
  rmSync(file, { force: true });
  step('browser journeys', 'playwright', ['test'], () => {
    const stats = readJson(file)?.stats;
    return stats && { passed: stats.expected, failed: stats.unexpected + stats.flaky, skipped: stats.skipped };
  });
}

needNode();
needPackages();
needPrograms({ 'mariadb-server': 'mariadbd', chromium: 'chromium' });
mkdirSync(RESULTS, { recursive: true });
step('lint', 'biome', ['check', '--error-on-warnings', '.']);
step('type check', 'tsc', ['-p', 'tsconfig.json']);
vitest('unit tests', 'unit');
vitest('API tests', 'api');
needBuild();
journeys();

const total = { passed: 0, failed: 0, skipped: 0 };
console.log('');
for (const { name, passed, failed, skipped } of results) {
  console.log(`${name.padEnd(18)} ${String(passed).padStart(5)} passed ${String(failed).padStart(4)} failed`);
  total.passed += passed;
  total.failed += failed;
  total.skipped += skipped;
}
console.log('');
console.log(`${total.passed} passed, ${total.failed} failed${total.skipped > 0 ? `, ${total.skipped} skipped` : ''}`);
process.exit(total.failed === 0 ? 0 : 1);
