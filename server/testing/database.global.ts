// One private MariaDB for a test run, with its own folder and port; every test file gets a database of its own on it.
import { rmSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
// @ts-expect-error plain script without types
import { needBuild } from '../../scripts/lib/build.mjs';
// @ts-expect-error plain script without types
import { startMariadb } from '../../scripts/lib/mariadb.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';

export default async function setup(project: TestProject) {
  // Some tests start whole servers, and all of them the workers: as built from what stands here now.
  needBuild();
  const folder = scratch('test');
  const database = await startMariadb(folder);
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
