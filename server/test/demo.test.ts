import type { StoredComparison } from '@lastmark/contract';
import { describePromise } from '@lastmark/core/claim';
import { EVERYTHING, edgeOf, firstOf, populationOf, reignsOf } from '@lastmark/core/compare';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import { judgeSample } from '@lastmark/core/verdict';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lookAtSet } from '../src/compare/set.ts';
import { listComparisons } from '../src/compare/store.ts';
import { PROOF_LINE_OHMS } from '../src/demo/proof-world.ts';
import { seedDemo } from '../src/demo/seed.ts';
import { getDossier } from '../src/dossier/dossier.ts';
import { toJudge } from '../src/dossier/judged.ts';
import { getProfile } from '../src/profile/store.ts';
import { workOutFigures } from '../src/shelf/figures.ts';
import { listSamples } from '../src/shelf/shelf.ts';
import { listTrials } from '../src/trials/store.ts';
import { type Harness, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  // Filled in by the built server, with a bench beside it.
  harness = await startHarness('demo_one', { demo: true });
});
afterAll(() => harness.stop());

const rows = async ({ db }: Harness) => (await listSamples(db, { size: 50 })).items;
const verdictOf = async (model: string) => {
  const row = (await rows(harness)).find((one) => one.model === model);
  const dossier = await getDossier(harness.db, row?.id ?? '');
  return { dossier, verdict: judgeSample(toJudge(dossier)) };
};

