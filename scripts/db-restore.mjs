// npm run db:restore -- FILE [--replace]: brings a backup back. Replaces what is there only when told to.
import { spawn, spawnSync } from 'node:child_process';
import { createReadStream, existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { clientFor, runningOwner, withDatabase } from './lib/current.mjs';
import { findProgram } from './lib/install.mjs';
import { giveUp, say } from './lib/say.mjs';

const [file, flag] = process.argv.slice(2);
if (!file) giveUp('Which backup? npm run db:restore -- FILE [--replace]');
const source = resolve(file);
if (!existsSync(source)) giveUp(`There is no ${source}.`);
if (!process.env.DATABASE_URL && runningOwner())
  giveUp('Lastmark is running on this data. Stop it first, then restore.');

let problem = '';
await withDatabase(async (url) => {
  const { args, env, name } = clientFor(url);
  const sql = (statement) =>
    spawnSync(findProgram('mariadb'), [...args, '--batch', '--skip-column-names', name, '-e', statement], {
      env,
      encoding: 'utf8',
    });
  const tables = sql('SHOW TABLES').stdout.trim().split('\n').filter(Boolean);
  if (tables.length > 0 && flag !== '--replace') {
    problem = `The database has ${tables.length} tables already. Add --replace to put the backup in their place.`;
    return;
  }
  if (tables.length > 0)
    sql(`SET FOREIGN_KEY_CHECKS = 0; DROP TABLE ${tables.map((table) => `\`${table}\``).join(', ')}`);
  const client = spawn(findProgram('mariadb'), [...args, '--max-allowed-packet=64M', name], {
    env,
    stdio: ['pipe', 'inherit', 'inherit'],
  });
  const ended = new Promise((done) => client.once('exit', done));
  await pipeline(createReadStream(source), createGunzip(), client.stdin).catch((error) => {
    problem = `The backup could not be read: ${error.message}`;
  });
  if ((await ended) !== 0) problem ||= 'The restore failed; see the messages above.';
});
if (problem) giveUp(problem);
say(`restored ${source}`);
