import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { clearIncoming } from './incoming.ts';

const within = mkdtempSync(join(tmpdir(), 'lastmark-test-incoming-'));
afterAll(() => rmSync(within, { recursive: true, force: true }));

/** A folder with a file in it, of an age. */
function left(name: string, hours: number): void {
  mkdirSync(join(within, name));
  writeFileSync(join(within, name, 'part'), 'x');
  const at = Date.now() / 1000 - hours * 3600;
  utimesSync(join(within, name), at, at);
}

describe('what a killed server had taken in', () => {
  it('goes after a day, and nothing else does', async () => {
    const { pid: ended } = spawnSync(process.execPath, ['-e', '']);
    left(`lastmark-incoming-${ended}-old`, 25);
    left(`lastmark-incoming-${ended}-new`, 23);
    left(`lastmark-incoming-${process.pid}-own`, 25);
    left('lastmark-incoming-0-none', 25);
    left('another-program-7', 25);
    await clearIncoming(within);
    expect(readdirSync(within).sort()).toEqual(
      [
        'another-program-7',
        'lastmark-incoming-0-none',
        `lastmark-incoming-${ended}-new`,
        `lastmark-incoming-${process.pid}-own`,
      ].sort(),
    );
  });
});
