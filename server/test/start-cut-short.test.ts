// A start that was cut short, by a signal or by the power, is simply started again.
import { cpSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import type { RowDataPacket } from 'mysql2';
import { createPool, type Pool } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../../scripts/lib/stage.mjs';
import { MigrationProblem } from '../src/db/alone.ts';
import { connect, type Database } from '../src/db/database.ts';
import { type MigrateOptions, migrate } from '../src/db/migrate.ts';
import { getDossier } from '../src/dossier/dossier.ts';
import { MIGRATIONS } from '../src/paths.ts';
import { listSamples } from '../src/shelf/shelf.ts';

/** Every how many moments a start is cut short, and how often one is killed; `npm run attack` does it more often. */
const EVERY = process.env.LASTMARK_ATTACK ? 7 : 53;
const KILLS = process.env.LASTMARK_ATTACK ? 32 : 1;

const folder = scratch('cut');
afterAll(() => rmSync(folder, { recursive: true, force: true }));

interface Forked {
  readonly server: { kill: (signal: string) => void };
  readonly exited: Promise<void>;
  readonly port: number | null;
}

let count = 0;
/** An empty database of its own. */
async function anEmpty(): Promise<{ pool: Pool; url: string }> {
  count += 1;
  const name = `lastmark_cut_${count}`;
  const server = inject('databaseUrl');
  const admin = createPool(server);
  await admin.query(`DROP DATABASE IF EXISTS ${name}`);
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await admin.end();
  const url = server.replace(/\/lastmark$/, `/${name}`);
  return { url, pool: createPool({ uri: url, connectionLimit: 2 }) };
}

/** Every table as it is defined. */
async function tablesOf(pool: Pool): Promise<Record<string, string>> {
  const [tables] = await pool.query<RowDataPacket[]>('SHOW TABLES');
  const found: Record<string, string> = {};
  for (const row of tables) {
    const name = String(Object.values(row)[0]);
    const [[made]] = await pool.query<RowDataPacket[]>(`SHOW CREATE TABLE \`${name}\``);
    found[name] = String(made?.['Create Table']).replace(/ AUTO_INCREMENT=\d+/, '');
  }
  return found;
}

/** Samples in a database, with or without those that are on their way; none where there is no table yet. */
async function samplesIn(pool: Pool, level: 'READ COMMITTED' | 'READ UNCOMMITTED' = 'READ COMMITTED'): Promise<number> {
  const connection = await pool.getConnection();
  try {
    await connection.query(`SET SESSION TRANSACTION ISOLATION LEVEL ${level}`);
    const [[row]] = await connection.query<RowDataPacket[]>('SELECT COUNT(*) AS count FROM samples');
    return Number(row?.count);
  } catch (error) {
    if ((error as { code?: string }).code === 'ER_NO_SUCH_TABLE') return 0;
    throw error;
  } finally {
    connection.release();
  }
}

/** All that is known of every sample, a line for each part: without when it was written down, and what stands at the bench. */
async function toldOf(db: Database): Promise<string[]> {
  const told: string[] = [];
  for (const { id } of (await listSamples(db, { size: 50 })).items) {
    const { sample, instruments: _those, rigs: _there, ...rest } = await getDossier(db, id);
    const parts = Object.entries({ ...rest, sample: { ...sample, createdAt: '', updatedAt: '' } });
    for (const [name, part] of parts) told.push(`${id} ${name}: ${JSON.stringify(part)}`);
  }
  return told.sort();
}

class Cut extends Error {}
/** Cut the start short at the nth moment. */
function cutAt(nth: number): MigrateOptions {
  let moment = 0;
  return {
    at: () => {
      moment += 1;
      if (moment === nth) throw new Cut();
    },
  };
}
async function momentsOf(pool: Pool, migrations: string): Promise<number> {
  let moments = 0;
  const at = () => {
    moments += 1;
  };
  await migrate(pool, migrations, { at });
  return moments;
}

/** The migrations as an earlier version had them. */
function earlier(until: number): string {
  const path = join(folder, `until-${until}`);
  cpSync(MIGRATIONS, path, { recursive: true });
  const journal = join(path, 'meta', '_journal.json');
  const { entries, ...rest } = JSON.parse(readFileSync(journal, 'utf8'));
  writeFileSync(journal, JSON.stringify({ ...rest, entries: entries.slice(0, until) }));
  return path;
}

let whole: Record<string, string>;
let moments: number;
beforeAll(async () => {
  const { pool } = await anEmpty();
  moments = await momentsOf(pool, MIGRATIONS);
  whole = await tablesOf(pool);
  await pool.end();
});

describe('the first start', () => {
  it('cut short at any moment ends with the same tables', async () => {
    expect(moments).toBeGreaterThan(300);
    for (let moment = 1; moment <= moments; moment += EVERY) {
      const { pool } = await anEmpty();
      await expect(migrate(pool, MIGRATIONS, cutAt(moment))).rejects.toThrow(Cut);
      // And cut short once more on the second try, a little further on.
      await migrate(pool, MIGRATIONS, cutAt(5)).catch((error: unknown) => expect(error).toBeInstanceOf(Cut));
      await migrate(pool, MIGRATIONS);
      expect(await tablesOf(pool), `moment ${moment}`).toEqual(whole);
      await pool.end();
    }
  });

  it('left half-way by a version that remembered no statements goes on too', async () => {
    const { pool } = await anEmpty();
    await migrate(pool, earlier(2));
    // As that version left it: tables of the third migration there, nothing written down about them.
    const third = readFileSync(join(MIGRATIONS, '0002_instrument_links.sql'), 'utf8').split('--> statement-breakpoint');
    await pool.query('DROP TABLE migration_steps');
    await pool.query(third[0] ?? '');
    await migrate(pool, MIGRATIONS);
    expect(await tablesOf(pool)).toEqual(whole);
    await pool.end();
  });

  it('is whole or not there: a killed server leaves an empty shelf or the whole demo', async () => {
    /** Start, look at the shelf, stop. */
    const shelfOf = async (url: string): Promise<number> => {
      const { server, exited, port } = (await forkServer(url, folder, { demo: true })) as Forked;
      expect(port, 'it started').not.toBeNull();
      const { total } = (await (await fetch(`http://127.0.0.1:${port}/api/samples`)).json()) as { total: number };
      server.kill('SIGTERM');
      await exited;
      return total;
    };
    const demo = connect(inject('databaseUrl'));
    const before = await toldOf(demo.db);
    const total = await samplesIn(demo.pool);
    await demo.pool.end();
    expect(total).toBeGreaterThan(6);
    for (let turn = 0; turn < KILLS; turn += 1) {
      const { pool, url } = await anEmpty();
      const half = Math.floor(((turn + 0.5) / KILLS) * total);
      const killed = expect
        .poll(() => samplesIn(pool, 'READ UNCOMMITTED'), { interval: 20 })
        .toBeGreaterThanOrEqual(half);
      await ((await forkServer(url, folder, { demo: true, killed })) as Forked).exited;
      expect(await samplesIn(pool), `killed with ${half} samples on their way`).toBe(0);
      expect(await shelfOf(url), `killed with ${half} samples on their way`).toBe(total);
      // And it is the same every time.
      const again = connect(url);
      expect(await toldOf(again.db)).toEqual(before);
      await again.pool.end();
      await pool.end();
    }
  });
});

describe('an upgrade of a filled database', () => {
  /** As an earlier version left it, with something in it. */
  async function filled() {
    const made = await anEmpty();
    await migrate(made.pool, earlier(3));
    await made.pool.query(
      "INSERT INTO instruments (id, name, class, firmware, specs) VALUES ('01M00000000000000000000001', 'Old meter', 'bench multimeter', '', '{}')",
    );
    return made;
  }

  it('cut short at any moment goes on, keeps what was in it, and copies it once before anything is changed', async () => {
    const sample = await filled();
    const steps = await momentsOf(sample.pool, MIGRATIONS);
    await sample.pool.end();
    for (let moment = 1; moment <= steps; moment += EVERY) {
      const { pool } = await filled();
      const copies: string[][] = [];
      const before = async () => void copies.push(Object.keys(await tablesOf(pool)));
      await expect(migrate(pool, MIGRATIONS, { ...cutAt(moment), before })).rejects.toThrow(Cut);
      await migrate(pool, MIGRATIONS, { before });
      expect(await tablesOf(pool), `moment ${moment}`).toEqual(whole);
      const [rows] = await pool.query<RowDataPacket[]>('SELECT name FROM instruments');
      expect(rows).toEqual([{ name: 'Old meter' }]);
      expect(copies).toHaveLength(1);
      expect(copies[0]).not.toContain('run_sheets');
      await pool.end();
    }
  });

  it('killed at any time goes on at the next start, with everything that was in it', async () => {
    const env = { LASTMARK_DATA: folder };
    const first = await filled();
    const began = performance.now();
    const upgraded = (await forkServer(first.url, folder, { env })) as Forked;
    const took = performance.now() - began;
    upgraded.server.kill('SIGTERM');
    await upgraded.exited;
    await first.pool.end();
    for (let turn = 0; turn < KILLS; turn += 1) {
      const { pool, url } = await filled();
      const killAfter = Math.round(((turn + 0.5) / KILLS) * took);
      await ((await forkServer(url, folder, { env, killed: after(killAfter) })) as Forked).exited;
      const again = (await forkServer(url, folder, { env })) as Forked;
      expect(again.port, `killed after ${killAfter} ms`).not.toBeNull();
      const list = (await (await fetch(`http://127.0.0.1:${again.port}/api/instruments`)).json()) as {
        items: { name: string }[];
      };
      expect(list.items.map(({ name }) => name)).toEqual(['Old meter']);
      again.server.kill('SIGTERM');
      await again.exited;
      expect(await tablesOf(pool), `killed after ${killAfter} ms`).toEqual(whole);
      await pool.end();
    }
  });

  it('that cannot be copied first is not begun, and says what to do', async () => {
    const { pool, url } = await filled();
    const env = { LASTMARK_DATA: '/dev/null/nowhere' };
    const { exited, port } = (await forkServer(url, folder, { env })) as Forked;
    await exited;
    expect(port).toBeNull();
    expect(Object.keys(await tablesOf(pool))).not.toContain('run_sheets');
    expect(readFileSync(join(folder, 'server.log'), 'utf8')).toMatch(
      /copy to be made before that failed[\s\S]*LASTMARK_UPGRADE_BACKUP=0/,
    );
    // With a data folder it is copied and begun.
    const there = (await forkServer(url, folder, { env: { LASTMARK_DATA: folder } })) as Forked;
    expect(there.port).not.toBeNull();
    there.server.kill('SIGTERM');
    await there.exited;
    expect(readdirSync(join(folder, 'backups')).filter((name) => /^before-.*\.sql\.gz$/.test(name))).not.toEqual([]);
    await pool.end();
  });

  it('whose statement fails says which and that it goes on from there', async () => {
    const { pool } = await filled();
    // Someone made a table by hand that the next version needs the name of.
    await pool.query('CREATE TABLE run_sheets (id INT)');
    const failed = migrate(pool, MIGRATIONS);
    await expect(failed).rejects.toThrow(MigrationProblem);
    await expect(failed).rejects.toThrow(
      /stopped at statement \d+ of \d+ \(CREATE TABLE `run_sheets`.*goes on from there.*db:restore/s,
    );
    await pool.query('DROP TABLE run_sheets');
    await migrate(pool, MIGRATIONS);
    expect(await tablesOf(pool)).toEqual(whole);
    await pool.end();
  });
});
