// npm run bench: measures and prints; nothing passes or fails here.

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

console.log(
  `${cpus().length} × ${cpus()[0]?.model.trim()}, ${(totalmem() / 2 ** 30).toFixed(0)} GiB, Node ${process.versions.node}\n`,
);
const file = await measureMeterFile();
const stage = await startStage();
try {
  await measureFirstView(stage.url);
  await measureDecode(stage.url);
  await measureLoadsOff(stage.url);
  await measureImport(stage.url, file);
  await measureTyped(stage);
  await measureReports(stage);
  await measureShelf(stage);
  await measureCompare(stage, { filled: true });
} finally {
  await stage.stop();
}
await measureLooks();
await measureSplits();
await measureNext();
await measureDay();
await measureCoverage();
await measureCaptures();
await measureTraces();
await measureCharges();
await measureCables();
await measureCompareTruth();
await measureLoop(file);
const bench = await startSimulatedBench({ port: 5460 });
process.env.BENCH_PORT = '5460';
const withBench = await startStage();
try {
  await measureLive(withBench.url);
  await measureSoak(withBench);
} finally {
  await withBench.stop();
  await bench.stop();
}
await measurePeople();
await measureBenches();
