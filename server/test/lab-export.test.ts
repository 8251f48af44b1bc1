// The whole lab in open formats: every sample in studies that another bench takes in, what is kept beside them, and the log.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { unzipSync } from 'fflate';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../../scripts/lib/stage.mjs';
import { aPoint, type Harness, makers, sendForm, startHarness } from '../testing/harness.ts';

interface Lab {
  readonly samples: number;
  readonly files: readonly { readonly name: string; readonly bytes: number; readonly sha256: string }[];
}

const folder = scratch('lab');
const target = join(folder, 'lab');
let harness: Harness;
let other: Harness;
let running: {
  readonly server: { kill: (signal: string) => void };
  readonly exited: Promise<void>;
  readonly port: number;
};
let ids: string[];
beforeAll(async () => {
  harness = await startHarness('lab_export');
  other = await startHarness('lab_export_other');
  const make = makers(harness);
  const all = [];
  for (const model of ['Ember 45', 'Trio 75', 'Quad 130']) all.push(await make.sample({ model: { model } }));
  ids = all.map(({ id }) => id).sort();
  const rig = await make.rig();
  const setup = await make.setup(ids[0] ?? '', rig.id);
  const points = [aPoint(setup.id, rig.id, { watts: '73.1', volts: '20.02', amps: '3.25' })];
  await make.post(`/samples/${ids[0]}/readings`, { points });
  await make.post('/filings', { filings: [{ id: ids[1], labels: [], archived: true }] });
  running = await forkServer(harness.url, folder);
});
afterAll(async () => {
  running.server.kill('SIGTERM');
  await running.exited;
  await harness.stop();
  await other.stop();
  rmSync(folder, { recursive: true, force: true });
});

const script = fileURLToPath(new URL('../../scripts/lab-export.mjs', import.meta.url));
const run = (to: string, at = `http://127.0.0.1:${running.port}`) =>
  spawnSync('node', [script, to], { env: { ...process.env, LASTMARK_AT: at }, encoding: 'utf8' });

describe('the lab as files', () => {
  it('has every sample, archived ones too, and says what each file is', async () => {
    const { status, stderr } = run(target);
    expect(status, stderr).toBe(0);
    const lab = JSON.parse(readFileSync(join(target, 'lab.json'), 'utf8')) as Lab;
    expect(lab.samples).toBe(3);
    for (const { name, bytes, sha256 } of lab.files) {
      const file = readFileSync(join(target, name));
      expect([name, file.length, createHash('sha256').update(file).digest('hex')]).toEqual([name, bytes, sha256]);
    }
    const names = lab.files.map(({ name }) => name);
    expect(names).toEqual(expect.arrayContaining(['bench/rigs.json', 'rules/methods.json', 'log.jsonl']));
    const inside = Object.keys(unzipSync(readFileSync(join(target, 'samples', '0001.study.zip'))));
    for (const id of ids) expect(inside.some((name) => name.includes(id))).toBe(true);
    const log = readFileSync(join(target, 'log.jsonl'), 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect(
      log
        .map(({ operation }) => operation)
        .reverse()
        .slice(0, 3),
    ).toEqual(Array(3).fill('createSample'));
    expect(new Set(log.map(({ id }) => id)).size).toBe(log.length);
  });

  it('is taken in elsewhere, with its readings', async () => {
    const study = readFileSync(join(target, 'samples', '0001.study.zip'));
    const taken = await sendForm(other.app, '/packages', { name: '0001.study.zip' }, study);
    expect(taken.status, JSON.stringify(taken.body).slice(0, 300)).toBe(201);
    const readings = await request(other.app).get(`/api/samples/${ids[0]}/readings`);
    expect(readings.body.total).toBe(3);
  });

  it('overwrites nothing, and says where nobody answers', () => {
    expect(run(target).stderr).toContain('is not empty');
    const full = join(folder, 'full');
    mkdirSync(full);
    writeFileSync(join(full, 'mine.txt'), 'mine');
    expect(run(full).stderr).toContain('nothing is overwritten');
    expect(run(join(folder, 'none'), 'http://127.0.0.1:1').stderr).toContain('No server answers at http://127.0.0.1:1');
  });
});