describe('the demo shelf', () => {
  it('is filled once, and only when empty', async () => {
    expect(await seedDemo(harness.db)).toBe(false);
    expect(await rows(harness)).toHaveLength(40);
  });

  it('has cables of every fate, and two trials', async () => {
    const cables = (await rows(harness)).filter(({ kind }) => kind === 'cable');
    expect(cables).toHaveLength(12);
    const stateOf = async (model: string, kind: string) => {
      const { dossier, verdict } = await verdictOf(model);
      return verdict.claims[dossier.claims.findIndex(({ promise }) => promise.kind === kind)]?.state;
    };
    expect(await stateOf('Tether 60', 'cable-rating')).toBe('proven');
    expect(await stateOf('Tether 240', 'cable-rating')).toBe('proven');
    expect(await stateOf('Hawser 240', 'cable-rating')).toBe('short');
    expect(await stateOf('Long Line', 'cable-rating')).toBe('short');
    const worn = await getDossier(harness.db, cables.find(({ serial }) => serial === 'BC-0031')?.id ?? '');
    const { bends } = judgeSample(toJudge(worn)).results;
    expect(bends.wear.map(({ worn: one }) => one)).toEqual([false, false, true]);
    expect(bends.failed).toEqual({ count: 7000, fault: 'intermittent under wiggle' });
    expect((await listTrials(harness.db, undefined)).map(({ done, planned }) => [done, planned])).toEqual([
      [27, 36],
      [20, 20],
    ]);
  });

  it('has three wall chargers with efficiency and idle measured', async () => {
    const walls = (await rows(harness)).filter(
      ({ kind, figures }) => kind === 'wall' && figures.efficiency && figures.idle,
    );
    const models = walls.map(({ model }) => model);
    for (const model of ['Ember 45', 'Pip 20', 'Trio 75']) expect(models).toContain(model);
  });

  it('has two comparisons, and something to say in each picture', async () => {
    while (await workOutFigures(harness.db, 100));
    const kept = await listComparisons(harness.db);
    expect(kept.map(({ title }) => title).sort()).toEqual(['45 W, unit by unit', 'Wall chargers for the huts']);
    const [lot, wall] = [
      kept.find(({ title }) => title.startsWith('45')),
      kept.find(({ title }) => title.startsWith('Wall')),
    ];
    if (!lot || !wall) throw new Error('One is missing.');
    const columnsOf = async ({ rule, measures }: StoredComparison) => {
      const set = await lookAtSet(harness.db, rule, measures);
      const of = (measure: string) => {
        const column = set.columns.find((one) => one.measure === measure);
        return (column?.of ?? []).map((place, at) => ({
          member: set.members[place],
          id: set.members[place]?.model ?? '',
          value: column?.value[at] ?? 0,
          u: column?.u[at] ?? null,
          common: column?.common[at] ?? 0,
          meters: String(column?.meters[at]),
          below: false,
          at: column?.at[at] ?? null,
        }));
      };
      return { set, of };
    };
    const walls = await columnsOf(wall);
    const idsIn = ({ members }: { members: readonly { id: string }[] }) => members.map(({ id }) => id).sort();
    // Nothing has changed on the shelf since they were kept.
    expect(idsIn(walls.set)).toEqual(wall.members);
    expect(idsIn((await columnsOf(lot)).set)).toEqual(lot.members);
    // The first of 2024 was ousted; what came later is level with what ousted it.
    const reigns = reignsOf(walls.of('average-efficiency'), 'more');
    expect(reigns.map(({ id }) => id)).toEqual(['Reef 65', 'Ember 65']);
    // Light ones lose more: the edge has more than one on it.
    const mass = new Map(walls.of('mass-per-watt').map(({ id, value }) => [id, value]));
    const pairs = walls.of('full-load-loss').map(({ id, value }) => [mass.get(id) ?? 0, value] as const);
    expect(edgeOf(pairs, 'less', 'less').length).toBeGreaterThan(2);
    // Desks that cannot be told apart.
    const desks = await lookAtSet(harness.db, { ...EVERYTHING, kinds: ['desktop'] }, [
      { measure: 'idle', condition: '230 V 50 Hz' },
    ]);
    const idles = (desks.columns[0]?.value ?? []).map((value, at) => ({
      id: String(at),
      value,
      u: desks.columns[0]?.u[at] ?? null,
      common: desks.columns[0]?.common[at] ?? 0,
      meters: String(desks.columns[0]?.meters[at]),
      below: false,
      at: null,
    }));
    expect(firstOf(idles, 'less').called).toBe(false);
    // One bad unit of six.
    const units = (await columnsOf(lot)).of('idle').filter(({ id }) => id === 'Duo 45');
    const told = populationOf(
      units.map(({ member, value, u }) => ({ id: member?.serial ?? '', value, u, group: member?.group ?? '' })),
      'less',
    );
    expect([units.length, told?.odd.map(({ id }) => id)]).toEqual([6, ['PD-2505']]);
    expect(told?.groups).toHaveLength(2);
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

  it('has a state for every kind of evidence', async () => {
    const stateOf = async (model: string, text: string) => {
      const { dossier, verdict } = await verdictOf(model);
      const index = dossier.claims.findIndex(({ promise }) => describePromise(promise) === text);
      return verdict.claims[index]?.state;
    };
    expect(await stateOf('Trio 75', 'C1: SPR AVS 9–20 V 3.75 A')).toBe('not visible');
    expect(await stateOf('Quad 130', 'C1: 12 V 3 A')).toBe('unreachable');
    expect(await stateOf('Shuttle 75', 'C1: PPS 3.3–16 V 3 A')).toBe('unreachable');
    expect(await stateOf('Monolith 180', 'C1: EPR AVS 15–36 V 5 A')).toBe('proven');
    expect(await stateOf('Monolith 180', 'C1: PPS 3.3–21 V 5 A')).toBe('advertised only');
    expect(await stateOf('Shuttle 75', 'Total 75 W')).toBe('at least');
    expect(await stateOf('Quad 130', 'C1 + C2: 65 + 65 W')).toBe('short');
  });

  it('has a lead whose resistance the steps give back, and a display that is off', async () => {
    const { verdict } = await verdictOf('Quad 130');
    const [chain] = verdict.results.proof.chains;
    const { resistance } = chain ?? {};
    if (!resistance) throw new Error('no resistance');
    expect(Math.abs(resistance.value - PROOF_LINE_OHMS)).toBeLessThan(expandedUncertainty(resistance));
    expect(chain?.findings.join()).toContain('the display stands alone');
  });

  it('has a timer, a thermal fold-back and a cut-off above the rating', async () => {
    expect((await verdictOf('Pip 20')).verdict.results.proof.holds[0]?.cause).toBe('timer');
    expect((await verdictOf('Trio 75')).verdict.results.proof.holds[0]?.cause).toBe('thermal');
    const { overs, moves } = (await verdictOf('Monolith 180')).verdict.results.proof;
    expect(overs[0]).toMatchObject({ end: 'cut off', highest: 5.45, trip: 5.6 });
    expect(moves[0]?.state).toBe('proven');
    expect((await getProfile(harness.db)).overRating.on).toBe(false);
  });

  it('has an idle the wall meter cannot resolve', async () => {
    const { verdict } = await verdictOf('Pip 20');
    expect(verdict.figures.idle).toMatchObject({ below: true, words: 'below 0.231 W' });
  });
});
