// npm test: everything that must hold, from style to browser journeys, with the counts of each.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { isAbsolute, join, relative } from 'node:path';
import { CHROMIUM_PACKAGE } from './lib/chromium.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

const RESULTS = join(ROOT, 'test-results');
const BIN = join(ROOT, 'node_modules', '.bin');

const results = [];
/** What failed and why, said once more after the counts: the output before is long. */
const reasons = [];
/** How much of what a step printed last is said again when it broke down, characters. */
const LAST_PRINTED = 3000;

/**
 * Run a program.
 * @param held its output is shown together as it ends, for what runs beside another; else as it comes
 * @returns its status, and what it printed last
 */
const shown = (command, args, held) =>
  new Promise((done) => {
    const child = spawn(isAbsolute(command) ? command : join(BIN, command), args, {
      cwd: ROOT,
      stdio: ['inherit', 'pipe', 'pipe'],
      // Colours as on the terminal it is shown on.
      env: { ...process.env, ...(process.stdout.isTTY ? { FORCE_COLOR: '1' } : {}) },
    });
    let last = '';
    const printed = [];
    for (const [from, to] of [
      [child.stdout, process.stdout],
      [child.stderr, process.stderr],
    ])
      from.on('data', (part) => {
        if (held) printed.push(part);
        else to.write(part);
        last = (last + part).slice(-LAST_PRINTED);
      });
    child.on('close', (status) => {
      process.stdout.write(Buffer.concat(printed));
      done({ status, last });
    });
  });

/** Run one step. */
async function step(name, command, args, { count, held = false } = {}) {
  say(name);
  const { status, last } = await shown(command, args, held);
  const counted = count?.() ?? { passed: status === 0 ? 1 : 0, failed: status === 0 ? 0 : 1, skipped: 0, why: [] };
  const why = counted.why ?? [];
  // A runner that broke down before or after counting has failed, whatever it counted.
  if (status !== 0 && counted.failed === 0) counted.failed = 1;
  if (status !== 0 && why.length === 0) why.push(`ended with status ${status}; it printed last:\n${last}`);
  reasons.push(...why.map((one) => `${name}: ${one}`));
  results.push({ name, passed: counted.passed, failed: counted.failed, skipped: counted.skipped });
}

const readJson = (path) => (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null);

/** Tests and files that failed, with the first lines of why. */
const whyOf = ({ testResults = [] }) =>
  testResults.flatMap(({ name, status, message, assertionResults }) => {
    const failed = assertionResults.filter((one) => one.status === 'failed');
    const told = failed.map((one) => `${one.fullName}: ${one.failureMessages.join(' ').slice(0, LAST_PRINTED)}`);
    if (status === 'failed' && (failed.length === 0 || message)) told.push(message.slice(0, LAST_PRINTED));
    return told.map((one) => `${relative(ROOT, name)}: ${one}`);
  });

async function vitest(name, project) {
  const file = join(RESULTS, `${project}.json`);
  rmSync(file, { force: true });
  await step(
    name,
    'vitest',
    ['run', '--project', project, '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`],
    {
      count: () => {
        const report = readJson(file);
        if (!report) return undefined;
        return {
          passed: report.numPassedTests,
          failed: report.numFailedTests,
          skipped: report.numPendingTests,
          why: whyOf(report),
        };
      },
    },
  );
}

async function journeys() {
  const file = join(RESULTS, 'journeys.json');
  rmSync(file, { force: true });
  const count = () => {
    const stats = readJson(file)?.stats;
    return stats && { passed: stats.expected, failed: stats.unexpected + stats.flaky, skipped: stats.skipped };
  };
  await step('browser journeys', 'playwright', ['test'], { count });
}

needNode();
needPackages();
needPrograms({ 'mariadb-server': 'mariadbd', ...CHROMIUM_PACKAGE });
mkdirSync(RESULTS, { recursive: true });
await step('lint', 'biome', ['check', '--error-on-warnings', '.']);
/** API tests and journeys begin with a copy of the filled demo. Whatever keeps it from being filled is told by them. */
async function fill() {
  // It needs packages, which are there only now.
  const { filledDemo } = await import('./lib/filled.mjs');
  await filledDemo().catch(() => undefined);
}
async function built() {
  await step('build', process.execPath, [join(ROOT, 'scripts', 'build.mjs')], { held: true });
  await Promise.all([vitest('unit tests', 'unit'), fill()]);
}
await built();
// API tests and the cluster wait a part of their time, which the type check takes, on one core: on two at once it is half as
// much work again.
await Promise.all([
  vitest('API tests', 'api'),
  step('cluster faults', process.execPath, [join(ROOT, 'scripts', 'cluster-test.mjs'), '--short'], { held: true }),
  step('type check', 'tsc', ['-p', 'tsconfig.json', '--singleThreaded'], { held: true }),
]);
await journeys();

const total = { passed: 0, failed: 0, skipped: 0 };
console.log('');
for (const { name, passed, failed, skipped } of results) {
  console.log(`${name.padEnd(18)} ${String(passed).padStart(5)} passed ${String(failed).padStart(4)} failed`);
  total.passed += passed;
  total.failed += failed;
  total.skipped += skipped;
}
for (const reason of reasons) console.log(`\nFAILED ${reason}`);
console.log('');
console.log(`${total.passed} passed, ${total.failed} failed${total.skipped > 0 ? `, ${total.skipped} skipped` : ''}`);
process.exit(total.failed === 0 ? 0 : 1);
