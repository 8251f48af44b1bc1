import type { Sample } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { samples } from '../src/db/schema.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let pair: [Sample, Sample];
beforeAll(async () => {
  harness = await startHarness('collisions');
  const make = makers(harness);
  pair = [await make.sample(), await make.sample()];
});
afterAll(() => harness.stop());

it('two transactions that wait for each other both succeed, one of them at a second try', async () => {
  const [left, right] = pair;
  let tries = 0;
  let waiting = 0;
  let meet: () => void = () => undefined;
  const bothHold = new Promise<void>((resolve) => {
    meet = resolve;
  });
  const work = (first: Sample, second: Sample, version: number) =>
    harness.db.transaction(async (tx) => {
      tries += 1;
      await tx.update(samples).set({ version }).where(eq(samples.id, first.id));
      waiting += 1;
      if (waiting === 2) meet();
      // The first time each holds one row before it asks for the other's.
      await bothHold;
      await tx.update(samples).set({ version }).where(eq(samples.id, second.id));
      return version;
    });
  expect(await Promise.all([work(left, right, 7), work(right, left, 8)])).toEqual([7, 8]);
  expect(tries).toBe(3);
  const rows = await harness.db.select({ version: samples.version }).from(samples);
  expect(new Set(rows.map(({ version }) => version)).size).toBe(1);
});

it('any other failure is told at once', async () => {
  let tries = 0;
  const failing = harness.db.transaction(async () => {
    tries += 1;
    throw new Error('no');
  });
  await expect(failing).rejects.toThrow('no');
  expect(tries).toBe(1);
});
