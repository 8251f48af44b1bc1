// A database of the version before traces: its captures are read as before once it is upgraded.
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import type { TraceWindow } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { migrate } from '../src/db/migrate.ts';
import { MIGRATIONS } from '../src/paths.ts';
import { EU, type Harness, startHarness } from '../testing/harness.ts';

const LAST_BEFORE = 15;
let harness: Harness;
let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'lastmark-before-'));
  cpSync(MIGRATIONS, folder, { recursive: true });
  const path = join(folder, 'meta', '_journal.json');
  const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: { idx: number }[] };
  writeFileSync(path, JSON.stringify({ ...journal, entries: journal.entries.filter(({ idx }) => idx <= LAST_BEFORE) }));
  harness = await startHarness('captures_upgrade', { migrated: false });
  await migrate(harness.pool, folder);
});
afterAll(async () => {
  await harness.stop();
  rmSync(folder, { recursive: true });
});

/** A capture as the version before kept it. */
async function keepAsBefore(kind: string, columns: Record<string, Float32Array>): Promise<string> {
  const id = newId();
  const connection = await harness.pool.getConnection();
  try {
    await connection.query('SET FOREIGN_KEY_CHECKS = 0');
    const samples = Object.values(columns)[0]?.length ?? 0;
    const body = { id, kind, mains: EU, interval: 0.001, samples, figures: { kind, findings: [] } };
    await connection.query(
      'INSERT INTO captures (id, sample_id, body, taken_at, entered_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3))',
      [id, newId(), JSON.stringify(body)],
    );
    for (const [name, values] of Object.entries(columns))
      for (const part of [0, 1]) {
        const half = values.slice((part * values.length) / 2, ((part + 1) * values.length) / 2);
        await connection.query('INSERT INTO capture_parts (capture_id, name, part, bytes) VALUES (?, ?, ?, ?)', [
          id,
          name,
          part,
          deflateSync(Buffer.from(half.buffer)),
        ]);
      }
  } finally {
    await connection.query('SET FOREIGN_KEY_CHECKS = 1');
    connection.release();
  }
  return id;
}

it('every sample of every column is where it was', async () => {
  // Two parts of an even number of samples each; the piece the program reads has 262 144.
  const size = 2 * 262_144;
  const volts = Float32Array.from({ length: size }, (_, at) => Math.sin(at / 50));
  const amps = Float32Array.from({ length: size }, (_, at) => Math.cos(at / 50) / 10);
  const waveform = await keepAsBefore('waveform', { volts, amps });
  const sweep = await keepAsBefore('sweep', { supply: volts, volts: amps });
  const idle = await keepAsBefore('idle', { watts: amps });
  await migrate(harness.pool, MIGRATIONS);
  const windowOf = async (id: string): Promise<TraceWindow> =>
    (await request(harness.app).get(`/api/captures/${id}/trace?buckets=5000&from=262.100&to=262.200`).expect(200)).body;
  for (const [id, names] of [
    [waveform, ['volts', 'amps']],
    [sweep, ['supply', 'volts']],
    [idle, ['watts']],
  ] as const) {
    const shown = await windowOf(id);
    expect(shown.samples).toBe(size);
    expect(shown.columns.map(({ name }) => name)).toEqual(names);
    const [first, second] = id === idle ? [amps] : [volts, amps];
    for (const [values, column] of [[first, shown.columns[0]] as const, [second, shown.columns[1]] as const])
      for (const { x, y } of column?.points ?? [])
        expect(y).toBeCloseTo(values?.[Math.round(x * 1000)] ?? Number.NaN, 6);
    expect(shown.columns[0]?.points.length).toBeGreaterThan(90);
  }
  const whole: TraceWindow = (await request(harness.app).get(`/api/captures/${waveform}/trace?buckets=100`).expect(200))
    .body;
  expect(Math.max(...(whole.columns[0]?.points.map(({ y }) => y) ?? []))).toBeCloseTo(1, 3);
  const [left] = await harness.pool.query("SHOW TABLES LIKE 'capture_parts'");
  expect(left).toEqual([]);
});
