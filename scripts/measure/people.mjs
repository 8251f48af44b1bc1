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
const TYPE = 5000;

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
  return people;
}

/** One server on a database of its own. */
export async function oneServer(env) {
  const stage = await startStage({ env });
  return { title: 'one server', urls: [stage.url], code: stage.code, stop: stage.stop };
}

/** Three hosts of one database, and two copies of the server. */
async function aCluster(env) {
  const folder = mkdtempSync(join(tmpdir(), 'lastmark-lab-'));
  const cluster = await startCluster(join(folder, 'hosts'));
  const copies = await startCopies(cluster.url, folder, { env });
  return {
    title: 'two copies on three hosts',
    urls: copies.map(({ url }) => url),
    code: copies[0].code,
    stop: async () => {
      for (const copy of copies) await copy.stop();
      await cluster.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Fifty people and two hundred listeners, on one server and on a cluster. */
export async function measurePeople() {
  for (const start of [oneServer, aCluster]) await measureAt(start);
}

export async function measureAt(start) {
  const port = await portsInARow();
  const bench = await startSimulatedBench({ port });
  const lab = await start({ LASTMARK_PEOPLE: '1', BENCH_PORT: String(port) });
  try {
    const { urls } = lab;
    const people = await everyone(lab);
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
    console.log(`  readings typed          ${said(times.writes)}`);
    console.log(
      `  events of a listener    ${quantile(rates, 0.5).toFixed(0)} a second, the least ${Math.min(...rates).toFixed(0)}; age p95 ${quantile(ages, 0.95).toFixed(0)} ms`,
    );
    console.log(`  refused                 ${JSON.stringify(refused)}`);
    console.log(
      `  processor               ${all.toFixed(2)} of ${availableParallelism()} cores busy, ${clients.toFixed(2)} of them with these clients`,
    );
  } finally {
    await lab.stop();
    await bench.stop();
  }
}
