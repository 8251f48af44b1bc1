// A lab at work on one server: fifty people who read and type, two hundred pages that listen to live numbers, eight instruments.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { get, request } from 'node:http';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { startCopies } from '../cluster/copies.mjs';
import { startCluster } from '../lib/cluster.mjs';
import { portsInARow, startSimulatedBench } from '../lib/simulated-bench.mjs';
import { startStage } from '../lib/stage.mjs';
import { placesToType, typedPoint } from '../lib/typed-point.mjs';

const PEOPLE = 50;
const LISTENERS = 200;
const SECONDS = 60;
const PASSWORD = 'a lamp in every hut';
/** Each person: what others did, something read, something typed, every so many ms. */
const NEWS = 2000;
const READ = 3000;
/** Fifty that type this often come to more than a million readings a day, ms. */
const TYPE = 4000;
const DAY = 86_400;

const quantile = (values, share) => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
};
const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** How much the machine works from now on. @returns what to ask for busy cores, of all and of this process */
function cores() {
  const busy = () => {
    const [user, nice, system, , , irq, soft] = readFileSync('/proc/stat', 'utf8').split('\n')[0].split(/\s+/).slice(1);
    // A hundredth of a second each.
    return [user, nice, system, irq, soft].reduce((sum, one) => sum + Number(one), 0) / 100;
  };
  const [begun, before, own] = [performance.now(), busy(), process.cpuUsage()];
  return () => {
    const seconds = (performance.now() - begun) / 1000;
    const { user, system } = process.cpuUsage(own);
    return { all: (busy() - before) / seconds, clients: (user + system) / 1e6 / seconds };
  };
}

/** One browser: its cookie, and what it asks. */
function browser(url) {
  let cookie = '';
  const ask = (method, path, body) =>
    new Promise((resolve, reject) => {
      const begun = performance.now();
      const asked = request(
        `${url}/api${path}`,
        { method, headers: { Cookie: cookie, ...(body ? { 'Content-Type': 'application/json' } : {}) } },
        (response) => {
          let text = '';
          response.setEncoding('utf8');
          response.on('data', (part) => {
            text += part;
          });
          response.on('end', () => {
            const [own] = response.headers['set-cookie'] ?? [];
            if (own) [cookie] = own.split(';');
            resolve({
              status: response.statusCode,
              milliseconds: performance.now() - begun,
              body: text && response.headers['content-type']?.includes('json') ? JSON.parse(text) : null,
            });
          });
        },
      );
      asked.on('error', reject);
      asked.end(body ? JSON.stringify(body) : undefined);
    });
  return { ask, cookie: () => cookie };
}

/** A page that listens. @returns how many events came, how old they were, and how to stop */
function listener(url, cookie) {
  const heard = { events: 0, ages: [], stop: () => asked.destroy() };
  const asked = get(`${url}/api/live`, { headers: { Cookie: cookie } }, (response) => {
    let rest = '';
    response.setEncoding('utf8');
    response.on('data', (part) => {
      const lines = (rest + part).split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) {
        if (!line.startsWith('data: ')) continue;
        heard.events += 1;
        // One in fifty is enough to know how old they are.
        if (heard.events % 50 === 0) heard.ages.push(Date.now() - Date.parse(/"at":"([^"]+)"/.exec(line)?.[1] ?? ''));
      }
    });
    response.on('error', () => undefined);
  });
  asked.on('error', () => undefined);
  return heard;
}

async function everyone({ urls, code }) {
  const admin = browser(urls[0]);
  await admin.ask('POST', '/join', { secret: code, signIn: 'ada', name: 'Ada Marrow', password: PASSWORD });
  const people = [];
  for (let at = 0; at < PEOPLE; at += 1) {
    const { body } = await admin.ask('POST', '/invitations', { role: 'engineer', note: '' });
    const one = browser(urls[at % urls.length]);
    const secret = body.path.split('#')[1];
    const joined = await one.ask('POST', '/join', {
      secret,
      signIn: `p${at}`,
      name: `Person ${at}`,
      password: PASSWORD,
    });
    if (joined.status !== 201) throw new Error(`nobody came in: ${JSON.stringify(joined.body)}`);
    people.push(one);
  }
  return { admin, people };
}

/** Simulated benches, and what a server beside each has to know. */
async function startBenches(count) {
  const benches = [];
  for (let at = 1; at <= count; at += 1) {
    const port = await portsInARow();
    const bench = await startSimulatedBench({ port, seed: at });
    benches.push({ ...bench, port, env: { LASTMARK_PEOPLE: '1', BENCH_PORT: String(port) } });
  }
  return benches;
}

/** One server on a database of its own. */
export async function oneServer() {
  const [bench] = await startBenches(1);
  const stage = await startStage({ env: bench.env });
  const stop = async () => {
    await stage.stop();
    await bench.stop();
  };
  return { title: 'one server', urls: [stage.url], code: stage.code, grow: async () => undefined, stop };
}

