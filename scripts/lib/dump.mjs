// The dump of a database, the same for the same content, so that two can be compared.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { clientFor } from './current.mjs';
import { findProgram } from './install.mjs';

const OPTIONS = [
  '--single-transaction',
  '--hex-blob',
  '--skip-comments',
  '--order-by-primary',
  '--no-tablespaces',
  '--max-allowed-packet=64M',
];

/** Start a dump. @returns its SQL as a stream, and ended(), which says whether it went well */
export function dumpOf(url, name = clientFor(url).name) {
  const { args, env } = clientFor(url);
  const dump = spawn(findProgram('mariadb-dump'), [...args, ...OPTIONS, name], {
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const status = new Promise((done) => dump.once('exit', done));
  return { sql: dump.stdout, ended: async () => (await status) === 0 };
}

/** Check of everything in a database. @returns sha256 of its dump, null when it could not be dumped */
export async function checkOf(url, name) {
  const { sql, ended } = dumpOf(url, name);
  const hash = createHash('sha256');
  for await (const part of sql) hash.update(part);
  return (await ended()) ? hash.digest('hex') : null;
}

/** Run one statement. @returns its rows as text, one a line @throws Error with MariaDB's words */
export function statement(url, sql, name = '') {
  const { args, env } = clientFor(url);
  const { status, stdout, stderr } = spawnSync(
    findProgram('mariadb'),
    [...args, '--batch', '--skip-column-names', ...(name ? [name] : []), '-e', sql],
    { env, encoding: 'utf8', maxBuffer: 1 << 26 },
  );
  if (status !== 0) throw new Error(stderr.trim() || 'The database did not answer.');
  return stdout.trim().split('\n').filter(Boolean);
}
