// A backup is brought forward to a moment: what was done before it is there, what was done after it is not.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createPool, type RowDataPacket } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { startMariadb } from '../../scripts/lib/mariadb.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../../scripts/lib/stage.mjs';
import { aSample } from '../testing/harness.ts';

interface Database {
  readonly url: string;
  readonly pid: number;
  readonly stop: () => Promise<void>;
  readonly kill: () => Promise<void>;
}

const folder = scratch('history');
const file = join(folder, 'backup.sql.gz');
let database: Database;
const start = async () => {
  database = (await startMariadb(folder, { history: 8 })) as Database;
};
beforeAll(start);
afterAll(async () => {
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Scripts as a person runs them, on the data folder. */
function script(name: string, args: string[], env: Record<string, string> = {}) {
  const { DATABASE_URL: _url, ...own } = process.env;
  return spawnSync('node', [fileURLToPath(new URL(`../../scripts/${name}.mjs`, import.meta.url)), ...args], {
    env: { ...own, LASTMARK_DATA: folder, ...env },
    encoding: 'utf8',
  });
}

async function serials(): Promise<string[]> {
  const pool = createPool(database.url);
  const [rows] = await pool.query<RowDataPacket[]>('SELECT serial FROM samples ORDER BY serial');
  await pool.end();
  return rows.map(({ serial }) => serial as string);
}

/** Changes are told apart by the second. */
async function anotherSecond(): Promise<Date> {
  const now = Math.floor(Date.now() / 1000);
  while (Math.floor(Date.now() / 1000) < now + 2) await new Promise((resolve) => setTimeout(resolve, 50));
  return new Date((now + 1) * 1000);
}

describe('a backup with changes kept', () => {
  let between: Date;

  it('says where it stands among them, and is the same content all the same', async () => {
    const { server, exited, port } = await forkServer(database.url, folder);
    const call = async (method: string, path: string, body?: object, headers = {}) => {
      const answer = await fetch(`http://127.0.0.1:${port}/api${path}`, {
        method,
        headers: { 'Content-Type': 'application/json', ...headers },
        ...(body ? { body: JSON.stringify(body) } : {}),
      });
      if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
      return answer.status === 204 ? null : ((await answer.json()) as { id: string; etag: string });
    };
    const take = (serial: string) => call('POST', '/samples', aSample({ unit: { serial } }));
    const first = await take('before the backup');
    const env = { DATABASE_URL: database.url };
    expect(script('db-backup', [file], env).status).toBe(0);
    // The same content is the same dump, wherever it stands.
    expect(script('db-keep', [], { ...env, LASTMARK_BACKUP_FOLDER: join(folder, 'kept') }).status).toBe(0);
    await take('after the backup');
    between = await anotherSecond();
    await take('too late');
    await call('DELETE', `/samples/${first?.id}`, undefined, { 'If-Match': first?.etag ?? '' });
    expect(await serials()).toEqual(['after the backup', 'too late']);
    server.kill('SIGTERM');
    await exited;
  });

  it('is brought forward to a moment, also after the database was killed', async () => {
    await database.kill();
    const { status, stdout, stderr } = script('db-restore', [file, '--replace', '--until', between.toISOString()]);
    expect(status, stderr).toBe(0);
    expect(stdout).toContain(`brought forward to ${between.toISOString()}`);
    await start();
    expect(await serials()).toEqual(['after the backup', 'before the backup']);
  });

  it('leads nowhere any more once other tables stand there, and says so before anything changes', async () => {
    await database.stop();
    const { status, stderr } = script('db-restore', [file, '--replace', '--until', '2999-01-01']);
    expect(status).toBe(1);
    expect(stderr).toContain('The changes since this backup are not kept any more');
    const nonsense = script('db-restore', [file, '--replace', '--until', 'noon']);
    expect(nonsense.stderr).toContain('--until "noon" is no moment');
    await start();
    expect(await serials()).toEqual(['after the backup', 'before the backup']);
    await database.stop();
    expect(script('db-restore', [file, '--replace']).status).toBe(0);
    await start();
    expect(await serials()).toEqual(['before the backup']);
  });

  it('is no longer made once nobody keeps changes', async () => {
    await database.kill();
    database = (await startMariadb(folder)) as Database;
    expect(existsSync(join(folder, 'changes'))).toBe(false);
    expect(await serials()).toEqual(['before the backup']);
    const plain = join(folder, 'plain.sql.gz');
    expect(script('db-backup', [plain], { DATABASE_URL: database.url }).status).toBe(0);
    await database.stop();
    const { status, stderr } = script('db-restore', [plain, '--replace', '--until', '2999-01-01'], {
      LASTMARK_HISTORY: '0',
    });
    expect(status).toBe(1);
    expect(stderr).toContain('does not say where it stands');
    expect(readdirSync(folder)).toContain('plain.sql.gz');
    await start();
  });
});
