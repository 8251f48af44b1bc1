// Real meters show a number or two a second, whoever asks them how often.
import { ofKind } from '@lastmark/core/plan';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Harness, startHarness } from '../testing/harness.ts';
import { startRig, type TestRig } from '../testing/rig.ts';
import { startSlowMeter } from '../testing/slow-meter.ts';

/** Between two measurements, ms. */
const EVERY = 900;
const METERS = ['power-analyser', 'dc-load', 'multimeter', 'inline-meter'];

let harness: Harness;
let bench: TestRig;
const meters: { readonly stop: () => Promise<void> }[] = [];
beforeAll(async () => {
  harness = await startHarness('slow_meters');
  bench = await startRig(harness, 20, 3, async (kind, port) => {
    if (!METERS.includes(kind)) return port;
    const meter = await startSlowMeter(port, 'FETC?', EVERY);
    meters.push(meter);
    return meter.port;
  });
  for (const [volts, amps] of [
    [5, 3],
    [9, 3],
    [20, 2.25],
  ])
    await bench.make.claim(bench.sample.id, { kind: 'port-line', port: 'C1', volts, amps });
});
afterAll(async () => {
  await harness.stop();
  await bench.close();
  for (const meter of meters) await meter.stop();
});

it('a run on slow meters moves levels and loads without taking the old number for a fault', async () => {
  const sheet = await bench.sheet((steps) =>
    ofKind(steps, 'point')
      .filter(({ settle, load }) => settle === null && load === 1)
      .map((step) => ({ ...step, dwell: 40 })),
  );
  const points = ofKind(sheet.steps, 'point');
  expect(points.map(({ outputs }) => outputs[0]?.volts)).toEqual([5, 9, 20]);
  const { id } = await bench.start(sheet.id);
  const run = await bench.until(id, ({ state }) => ['done', 'stopped', 'held', 'interrupted'].includes(state), 'over');
  expect([run.state, run.says]).toEqual(['done', '3 of 3 steps done.']);
  for (const { id: step, outputs } of points) {
    const [volts, amps] =
      /C1 ([\d.]+) V ([\d.]+) A/
        .exec(run.outcomes[step]?.says ?? '')
        ?.slice(1)
        .map(Number) ?? [];
    expect(Math.abs((volts ?? 0) / (outputs[0]?.volts ?? 1) - 1)).toBeLessThan(0.03);
    expect(Math.abs((amps ?? 0) / (outputs[0]?.amps ?? 1) - 1)).toBeLessThan(0.01);
  }
});
