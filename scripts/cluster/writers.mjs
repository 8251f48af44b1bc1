// Those who type while hosts and copies go: each sends what it has until it is taken, as a browser does, and remembers it.
import { createConnection } from 'mysql2/promise';
import { ulid } from 'ulid';
import { typedPoint } from '../lib/typed-point.mjs';
import { askAny } from './copies.mjs';

const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const EVERY = 150;

/**
 * Begin to type.
 * @returns what was taken and when, and stop(), which lets everyone finish what is on its way
 */
export function startWriters(copies, places, count) {
  const taken = [];
  const said = [];
  const refused = [];
  let stopping = false;
  const one = async (at) => {
    const { id, setup } = places[at % places.length];
    for (let turn = 0; !stopping; turn += 1) {
      const from = at + turn;
      if (turn % 4 === 3) {
        // Without an id of its own: told apart by its key alone.
        const key = ulid();
        const text = `Writer ${at}, turn ${turn}`;
        const remark = { about: 'sample', aboutId: id, kind: 'note', text, mentions: [], answers: null };
        const headers = { 'Idempotency-Key': key };
        const answer = await askAny(copies, 'POST', `/samples/${id}/remarks`, { remark }, { from, headers });
        if (answer.status === 201 || answer.status === 200) said.push({ at: Date.now(), text });
        else refused.push({ status: answer.status, body: answer.body });
      } else {
        const typed = (20 + ((at * 1000 + turn) % 9000) / 1000).toFixed(3);
        const point = typedPoint(setup, typed);
        const answer = await askAny(copies, 'POST', `/samples/${id}/readings`, { points: [point] }, { from });
        if (answer.status === 201 || answer.status === 200)
          taken.push({ at: Date.now(), sampleId: id, pointId: point.id, readingId: point.readings[0].id, typed });
        else refused.push({ status: answer.status, body: answer.body });
      }
      await pause(EVERY);
    }
  };
  const going = Array.from({ length: count }, (_, at) => one(at));
  return {
    taken,
    said,
    refused,
    /** Longest time in which nothing was taken since then, ms. */
    longestGap: (since) => {
      const times = [since, ...[...taken, ...said].map(({ at }) => at).filter((at) => at > since)].sort(
        (a, b) => a - b,
      );
      return Math.max(0, ...times.slice(1).map((at, index) => at - times[index]));
    },
    stop: async () => {
      stopping = true;
      await Promise.all(going);
    },
  };
}

/**
 * Hold what was taken against what a host of the database has: every reading once and as typed, with one entry of the log,
 * every remark once.
 */
export async function checkAt(url, { taken, said }) {
  const connection = await createConnection({ uri: url, timezone: 'Z' });
  try {
    const rows = async (sql) => (await connection.query(sql))[0];
    await connection.query('SET SESSION wsrep_sync_wait = 7');
    const readings = new Map(
      (await rows('SELECT id, value FROM readings')).map(({ id, value }) => [id, Number(value)]),
    );
    const entries = new Map(
      (await rows('SELECT thing_id AS id, COUNT(*) AS times FROM log_things GROUP BY thing_id')).map(
        ({ id, times }) => [id, Number(times)],
      ),
    );
    const remarks = new Map(
      (await rows('SELECT text, COUNT(*) AS times FROM remarks GROUP BY text')).map(({ text, times }) => [
        text,
        Number(times),
      ]),
    );
    return {
      lost: [
        ...taken.filter(({ readingId, typed }) => readings.get(readingId) !== Number(typed)),
        ...said.filter(({ text }) => !remarks.has(text)),
      ],
      twice: said.filter(({ text }) => (remarks.get(text) ?? 0) > 1),
      unlogged: taken.filter(({ readingId }) => entries.get(readingId) !== 1),
    };
  } finally {
    await connection.end();
  }
}
