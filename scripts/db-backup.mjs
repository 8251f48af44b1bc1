// npm run db:backup [-- FILE]: the whole database, files included, into one compressed SQL file that checks itself.
import { statSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { backUp, stampOf } from './lib/back-up.mjs';
import { withDatabase } from './lib/current.mjs';
import { dataFolder } from './lib/paths.mjs';
import { giveUp, say } from './lib/say.mjs';

const target = resolve(process.argv[2] ?? join(dataFolder(), 'backups', `lastmark-${stampOf(new Date())}.sql.gz`));

let problem = '';
await withDatabase((url) =>
  backUp(url, target).catch((error) => {
    problem = error.message;
  }),
);
if (problem) giveUp(problem);
say(`backed up to ${target} (${(statSync(target).size / 1024).toFixed(0)} kB)`);
