// One private MariaDB for a test run, with its own folder and port; every test file gets a database of its own on it.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
// @ts-expect-error plain script without types
import { needBuild } from '../../scripts/lib/build.mjs';
// @ts-expect-error plain script without types
import { startMariadb } from '../../scripts/lib/mariadb.mjs';

export default async function setup(project: TestProject) {
  // Some tests start whole servers, and all of them the workers: as built from what stands here now.
  needBuild();
  const folder = mkdtempSync(join(tmpdir(), 'lastmark-test-'));
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
