// A shelf of ten thousand samples: pages, search and order while nothing and while everything is being worked out anew,
// and how fast that goes.
import { createConnection } from 'mysql2/promise';
import { median, quantile, timed } from './figures.mjs';

const SAMPLES = 10_000;
const REQUESTS = 150;
const ORDERS = ['watts', 'efficiency', 'idle', 'mass', 'short', 'name'];

const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** An id of its own for every number and kind. */
export const idOf = (kind, number) => {
  let text = '';
  for (let rest = number; text.length < 8; rest = Math.floor(rest / 32)) text = ALPHABET[rest % 32] + text;
  return `01JMEASVRE${kind.padStart(8, '0')}${text}`;
};

/** Copies of a demo model with a number and a claim each, put straight into the tables. */
export async function fillShelf(url, databaseUrl, { first = 0, count = SAMPLES } = {}) {
  const db = await createConnection({ uri: databaseUrl.replace(/^mariadb:/, 'mysql:'), timezone: 'Z' });
  const { items } = await (await fetch(`${url}/api/samples?size=1`)).json();
  const [[source]] = await db.query(
    'SELECT m.maker, m.kind, m.facts AS model_facts, s.facts FROM samples s JOIN models m ON m.id = s.model_id WHERE s.id = ?',
    [items[0].id],
  );
  const promise = JSON.stringify({ kind: 'total', watts: 45 });
  const duration = JSON.stringify({ kind: 'unstated' });
  const text = (value) => (typeof value === 'string' ? value : JSON.stringify(value));
  for (let from = first; from < first + count; from += 500) {
    const numbers = Array.from({ length: 500 }, (_, index) => from + index);
    await db.query('INSERT INTO models (id, maker, model, kind, facts) VALUES ?', [
      numbers.map((n) => [idOf('M', n), source.maker, `Bench ${n}`, source.kind, text(source.model_facts)]),
    ]);
    const now = new Date();
    await db.query('INSERT INTO samples (id, model_id, serial, words, facts, created_at, updated_at) VALUES ?', [
      numbers.map((n) => [
        idOf('S', n),
        idOf('M', n),
        `B-${n}`,
        `${source.maker} bench ${n} b-${n}`.toLowerCase(),
        text(source.facts),
        now,
        now,
      ]),
    ]);
    await db.query('INSERT INTO claims (id, model_id, promise, duration, printed) VALUES ?', [
      numbers.map((n) => [idOf('C', n), idOf('M', n), promise, duration, 'label']),
    ]);
  }
  return db;
}

export const waitingIn = async (db) => {
  const [[{ waiting }]] = await db.query(
    "SELECT COUNT(*) AS waiting FROM samples s LEFT JOIN figures f ON f.sample_id = s.id WHERE s.stale = 1 OR f.shared <> (SELECT COALESCE(SUM(revision), 0) FROM revisions WHERE owner = REPEAT('0', 26))",
  );
  return Number(waiting);
};

/** Wait until all figures are current. @returns samples a second */
async function rate(db) {
  const first = await waitingIn(db);
  const begun = performance.now();
  for (;;) {
    await new Promise((resolve) => setTimeout(resolve, 200));
    if ((await waitingIn(db)) === 0) return first / ((performance.now() - begun) / 1000);
  }
}

/** An edit at Bench, as a person makes one. */
async function editBench(url) {
  const { items } = await (await fetch(`${url}/api/instruments`)).json();
  const { id, version, ...instrument } = items[0];
  const answer = await fetch(`${url}/api/instruments/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'If-Match': `"v${version}"` },
    body: JSON.stringify({ ...instrument, firmware: `${version}` }),
  });
  if (!answer.ok) throw new Error(`${answer.status} ${await answer.text()}`);
}

export async function measureShelf({ url, databaseUrl }) {
  const tenth = SAMPLES / 10;
  const db = await fillShelf(url, databaseUrl, { count: tenth });
  await rate(db);
  const ask = async (query) => {
    const answer = await fetch(`${url}/api/samples?size=50&${query}`);
    const { items } = await answer.json();
    if (answer.status !== 200 || items.length === 0) throw new Error(`${query}: ${answer.status}`);
  };
  const WAYS = {
    page: (turn) => `page=${(turn % 20) + 1}`,
    'page far behind': (turn, samples) => `page=${Math.floor(samples / 50) - (turn % 20)}`,
    'one kind, in an order': (turn) => `kind=wall&sort=${ORDERS[turn % 6]}&down=${turn % 2 === 0}`,
    'search in one kind': (turn) => `kind=wall&q=bench+${turn}`,
    search: (turn) => `q=bench+${turn}`,
    'search of one letter': () => 'q=e',
    order: (turn) => `sort=${ORDERS[turn % 6]}&down=${turn % 2 === 0}`,
  };
  const measure = async (requests, samples = SAMPLES) => {
    const times = {};
    for (const [name, query] of Object.entries(WAYS)) {
      times[name] = [];
      for (let turn = 0; turn < requests; turn += 1) times[name].push(await timed(() => ask(query(turn, samples))));
    }
    return times;
  };
  const show = (title, times) => {
    console.log(`  ${title}`);
    for (const [name, values] of Object.entries(times))
      console.log(
        `    ${name.padEnd(22)} p50 ${median(values).toFixed(1)} ms, p95 ${quantile(values, 0.95).toFixed(1)} ms`,
      );
  };
  const small = await measure(REQUESTS, tenth);
  await (await fillShelf(url, databaseUrl, { first: tenth, count: SAMPLES - tenth })).end();
  const first = await rate(db);
  const large = await measure(REQUESTS);
  const today = [];
  for (let turn = 0; turn < REQUESTS / 3; turn += 1)
    today.push(await timed(async () => (await fetch(`${url}/api/today`)).text()));
  console.log(`shelf of ${SAMPLES} samples, pages of 50, ${REQUESTS} requests each`);
  show('nothing to work out', large);
  console.log(
    `  against a shelf of ${tenth}, medians: ${Object.keys(WAYS)
      .map((name) => `${name} ${(median(large[name]) / median(small[name])).toFixed(2)}`)
      .join(', ')}; goal ≤ 1.2`,
  );
  console.log(`  Today: p50 ${median(today).toFixed(0)} ms, p95 ${quantile(today, 0.95).toFixed(0)} ms`);
  const edit = await timed(() => editBench(url));
  const during = await measure(Math.ceil(REQUESTS / 3));
  const left = await waitingIn(db);
  show(`right after an edit at Bench, which took ${edit.toFixed(0)} ms (${left} still waiting at the end)`, during);
  const again = await rate(db);
  console.log(
    `  figures worked out in the background: ${first.toFixed(0)} a second at first, ${again.toFixed(0)} with nobody asking`,
  );
  await db.end();
}
