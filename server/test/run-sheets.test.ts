import type { SampleDossier } from '@lastmark/contract';
import { judgeSample } from '@lastmark/core/verdict';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toJudge } from '../src/samples/dossier.ts';
import { type Harness, startHarness } from './harness.ts';
import { startRig, type TestRig } from './rig.ts';

let harness: Harness;
let bench: TestRig;
beforeAll(async () => {
  harness = await startHarness('run_sheets');
  bench = await startRig(harness, 600);
  const line = (volts: number, amps: number) => ({ kind: 'port-line', port: 'C1', volts, amps });
  for (const promise of [
    line(5, 3),
    line(9, 3),
    line(20, 2.25),
    { kind: 'total', watts: 45 },
    { kind: 'idle', watts: 0.075, mains: null },
  ])
    await bench.make.claim(bench.sample.id, promise);
});
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

describe('a sheet', () => {
  it('runs from the rig check to the claims, by itself', async () => {
    const sheet = await bench.sheet();
    expect(sheet.steps.map(({ kind }) => kind)).toContain('warm-up');
    const { id } = await bench.start(sheet.id);
    const run = await bench.until(id, ({ state }) => state === 'done' || state === 'held', 'the whole sheet');
    expect(run.state, run.says).toBe('done');
    const failed = Object.values(run.outcomes).filter(({ state }) => state !== 'done');
    expect(failed).toEqual([]);
    const dossier = await bench.call<SampleDossier>('get', `/samples/${bench.sample.id}/dossier`);
    const verdict = judgeSample(toJudge(dossier));
    expect(verdict.claims.map(({ state }) => state)).toEqual(['proven', 'proven', 'proven', 'proven', 'proven']);
  }, 120_000);
});
