import { describe, expect, it } from 'vitest';
import type { ClaimResult } from '../claim/index.ts';
import type { ClaimTest } from '../evidence/index.ts';
import { methodOf } from '../plan/index.ts';
import type { Claim, ClaimDuration, Promised } from '../promise/index.ts';
import { dossierFor, US } from '../testing/verdict.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { judgeSample } from '../verdict/index.ts';
import { decidedChance, metersOf, type NextSource, nextSteps, sheetOf, stepsFor, wholeSheet } from './index.ts';

const claim = (id: string, promise: Promised, duration: ClaimDuration = { kind: 'unstated' }): Claim => ({
  id,
  promise,
  duration,
  printed: 'label',
});
const line = (volts: number, amps: number): Promised => ({ kind: 'port-line', port: 'C1', volts, amps });
const untested = (claimId: string, part: Partial<ClaimResult> = {}): ClaimResult => ({
  claimId,
  state: 'not tested',
  sentence: '',
  notes: [],
  unstated: [],
  tests: [],
  ...part,
});
const spec = (readingPercent: number, offset = 0) => ({ ...NO_SPEC, readingPercent, offset });
const INSTRUMENTS = [
  { id: 'w', name: 'w', specs: { power: spec(0.1, 0.001) }, sees: null },
  { id: 'v', name: 'v', specs: { voltage: spec(0.05, 0.002) }, sees: null },
  { id: 'a', name: 'a', specs: { current: spec(0.1, 0.002) }, sees: null },
  { id: 'cheap', name: 'cheap', specs: { power: spec(2, 0.5) }, sees: null },
  { id: 'nameless', name: 'nameless', specs: {}, sees: null },
];
const rig = (name: string, mains = 'w') => ({
  name,
  meters: { mains, outputVolts: 'v', outputAmps: 'a', loadEnd: null },
});
const method = methodOf('regulatory-pair');

function source(claims: readonly Claim[], part: Partial<NextSource> = {}): NextSource {
  if (!method) throw new Error('no method');
  return {
    steps: wholeSheet(method, dossierFor({ claims, setups: [] })),
    claims,
    results: claims.map(({ id }) => untested(id)),
    devices: [],
    rig: rig('Bench'),
    rigs: [rig('Bench')],
    instruments: INSTRUMENTS,
    rules: { rule: 'guarded', allowance: 0.02, tolerance: null, continuous: 3600 },
    ...part,
  };
}

describe('the chance that a reading decides', () => {
  const least = { kind: 'at-least', low: 100 } as const;
  const sure = (mean: number, sd = 0) => [{ weight: 1, mean, sd }];
  it('is what two tails of a normal distribution are, by hand', () => {
    // X ~ N(104, 1), U = 2: proven above 102, refuted below 98: 1 − Φ(−2) + Φ(−6).
    expect(decidedChance(least, sure(104), 2)).toBeCloseTo(0.97725, 4);
    // A belief of its own widens it: sd √(3² + 1²); P(X > 102) + P(X < 98).
    expect(decidedChance(least, sure(104, 3), 2)).toBeCloseTo(0.736455 + 0.028887, 4);
    // Exactly at its limit a meter decides one time in twenty by chance.
    expect(decidedChance(least, sure(100), 2)).toBeCloseTo(0.0455, 3);
  });
  it('of a band narrower than U is never that it is proven', () => {
    const band = { kind: 'within', low: 4.9, high: 5.1 } as const;
    expect(decidedChance(band, sure(5), 0.2)).toBeCloseTo(0.0027, 3);
    expect(decidedChance(band, sure(5), 0.02)).toBeCloseTo(1, 6);
  });
  it('of an unknown U is nought, of a simple rule one', () => {
    expect(decidedChance(least, sure(104), Number.POSITIVE_INFINITY)).toBe(0);
    expect(decidedChance(least, sure(104), Number.NaN)).toBe(0);
    expect(decidedChance(least, sure(104), -1)).toBe(0);
    expect(decidedChance(least, sure(104), 50, { rule: 'simple' })).toBe(1);
    expect(decidedChance(least, sure(104), 0)).toBe(1);
  });
});

