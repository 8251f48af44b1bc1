// npm run bench [-- NAME …]: measures and prints, all of it or what is named; nothing passes or fails by a figure.
import { cpus, totalmem } from 'node:os';
import { needBuild } from './lib/build.mjs';
import { CHROMIUM_PACKAGE } from './lib/chromium.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { startSimulatedBench } from './lib/simulated-bench.mjs';
import { startStage } from './lib/stage.mjs';

needNode();
needPackages();
needPrograms({ 'mariadb-server': 'mariadbd', ...CHROMIUM_PACKAGE });
needBuild();
const { measureMeterFile } = await import('./measure/meter-file.mjs');
const { measureImport } = await import('./measure/server.mjs');
const { measureShelf } = await import('./measure/shelf.mjs');
const { measureTyped } = await import('./measure/typed.mjs');
const { measureLoop } = await import('./measure/loop.mjs');
const { measureDecode } = await import('./measure/decode.mjs');
const { measureLoadsOff } = await import('./measure/loads-off.mjs');
const { measureLive, measureLooks, measureSoak } = await import('./measure/runs.mjs');
const { measureDay } = await import('./measure/day.mjs');
const { measureNext } = await import('./measure/next.mjs');
const { measureSplits } = await import('./measure/splits.mjs');
const { measureCaptures } = await import('./measure/captures.mjs');
const { measureCharges } = await import('./measure/charge.mjs');
const { measureCables } = await import('./measure/cable.mjs');
const { measureCompare, measureCompareTruth } = await import('./measure/compare.mjs');
const { measureTraces } = await import('./measure/traces.mjs');
const { measureCoverage } = await import('./measure/coverage.mjs');
const { measureReports } = await import('./measure/report.mjs');
const { measureBenches, measurePeople } = await import('./measure/people.mjs');
const { measureFirstView } = await import('./measure/first-view.mjs');

const BENCH_PORT = 5460;

/** Read once, whoever measures with it. */
let meterFile = null;
const file = () => {
  meterFile ??= measureMeterFile();
  return meterFile;
};

/** One server for all that measure on it, in their order. */
const ON_A_STAGE = {
  'first-view': ({ url }) => measureFirstView(url),
  decode: ({ url }) => measureDecode(url),
  'loads-off': ({ url }) => measureLoadsOff(url),
  import: async ({ url }) => measureImport(url, await file()),
  typed: measureTyped,
  reports: measureReports,
  shelf: measureShelf,
  compare: (stage, named) => measureCompare(stage, { filled: named('shelf') }),
};
const ALONE = {
  looks: measureLooks,
  splits: measureSplits,
  next: measureNext,
  day: measureDay,
  coverage: measureCoverage,
  captures: measureCaptures,
  traces: measureTraces,
  charges: measureCharges,
  cables: measureCables,
  'compare-truth': measureCompareTruth,
  loop: async () => measureLoop(await file()),
};
const ON_A_BENCH = { live: ({ url }) => measureLive(url), soak: measureSoak };
const WITH_PEOPLE = { people: measurePeople, benches: () => measureBenches() };

const names = ['meter-file', ...[ON_A_STAGE, ALONE, ON_A_BENCH, WITH_PEOPLE].flatMap((parts) => Object.keys(parts))];
const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !names.includes(name));
if (unknown.length > 0) {
  console.error(`No part is called ${unknown.join(', ')}. There are ${names.join(', ')}.`);
  process.exit(2);
}
const named = (name) => asked.length === 0 || asked.includes(name);
const broken = [];

/** A part that breaks is told at the end; the others are measured all the same. */
async function measure(name, work) {
  if (!named(name)) return;
  try {
    await work();
  } catch (error) {
    console.error(`${name} broke: ${error instanceof Error ? error.stack : error}`);
    broken.push(name);
  }
}

/** Parts in their order, on something that is started only where one of them is wanted. */
async function measureOn(parts, start = async () => ({ stop: async () => undefined })) {
  if (!Object.keys(parts).some(named)) return;
  const on = await start();
  try {
    for (const [name, work] of Object.entries(parts)) await measure(name, () => work(on, named));
  } finally {
    await on.stop();
  }
}

async function startWithBench() {
  const bench = await startSimulatedBench({ port: BENCH_PORT });
  process.env.BENCH_PORT = String(BENCH_PORT);
  const stage = await startStage();
  const stop = async () => {
    await stage.stop();
    await bench.stop();
  };
  return { ...stage, stop };
}

console.log(
  `${cpus().length} × ${cpus()[0]?.model.trim()}, ${(totalmem() / 2 ** 30).toFixed(0)} GiB, Node ${process.versions.node}\n`,
);
await measure('meter-file', file);
await measureOn(ON_A_STAGE, startStage);
await measureOn(ALONE);
await measureOn(ON_A_BENCH, startWithBench);
await measureOn(WITH_PEOPLE);
if (broken.length > 0) {
  console.error(`\nBroke: ${broken.join(', ')}.`);
  process.exitCode = 1;
}
