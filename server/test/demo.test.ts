import { judgeSample } from '@lastmark/core/verdict';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seedDemo } from '../src/demo/seed.ts';
import { getDossier, toJudge } from '../src/samples/dossier.ts';
import { listSamples } from '../src/samples/shelf.ts';
import { type Harness, startHarness } from './harness.ts';

let harness: Harness;
let other: Harness;
beforeAll(async () => {
  harness = await startHarness('demo_one');
  other = await startHarness('demo_two');
  await seedDemo(harness.db);
  await seedDemo(other.db);
});
afterAll(async () => {
  await harness.stop();
  await other.stop();
});

const rows = async ({ db }: Harness) => (await listSamples(db, { size: 50 })).items;
const verdictOf = async (model: string) => {
  const row = (await rows(harness)).find((one) => one.model === model);
  const dossier = await getDossier(harness.db, row?.id ?? '');
  return { dossier, verdict: judgeSample(toJudge(dossier)) };
};

describe('the demo shelf', () => {
  it('is filled once, and only when empty', async () => {
    expect(await seedDemo(harness.db)).toBe(false);
    expect(await rows(harness)).toHaveLength(8);
  });

  it('is the same every time', async () => {
    const plain = (list: Awaited<ReturnType<typeof rows>>) => list.map(({ updatedAt: _when, ...row }) => row);
    expect(plain(await rows(harness))).toEqual(plain(await rows(other)));
  });

  it('has three wall chargers with efficiency and idle measured', async () => {
    const walls = (await rows(harness)).filter(
      ({ kind, figures }) => kind === 'wall' && figures.efficiency && figures.idle,
    );
    expect(walls.map(({ model }) => model).sort()).toEqual(['Ember 45', 'Pip 20', 'Trio 75']);
  });

  it('has an honest charger whose tested claims are proven', async () => {
    const { verdict } = await verdictOf('Ember 45');
    expect(new Set(verdict.claims.map(({ state }) => state))).toEqual(new Set(['proven', 'undefined']));
  });

  it('has one that falls short of its total and says by how much', async () => {
    const { dossier, verdict } = await verdictOf('Trio 75');
    const total = dossier.claims.findIndex(({ promise }) => promise.kind === 'total');
    expect(verdict.claims[total]).toMatchObject({
      state: 'short',
      sentence: expect.stringMatching(/promised 75 W: short by [34]/),
    });
  });

  it('has an idle the wall meter cannot resolve', async () => {
    const { verdict } = await verdictOf('Pip 20');
    expect(verdict.figures.idle).toMatchObject({ below: true, value: 0.2 });
  });
});