describe('the meters of a rig', () => {
  it('know a value as their accuracy says, not at all without one, and nothing without a meter', () => {
    const meters = metersOf(rig('Bench'), INSTRUMENTS);
    // 0.1 % of 20 W and 1 mW, rectangular, twice.
    expect(meters('watts', 20)).toBeCloseTo((2 * 0.021) / Math.sqrt(3), 9);
    expect(metersOf(rig('Bench', 'nameless'), INSTRUMENTS)('watts', 20)).toBe(Number.POSITIVE_INFINITY);
    expect(metersOf(rig('Bench', 'gone'), INSTRUMENTS)('watts', 20)).toBeNull();
  });
});

describe('what to measure next', () => {
  const claims = [
    claim('short', line(20, 2.25)),
    claim('idle', { kind: 'idle', watts: 0.075, mains: null }),
    claim('average', { kind: 'average-efficiency', ratio: 0.88, mains: US }),
    claim('words', { kind: 'wording', text: 'Calm power' }),
  ];
  it('is what settles most a second: seconds before minutes before hours', () => {
    const { works, open, stuck } = nextSteps(source(claims));
    expect(works.map(({ settles }) => settles.map(({ claimId }) => claimId))).toEqual([
      ['short'],
      ['idle'],
      ['average'],
    ]);
    expect(works[0]?.seconds).toBeLessThan(60);
    expect(works[2]?.title).toMatch(/^Four points and their warm-up: C1 20 V 2.25 A at 115 V 60 Hz/);
    // The warm-up and four points, and the other supply is set.
    expect(works[2]?.stepIds).toHaveLength(5);
    expect([open, stuck.map(({ claimId }) => claimId)]).toEqual([4, ['words']]);
    for (const { settles } of works) for (const { chance } of settles) expect(chance).toBeGreaterThan(0.5);
  });
  it('leaves out what is settled', () => {
    const results = claims.map(({ id }) => untested(id, { state: id === 'idle' ? 'not tested' : 'proven' }));
    const { works, open } = nextSteps(source(claims, { results }));
    expect([works.length, open]).toEqual([1, 1]);
    expect(nextSteps(source([]))).toEqual({ works: [], stuck: [], open: 0 });
  });
  it('pays a shared step once, and what comes along for nothing with it', () => {
    const twice = [
      claim('line', line(20, 2.25)),
      claim('first', { kind: 'average-efficiency', ratio: 0.88, mains: US }),
      claim('second', { kind: 'average-efficiency', ratio: 0.86, mains: US }),
    ];
    const { works } = nextSteps(source(twice));
    expect(works.map(({ settles }) => settles.length)).toEqual([1, 2]);
  });
  it('says what would decide where time would not: an accuracy, a better meter, the rig that has it', () => {
    const idle = [claim('idle', { kind: 'idle', watts: 0.075, mains: null })];
    const cheap = nextSteps(source(idle, { rig: rig('Desk', 'cheap'), rigs: [rig('Desk', 'cheap'), rig('Bench')] }));
    expect(cheap.works).toEqual([]);
    expect(cheap.stuck[0]?.why).toMatch(
      /^The meter knows it to ± 0\.58 W; one that knows it to ± .* would decide, more time would not\./,
    );
    expect(cheap.stuck[0]?.why).toContain('The rig “Bench” has it.');
    const nameless = nextSteps(source(idle, { rig: rig('Desk', 'nameless'), rigs: [] }));
    expect(nameless.stuck[0]?.why).toBe('State the accuracy of its meter for power at Bench first.');
  });
  const near = (part: Partial<ClaimTest>): ClaimResult =>
    untested('idle', {
      state: 'borderline',
      tests: [
        {
          quantity: 'power',
          limit: { kind: 'at-most', high: 0.075 },
          value: 0.074,
          expanded: 0.003,
          unstated: [],
          state: 'borderline',
          probability: 0.7,
          evidence: { kind: 'load', interval: null, conditions: '', pointIds: [] },
          ...part,
        },
      ],
    });
  const idleOnly = [claim('idle', { kind: 'idle', watts: 0.075, mains: null })];
  it('a borderline value read by the same meter again stays what it is: a better meter is asked for', () => {
    const { works, stuck } = nextSteps(source(idleOnly, { results: [near({})], rig: rig('Desk', 'cheap'), rigs: [] }));
    expect(works).toEqual([]);
    expect(stuck[0]?.why).toContain('a better meter would decide, more time would not');
  });
  it('one whose uncertainty is mostly scatter asks for repeats, as many as it takes', () => {
    // U = 3 mW of which 1.45 mW is scatter; the meter alone 0.77 mW expanded, the limit 1 mW away.
    const results = [near({ scatter: 0.00145 })];
    const { works, stuck } = nextSteps(source(idleOnly, { results, rig: rig('Desk', 'cheap'), rigs: [] }));
    const says = works[0]?.settles[0]?.remedy?.says ?? stuck[0]?.why ?? '';
    // (2·1.45)²/(1² − 0.77²) = 20.6: too many; nearer than that a better meter is the way.
    expect(says).toContain('a better meter');
    const apart = [near({ value: 0.073, scatter: 0.00145 })];
    const told = nextSteps(source(idleOnly, { results: apart, rig: rig('Desk', 'cheap'), rigs: [] }));
    // (2·1.45)²/(2² − 0.77²) = 2.5.
    expect(told.works[0]?.settles[0]?.remedy?.says ?? told.stuck[0]?.why).toContain(
      '3 times as many repeats would decide',
    );
  });
  it('what an analyser cannot see it cannot settle', () => {
    const signal = [claim('mode', { kind: 'signal', port: 'C1', mode: 'x', title: 'X' })];
    const results = [untested('mode', { state: 'not visible' })];
    expect(nextSteps(source(signal, { results })).stuck[0]?.why).toContain(
      'read it out with one whose firmware knows it',
    );
  });
});

