// npm run cluster:test: hosts of the database and copies of the server are killed, stopped and cut off while people type and a
// bench is under load. Nothing that was taken may be lost or there twice, and no load may be on that is nobody's.
//   --faults 50   how many, one after the other
//   --short       a few, for npm test
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { startRun } from './cluster/bench.mjs';
import { askAny, startCopies } from './cluster/copies.mjs';
import { faultsOf } from './cluster/faults.mjs';
import { goInside, layNetwork } from './cluster/network.mjs';
import { checkAt, startWriters } from './cluster/writers.mjs';
import { needBuild } from './lib/build.mjs';
import { startCluster } from './lib/cluster.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { say } from './lib/say.mjs';
import { portsInARow, startSimulatedBench } from './lib/simulated-bench.mjs';
import { placesToType } from './lib/typed-point.mjs';

const short = process.argv.includes('--short');
const FAULTS = short ? 2 : Number(process.argv[process.argv.indexOf('--faults') + 1] || 50) || 50;
const WRITERS = short ? 4 : 8;
const HOSTS = 3;
/** Writes go on so soon after a host or a copy is gone, ms. */
const GOAL = 10_000;
/** Beside other tests, on a busy machine, no time says anything. */
const MEASURED = !short;
const WELL_MILLISECONDS = MEASURED ? 90_000 : 300_000;

const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Whether a host is one of all, and has everything. */
async function isWell({ url }) {
  let connection;
  try {
    connection = await createConnection({ uri: url, connectTimeout: 2000 });
    const [rows] = await connection.query({
      sql: "SHOW STATUS WHERE Variable_name IN ('wsrep_cluster_size', 'wsrep_local_state_comment')",
      timeout: 2000,
    });
    const told = Object.fromEntries(rows.map((row) => [row.Variable_name, row.Value]));
    return Number(told.wsrep_cluster_size) === HOSTS && told.wsrep_local_state_comment === 'Synced';
  } catch {
    return false;
  } finally {
    connection?.destroy();
  }
}

async function untilWell(cluster) {
  const began = Date.now();
  while (!(await Promise.all(cluster.hosts.map(isWell))).every(Boolean)) {
    if (Date.now() - began > WELL_MILLISECONDS) throw new Error('The hosts did not come together again.');
    await pause(250);
  }
}

const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))];

async function main() {
  const inside = goInside();
  needNode();
  needPackages();
  needPrograms({ 'mariadb-server': 'mariadbd' });
  needBuild();
  const folder = mkdtempSync(join(tmpdir(), 'lastmark-cluster-'));
  const network = inside ? layNetwork(HOSTS) : null;
  const parts = [];
  try {
    say(
      network ? 'starting three hosts, each in a network of its own' : 'starting three hosts (cutting off needs root)',
    );
    const cluster = await startCluster(join(folder, 'hosts'), network ?? {});
    parts.push(cluster);
    const port = await portsInARow();
    const bench = await startSimulatedBench({ port });
    parts.push(bench);
    say('starting two copies of the server');
    const copies = await startCopies(cluster.url, folder, { envOf: () => ({ BENCH_PORT: String(port) }) });
    parts.push({ stop: () => Promise.all(copies.map((copy) => copy.stop())) });
    const run = await startRun(copies, bench.ports['dc-load']);
    const writers = startWriters(
      copies,
      await placesToType(async (path) => (await askAny(copies, 'GET', path)).body),
      WRITERS,
    );
    const faults = faultsOf({ cluster, copies, network, dead: short ? 1000 : 5000 });
    const gaps = new Map(faults.map(({ name }) => [name, []]));
    for (let at = 0; at < FAULTS; at += 1) {
      const fault = faults[at % faults.length];
      const since = Date.now();
      await fault.run(Math.floor(at / faults.length) + at);
      await untilWell(cluster);
      // What waits for the last moment is taken by now.
      await pause(1000);
      const gap = writers.longestGap(since);
      gaps.get(fault.name).push(gap);
      say(`${String(at + 1).padStart(3)} of ${FAULTS}  ${fault.name}: nothing taken for ${(gap / 1000).toFixed(1)} s`);
    }
    await writers.stop();
    await run.stop();
    const on = await run.isOn();
    await run.loadsOff();
    await pause(500);
    const left = await run.isOn();
    const found = await Promise.all(cluster.hosts.map(({ url }) => checkAt(url, writers)));
    const sum = (what) => found.reduce((total, each) => total + each[what].length, 0);
    const figures = [
      ['faults', `${FAULTS}`],
      ['readings taken', `${writers.taken.length}`],
      ['remarks taken', `${writers.said.length}`],
      ['refused', `${writers.refused.length}`],
      ['lost', `${sum('lost')}`],
      ['there twice', `${sum('twice')}`],
      ['without just one entry of the log', `${sum('unlogged')}`],
      ['looks at the load: on, off', `${run.seen.on}, ${run.seen.off}`],
      ['run had to be told to go on', `${run.seen.carriedOn}`],
      ['longest a load was on that was nobody’s', `${(run.seen.longestOrphan / 1000).toFixed(1)} s`],
      ['load on before Loads off, after', `${on ? 'yes' : 'no'}, ${left ? 'yes' : 'no'}`],
      ...[...gaps]
        .filter(([, all]) => all.length > 0)
        .map(([name, all]) => [
          `${name}: nothing taken for, median, most`,
          `${(quantile(all, 0.5) / 1000).toFixed(1)} s, ${(Math.max(...all) / 1000).toFixed(1)} s (${all.length})`,
        ]),
    ];
    console.log('');
    for (const [name, value] of figures) console.log(`  ${name.padEnd(54)} ${value}`);
    console.log('');
    for (const one of writers.refused.slice(0, 5)) console.log(`  refused: ${JSON.stringify(one).slice(0, 300)}`);
    const worst = Math.max(...[...gaps.values()].flat());
    const bad = [
      sum('lost') > 0 && 'something that was taken is lost',
      sum('twice') > 0 && 'something is there twice',
      sum('unlogged') > 0 && 'something is not in the log just once',
      writers.taken.length === 0 && 'nothing was taken at all',
      writers.refused.length > 0 && 'something was refused',
      MEASURED && run.seen.orphaned > 0 && 'a load was on that was nobody’s',
      run.seen.on === 0 && 'the load was never on',
      left && 'Loads off left a load on',
      MEASURED && worst > GOAL && `nothing was taken for ${(worst / 1000).toFixed(1)} s`,
    ].filter(Boolean);
    say(bad.length === 0 ? 'nothing broke' : bad.join('; '));
    return bad.length === 0 ? 0 : 1;
  } finally {
    for (const part of parts.reverse()) await part.stop().catch(() => undefined);
    rmSync(folder, { recursive: true, force: true });
  }
}

main().then(
  (status) => process.exit(status),
  (error) => {
    console.error(error);
    process.exit(1);
  },
);
