// Where the files of forms stand until their job has read them: they never pass through the memory of the main thread.
import { mkdtempSync } from 'node:fs';
import { readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Request } from 'express';
import { isAlive } from '../alive.ts';

const NAME = /^lastmark-incoming-(\d+)-/;
/** What a server that is not to be seen may still be at work on, where several machines share a folder, ms. */
const LEFT_ALONE = 24 * 3_600_000;

let folder: string | null = null;

/** Own folder, made with the first file. What servers that were killed left is cleared away with it. */
export function incoming(): string {
  if (folder === null) {
    void clearIncoming(tmpdir()).catch(() => undefined);
    folder = mkdtempSync(join(tmpdir(), `lastmark-incoming-${process.pid}-`));
  }
  return folder;
}

/** Remove what servers left that ended a day ago or before. */
export async function clearIncoming(within: string, now = Date.now()): Promise<void> {
  for (const name of await readdir(within)) {
    const pid = Number(NAME.exec(name)?.[1]);
    if (!(pid > 0) || isAlive(pid)) continue;
    const path = join(within, name);
    const written = await stat(path).catch(() => null);
    // Of somebody else: not ours to remove.
    if (written && now - written.mtimeMs > LEFT_ALONE)
      await rm(path, { recursive: true, force: true }).catch(() => undefined);
  }
}

/** Remove the file a form brought. */
export async function dropFile({ file }: Request): Promise<void> {
  if (file?.path) await rm(file.path, { force: true });
}

/** Remove whatever forms brought, and where it stood. */
export async function dropIncoming(): Promise<void> {
  const had = folder;
  folder = null;
  if (had) await rm(had, { recursive: true, force: true });
}