describe('the steps that settle a promise', () => {
  const asked = (claims: readonly Claim[]) => ({
    steps: source(claims).steps,
    continuous: 3600,
    allowance: 0.02,
    devices: [],
  });
  it('a continuous promise needs its power and its time', () => {
    const total = [claim('line', line(20, 3)), claim('total', { kind: 'total', watts: 60 }, { kind: 'continuous' })];
    const steps = stepsFor(total[1] as Claim, asked(total));
    expect(steps.map(({ kind }) => kind)).toEqual(['point', 'capture']);
    expect(steps[1]?.dwell).toBeGreaterThanOrEqual(3600);
  });
  it('an average at a supply takes that supply, and none where the sheet has none', () => {
    const own = (volts: number, hertz: number): Claim =>
      claim('a', { kind: 'average-efficiency', ratio: 0.88, mains: { kind: 'ac', volts, hertz } });
    const all = [claim('line', line(20, 3)), own(230, 50)];
    const steps = stepsFor(all[1] as Claim, asked(all));
    expect(steps).toHaveLength(5);
    expect(stepsFor(own(100, 50), asked(all))).toEqual([]);
  });
});

describe('a sheet of some works', () => {
  it('keeps the order of the whole, proves its rig first, and cools after what was long', () => {
    const claims = [claim('line', line(20, 2.25)), claim('hot', { kind: 'surface', celsius: 60 })];
    const one = source(claims);
    const { works } = nextSteps(one);
    const sheet = sheetOf(
      one.steps,
      works.flatMap(({ stepIds }) => stepIds),
    );
    expect(sheet.map(({ kind }) => kind)).toEqual(['rig', 'point', 'capture', 'cool']);
    expect(sheet.map(({ id }) => id)).toEqual(['s1', 's2', 's3', 's4']);
    expect(sheetOf(one.steps, []).map(({ kind }) => kind)).toEqual(['rig']);
  });
  it('of a real dossier settles what it says it settles', () => {
    const claims = [claim('line', line(20, 2.25))];
    const dossier = dossierFor({ claims });
    if (!method) throw new Error('no method');
    const steps = wholeSheet(method, dossier, judgeSample(dossier));
    const [step] = stepsFor(claims[0] as Claim, { steps, continuous: 3600, allowance: 0.02, devices: [] });
    expect(step).toMatchObject({ kind: 'point', station: 'proof', load: 1 });
  });
});
