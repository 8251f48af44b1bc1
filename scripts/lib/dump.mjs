// The dump of a database, the same for the same content, so that two can be compared.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { Transform } from 'node:stream';
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

/** Where the dump stands among the changes: in a line of its own near its beginning, and in other words near its end. */
const PLACE = /^-- CHANGE MASTER TO MASTER_LOG_FILE='([^']+)', MASTER_LOG_POS=(\d+);\n/m;
const PLACE_AGAIN = /^-- SET GLOBAL gtid_slave_pos='[^']*';\n/m;
const BEGINNING = 64 * 1024;
const END = 8 * 1024;

/** Takes those lines out, so that the same content stays the same dump. Rows begin with a bracket: none is taken for one. */
function withoutPlace(found) {
  let waiting = Buffer.alloc(0);
  let begun = false;
  const begin = () => {
    begun = true;
    const text = waiting.toString('latin1');
    const [line, file = '', position] = PLACE.exec(text) ?? [];
    if (!line) return;
    found({ file: file.split('/').at(-1), position: Number(position) });
    waiting = Buffer.from(text.replace(line, ''), 'latin1');
  };
  return new Transform({
    transform(part, _encoding, done) {
      waiting = Buffer.concat([waiting, part]);
      if (!begun && waiting.length > BEGINNING) begin();
      if (!begun || waiting.length <= END) return done();
      const over = waiting.subarray(0, waiting.length - END);
      waiting = waiting.subarray(waiting.length - END);
      done(null, over);
    },
    flush(done) {
      if (!begun) begin();
      done(null, Buffer.from(waiting.toString('latin1').replace(PLACE_AGAIN, ''), 'latin1'));
    },
  });
}

/** Whether the server of a database keeps its changes. */
const keepsChanges = (url) => statement(url, 'SELECT @@log_bin')[0] === '1';

/**
 * Start a dump.
 * @returns its SQL as a stream; ended(), which says whether it went well; place(), where among the changes it stands, null
 *   where none are kept
 */
export function dumpOf(url, name = clientFor(url).name, { placed = false } = {}) {
  const { args, env } = clientFor(url);
  const asked = placed && keepsChanges(url);
  const dump = spawn(findProgram('mariadb-dump'), [...args, ...OPTIONS, ...(asked ? ['--master-data=2'] : []), name], {
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const status = new Promise((done) => dump.once('exit', done));
  let place = null;
  const sql = asked
    ? dump.stdout.pipe(
        withoutPlace((found) => {
          place = found;
        }),
      )
    : dump.stdout;
  return { sql, ended: async () => (await status) === 0, place: () => place };
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
