// Copies of the server on one cluster, and requests that find one that answers.
import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { freePort } from '../lib/mariadb.mjs';
import { forkServer } from '../lib/stage.mjs';

const PATIENCE = 8000;
const AGAIN = 100;

const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** One copy, which can be ended without a word, stopped in its tracks, and started again. */
async function copyOf(url, folder, name, env) {
  mkdirSync(folder, { recursive: true });
  const port = await freePort();
  let self = `${name}-${randomUUID().slice(0, 8)}`;
  const start = async (died = '') => {
    const forked = await forkServer(url, folder, {
      port,
      demo: true,
      env: { ...env, LASTMARK_SERVER: self, LASTMARK_DIED: died },
    });
    if (forked.port === null) throw new Error(`${name} did not start: see ${join(folder, 'server.log')}`);
    return forked;
  };
  let running = await start();
  return {
    name,
    /** Of the first person, where people are told apart and nobody is there. */
    code: running.code,
    url: `http://127.0.0.1:${port}`,
    kill: async () => {
      running.server.kill('SIGKILL');
      await running.exited;
    },
    freeze: () => running.server.kill('SIGSTOP'),
    thaw: () => running.server.kill('SIGCONT'),
    start: async () => {
      const died = self;
      self = `${name}-${randomUUID().slice(0, 8)}`;
      running = await start(died);
    },
    stop: async () => {
      running.server.kill('SIGCONT');
      running.server.kill('SIGTERM');
      await running.exited;
    },
  };
}

/** @param envOf more of the environment of each, by its place */
export async function startCopies(url, folder, { count = 2, envOf = () => ({}) } = {}) {
  const copies = [];
  for (let at = 1; at <= count; at += 1)
    copies.push(await copyOf(url, join(folder, `copy-${at}`), `copy-${at}`, envOf(at - 1)));
  return copies;
}

/** One request to one copy. @returns status and body; status 0 where no answer came in time */
export async function ask(copy, method, path, body, headers = {}) {
  try {
    const answer = await fetch(`${copy.url}/api${path}`, {
      method,
      headers: { ...(body ? { 'Content-Type': 'application/json' } : {}), ...headers },
      ...(body ? { body: JSON.stringify(body) } : {}),
      signal: AbortSignal.timeout(PATIENCE),
    });
    const text = await answer.text();
    return { status: answer.status, body: text.startsWith('{') ? JSON.parse(text) : text };
  } catch {
    return { status: 0, body: null };
  }
}

/** The same request to one copy after the other, until one answers for good: as a browser does that keeps what was typed. */
export async function askAny(
  copies,
  method,
  path,
  body,
  { from = 0, headers = {}, until = Number.POSITIVE_INFINITY } = {},
) {
  for (let turn = from; Date.now() < until; turn += 1) {
    const answer = await ask(copies[turn % copies.length], method, path, body, headers);
    if (answer.status > 0 && answer.status < 500) return answer;
    await pause(AGAIN);
  }
  return { status: 0, body: null };
}
