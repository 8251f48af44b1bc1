// A whole charge as a run: a person plugs the device in, the inline meter logs it, and its end is noticed.
import { BATTERIES, named } from '@lastmark/bench/sim';
import type { SampleDossier, SheetRun, StoredRig } from '@lastmark/contract';
import { ofKind } from '@lastmark/core/plan';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { Hand, plugSimulated } from '../src/demo/hand.ts';
import { SIMULATED_DESK } from '../src/demo/simulated.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let bench: TestRig;
let deviceId: string;
let rigId: string;
const phone = named(BATTERIES, 'Loan phone');
beforeAll(async () => {
  harness = await startHarness('charge_run', { liveEvery: 25 });
  bench = await startRig(harness, 600);
  const { items } = await bench.call<{ items: StoredRig[] }>('get', '/rigs');
  rigId = items.find(({ name }) => name === SIMULATED_DESK)?.id ?? '';
  deviceId = (
    await bench.make.post<{ id: string }>('/devices', {
      name: 'Loan phone',
      kind: 'phone',
      battery: 17.5 * 3600,
      ceilings: [],
      baseline: null,
      note: '',
    })
  ).id;
});
afterEach(() => bench.release());
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

/** A sheet of one charge from a fifth. */
async function sheet(): Promise<string> {
  const made = await bench.call<{ id: string; title: string; steps: Parameters<typeof ofKind>[0] }>(
    'post',
    `/samples/${bench.sample.id}/run-sheets`,
    { methodId: 'charges', rigId },
  );
  const steps = ofKind(made.steps, 'charge')
    .filter((step) => step.deviceId === deviceId)
    .map((step) => ({ ...step, startLevel: 0.2, lead: 'desk cable', after: 600, attended: false }));
  expect(steps).toHaveLength(1);
  await request(harness.app)
    .put(`/api/run-sheets/${made.id}`)
    .set('If-Match', '"v1"')
    .send({ title: made.title, rigId, steps })
    .expect(200);
  return made.id;
}

it('prompts for the plug, logs to the end and after it, and keeps the charge with its level, wall and warmth', async () => {
  if (!phone) throw new Error('no phone');
  const { id } = await bench.start(await sheet());
  const asks = (says: RegExp) =>
    bench.through(id, (run: SheetRun) => run.state === 'waiting' && says.test(run.says), String(says));
  await asks(/^Plug Loan phone into C1 with desk cable, at 20 %, then go on\.$/);
  // Nothing was plugged in: it says so rather than wait for hours.
  await bench.ask(id, { kind: 'go on', person: 'Warden' });
  await asks(/^Nothing flows\. Unplug, wait a moment, plug it in again, then go on\.$/);
  const hand = new Hand(bench.rack.ports.control);
  await expect.poll(() => hand.state()).toMatchObject({ there: true });
  const plug = (device: string | null, port = 'C1') =>
    plugSimulated(harness.db, hand, bench.sample.id, { port, device, level: 0.2, speed: 1 });
  await expect(plug('Kettle')).rejects.toThrow('The simulated bench has no Kettle.');
  await expect(plug('Loan phone', 'C9')).rejects.toThrow('There is no port "C9".');
  expect((await plug('Loan phone')).devices).toContain('Loan phone');
  expect(bench.rack.bench.devices.on('C1')?.level).toBeLessThan(0.3);
  await bench.ask(id, { kind: 'go on', person: 'Warden' });
  // Hours pass only once the charge is watched: nothing of it happens before.
  await bench.through(id, ({ progress }) => /^Charging, /.test(progress?.doing ?? ''), 'charging');
  bench.rack.clock.speed = 300;
  const run = await bench.toItsEnd(id, 'the charge');
  expect(run.says, JSON.stringify(run.outcomes)).toBe('1 of 1 steps done.');
  // It ended by itself, a while after the device was full, and long before its time was over.
  const [outcome] = Object.values(run.outcomes);
  expect([outcome?.found, (outcome?.seconds ?? 0) < 3 * 3600]).toEqual([false, true]);
  const { captures } = await bench.call<SampleDossier>('get', `/samples/${bench.sample.id}/dossier`);
  const [charge] = captures;
  if (charge?.figures.kind !== 'charge') throw new Error('no charge');
  const { figures } = charge;
  expect(charge.charge).toMatchObject({ deviceId, lead: 'desk cable', startLevel: 0.2 });
  // Four fifths of what a whole charge takes, by an inline meter.
  expect(Math.abs((figures.energy ?? 0) / ((0.8 * phone.joules) / 3600) - 1)).toBeLessThan(0.04);
  expect(figures.end?.by).toBe('tail');
  expect(figures.level).toBe('energy');
  expect(figures.startLevel).toBeCloseTo(0.2, 6);
  expect(Math.abs((figures.afterFull ?? 0) - phone.trickle)).toBeLessThan(0.1);
  // 21 W take 20 to 50 % of 18 Wh in 15.4 min.
  expect(Math.abs((figures.times[50] ?? 0) / 60 - (0.3 * 18 * 60) / 21)).toBeLessThan(3);
  // More came out of the wall than went in, and the difference is the loss.
  expect(figures.wall?.energy ?? 0).toBeGreaterThan(figures.energy ?? 0);
  expect(figures.warmest.map(({ name }) => name)).toContain('front');
  await plug(null);
  expect(bench.rack.bench.devices.inLine).toBeNull();
  hand.close();
});
