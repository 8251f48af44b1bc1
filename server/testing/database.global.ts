// One private MariaDB for a test run, with its own folder and port; every test file gets a database of its own on it. The
// first database has the demo, another is empty: files begin with a copy of one of them.
import { rmSync } from 'node:fs';
import { createPool } from 'mysql2/promise';
import type { TestProject } from 'vitest/node';
// @ts-expect-error plain script without types
import { needBuild } from '../../scripts/lib/build.mjs';
// @ts-expect-error plain script without types
import { copyFilled } from '../../scripts/lib/copy-filled.mjs';
// @ts-expect-error plain script without types
import { filledDemo } from '../../scripts/lib/filled.mjs';
// @ts-expect-error plain script without types
import { startMariadb } from '../../scripts/lib/mariadb.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
import { connect } from '../src/db/database.ts';
import { migrate } from '../src/db/migrate.ts';
import { MIGRATIONS } from '../src/paths.ts';
import { EMPTY } from './copy-database.ts';

async function makeEmpty(url: string): Promise<void> {
  const admin = createPool(url);
  await admin.query(`CREATE DATABASE ${EMPTY} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await admin.end();
  const { pool } = connect(url.replace(/lastmark$/, EMPTY));
  await migrate(pool, MIGRATIONS);
  await pool.end();
}

export default async function setup(project: TestProject) {
  // Some tests start whole servers, and all of them the workers: as built from what stands here now.
  needBuild();
  const folder = scratch('test');
  copyFilled(await filledDemo(), folder);
  const database = await startMariadb(folder);
  await makeEmpty(database.url as string);
  project.provide('databaseUrl', database.url as string);
  return async () => {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}

declare module 'vitest' {
  export interface ProvidedContext {
    databaseUrl: string;
  }
}
