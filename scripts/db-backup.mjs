// npm run db:backup [-- FILE]: the whole database, files included, into one compressed SQL file.
import { spawn } from 'node:child_process';
import { createWriteStream, mkdirSync, renameSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { clientFor, withDatabase } from './lib/current.mjs';
import { findProgram } from './lib/install.mjs';
import { dataFolder } from './lib/paths.mjs';
import { giveUp, say } from './lib/say.mjs';

const stamp = new Date().toISOString().replace(/[:.]/g, '-');
const target = resolve(process.argv[2] ?? join(dataFolder(), 'backups', `lastmark-${stamp}.sql.gz`));

await withDatabase(async (url) => {
  const { args, env, name } = clientFor(url);
  mkdirSync(dirname(target), { recursive: true });
  const dump = spawn(
    findProgram('mariadb-dump'),
    [...args, '--single-transaction', '--hex-blob', '--skip-dump-date', '--max-allowed-packet=64M', name],
    { env, stdio: ['ignore', 'pipe', 'inherit'] },
  );
  const ended = new Promise((done) => dump.once('exit', done));
  // Written beside the target first: a backup that broke off never looks like a whole one.
  const unfinished = `${target}.unfinished`;
  await pipeline(dump.stdout, createGzip(), createWriteStream(unfinished, { mode: 0o600 }));
  if ((await ended) !== 0) giveUp('The backup failed; nothing was kept.');
  renameSync(unfinished, target);
});
say(`backed up to ${target} (${(statSync(target).size / 1024).toFixed(0)} kB)`);