/** Instruments of the first bench, once more at each of the others. */
async function addInstruments(admin, benches) {
  const [first, ...others] = benches;
  const { items } = (await admin.ask('GET', '/instruments')).body;
  const portOf = (address) => Number(/^127\.0\.0\.1:(\d+)$/.exec(address ?? '')?.[1]) - first.port;
  for (const [at, { port }] of others.entries())
    for (const { id: _id, version: _version, author: _author, ...one } of items) {
      const place = portOf(one.address);
      if (!(place >= 0)) continue;
      const body = {
        ...one,
        name: `${one.name} ${at + 2}`,
        address: `127.0.0.1:${port + place}`,
        bench: nameOf(at + 1),
      };
      const { status, body: said } = await admin.ask('POST', '/instruments', body);
      if (status !== 201) throw new Error(`an instrument was refused: ${JSON.stringify(said)}`);
    }
}

const nameOf = (at) => `Bench ${at + 1}`;

/** Three hosts of one database, and copies of the server, beside a bench each. */
const aCluster = (count, named) => async () => {
  const folder = mkdtempSync(join(tmpdir(), 'lastmark-lab-'));
  const cluster = await startCluster(join(folder, 'hosts'));
  const benches = await startBenches(named ? count : 1);
  const envOf = (at) => ({ ...(benches[at] ?? benches[0]).env, ...(named ? { LASTMARK_BENCH: nameOf(at) } : {}) });
  const copies = await startCopies(cluster.url, folder, { count, envOf });
  return {
    title: named ? `${count} benches with a copy beside each, on three hosts` : `${count} copies on three hosts`,
    urls: copies.map(({ url }) => url),
    code: copies[0].code,
    grow: (admin) => addInstruments(admin, benches),
    stop: async () => {
      await Promise.all(copies.map((copy) => copy.stop()));
      await cluster.stop();
      for (const bench of benches) await bench.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
};

/** Fifty people and two hundred listeners, on one server and on a cluster. */
export async function measurePeople() {
  for (const start of [oneServer, aCluster(2, false)]) await measureAt(start);
}

/** The same with ever more benches: how far one machine goes. */
export async function measureBenches(counts = [2, 5, 10]) {
  for (const count of counts) await measureAt(aCluster(count, true));
}

export async function measureAt(start) {
  const lab = await start();
  try {
    const { urls } = lab;
    const { admin, people } = await everyone(lab);
    await lab.grow(admin);
    const where = await placesToType(async (path) => (await people[0].ask('GET', path)).body);
    const listeners = Array.from({ length: LISTENERS }, (_, at) =>
      listener(urls[at % urls.length], people[at % PEOPLE].cookie()),
    );
    await pause(3000);
    for (const one of listeners) Object.assign(one, { events: 0, ages: [] });
    const worked = cores();
    const times = { news: [], reads: [], writes: [] };
    const refused = {};
    const until = Date.now() + SECONDS * 1000;
    const each = (every, kind, work) => async (person, at) => {
      await pause((every * at) / PEOPLE);
      while (Date.now() < until) {
        const begun = Date.now();
        const { status, milliseconds } = await work(person, at);
        times[kind].push(milliseconds);
        if (status >= 400) refused[`${kind} ${status}`] = (refused[`${kind} ${status}`] ?? 0) + 1;
        await pause(Math.max(0, every - (Date.now() - begun)));
      }
    };
    const sampleOf = (at) => where[at % where.length];
    let turn = 0;
    const news = each(NEWS, 'news', ({ ask }, at) =>
      ask('POST', '/news', { tab: `page-${at}`, newest: '', sampleId: sampleOf(at).id, place: 'Efficiency' }),
    );
    const reads = each(READ, 'reads', ({ ask }, at) => {
      turn += 1;
      const paths = [
        `/samples/${sampleOf(at).id}`,
        '/samples?size=100',
        '/instruments',
        `/log?sample=${sampleOf(at).id}`,
      ];
      return ask('GET', paths[turn % paths.length]);
    });
    const writes = each(TYPE, 'writes', ({ ask }, at) => {
      const { id, setup } = sampleOf(at);
      return ask('POST', `/samples/${id}/readings`, { points: [typedPoint(setup, '31.4')] });
    });
    await Promise.all(people.flatMap((person, at) => [news(person, at), reads(person, at), writes(person, at)]));
    const { all, clients } = worked();
    const ages = listeners.flatMap((one) => one.ages);
    const rates = listeners.map(({ events }) => events / SECONDS);
    for (const one of listeners) one.stop();
    const said = (values) =>
      `p50 ${quantile(values, 0.5).toFixed(0)} ms, p95 ${quantile(values, 0.95).toFixed(0)} ms, most ${Math.max(...values).toFixed(0)} ms (${values.length})`;
    console.log(
      `\na lab at work: ${PEOPLE} people, ${LISTENERS} listeners, ${SECONDS} s, ${lab.title}, all on this machine`,
    );
    console.log(`  reads                   ${said(times.reads)}, goal p95 ≤ 100 ms`);
    console.log(`  news                    ${said(times.news)}`);
    const daily = ((times.writes.length / SECONDS) * DAY) / 1e6;
    console.log(`  readings typed          ${said(times.writes)}: ${daily.toFixed(2)} million a day`);
    console.log(
      `  events of a listener    ${quantile(rates, 0.5).toFixed(0)} a second, the least ${Math.min(...rates).toFixed(0)}; age p95 ${quantile(ages, 0.95).toFixed(0)} ms`,
    );
    console.log(`  refused                 ${JSON.stringify(refused)}`);
    console.log(
      `  processor               ${all.toFixed(2)} of ${availableParallelism()} cores busy, ${clients.toFixed(2)} of them with these clients`,
    );
  } finally {
    await lab.stop();
  }
}
