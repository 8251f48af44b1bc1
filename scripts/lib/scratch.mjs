// Folders that tests work in.
import { existsSync, mkdtempSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const MEMORY = '/dev/shm';
/** A database with its logs and some uploads take less. */
const ENOUGH_BYTES = 4 * 1024 ** 3;

function memoryIsLarge() {
  if (!existsSync(MEMORY)) return false;
  const { bavail, bsize } = statfsSync(MEMORY);
  return bavail * bsize >= ENOUGH_BYTES;
}

/**
 * A new folder for a test: in memory where there is plenty. A disk that others use too takes seconds for what takes
 * milliseconds otherwise, and no test is about disks.
 * @param name begins its name
 */
export function scratch(name) {
  return mkdtempSync(join(memoryIsLarge() ? MEMORY : tmpdir(), `lastmark-${name}-`));
}
