// npm test: everything that must hold, from style to browser journeys, with the counts of each.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { CHROMIUM_PACKAGE } from './lib/chromium.mjs';
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

/** Steps of one thread each, side by side; what each printed follows together. */
async function sideBySide(steps) {
  say(Object.keys(steps).join(' and '));
  const run = ([name, [command, ...args]]) =>
    new Promise((done) => {
      const printed = [];
      const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
      for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => printed.push(part));
      child.on('close', (status) => {
        process.stdout.write(Buffer.concat(printed));
        done({ name, passed: status === 0 ? 1 : 0, failed: status === 0 ? 0 : 1, skipped: 0 });
      });
    });
  results.push(...(await Promise.all(Object.entries(steps).map(run))));
}

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
needPrograms({ 'mariadb-server': 'mariadbd', ...CHROMIUM_PACKAGE });
mkdirSync(RESULTS, { recursive: true });
step('lint', 'biome', ['check', '--error-on-warnings', '.']);
await sideBySide({
  'type check': [join(BIN, 'tsc'), '-p', 'tsconfig.json'],
  build: [process.execPath, join(ROOT, 'scripts', 'build.mjs')],
});
vitest('unit tests', 'unit');
vitest('API tests', 'api');
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
