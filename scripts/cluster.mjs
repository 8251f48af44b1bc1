// npm run cluster: three hosts of one database and two copies of the server on this machine, for trying out; Ctrl-C ends all.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { startCopies } from './cluster/copies.mjs';
import { needBuild } from './lib/build.mjs';
import { startCluster } from './lib/cluster.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { dataFolder } from './lib/paths.mjs';
import { giveUp, say } from './lib/say.mjs';
import { portsInARow, startSimulatedBench } from './lib/simulated-bench.mjs';

needNode();
needPackages();
needPrograms({ 'mariadb-server': 'mariadbd' });
needBuild();
const folder = join(dataFolder(), 'cluster');
mkdirSync(folder, { recursive: true, mode: 0o700 });
let stopping = false;
const parts = [];
async function stop(code) {
  if (stopping) return;
  stopping = true;
  say('stopping');
  for (const part of parts.reverse()) await part.stop().catch(() => undefined);
  say('stopped');
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
try {
  say('starting three hosts');
  const cluster = await startCluster(folder);
  parts.push(cluster);
  const port = await portsInARow();
  parts.push(await startSimulatedBench({ port }));
  say('starting two copies of the server');
  const copies = await startCopies(cluster.url, folder, { envOf: () => ({ BENCH_PORT: String(port) }) });
  parts.push({ stop: () => Promise.all(copies.map((copy) => copy.stop())) });
  say('ready');
  const line = (label, text) => console.log(`  ${label.padEnd(10)} ${text}`);
  console.log('');
  for (const copy of copies) line(copy.name, copy.url);
  for (const host of cluster.hosts) line(host.name, `process ${host.pid}, ${host.url.replace(/:[^:@/]*@/, ':…@')}`);
  line('data', folder);
  console.log('\n  End a host with kill -9 and go on working at a copy. Ctrl-C stops everything.\n');
} catch (error) {
  console.error(error.message);
  await stop(1).catch(() => giveUp(error.message));
}
