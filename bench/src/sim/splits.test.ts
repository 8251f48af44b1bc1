// What is concluded from noisy sweeps, against the truth of every simulated charger with several ports.

import { usableAmps, voltsOf } from '@lastmark/core/pd';
import { seededNormal, seededRandom } from '@lastmark/core/random';
import { inferRule, predictSplit, type SplitReading, sweepSets } from '@lastmark/core/split';
import { measured } from '@lastmark/core/uncertainty';
import { describe, expect, it } from 'vitest';
import { CABLES, CHARGERS, type ChargerTruth, HandClock, SimulatedBench } from './index.ts';

const SEVERAL = CHARGERS.filter(({ ports }) => ports.length > 1);

/** Load every port of a set to the most its offers give, and read with a meter's noise. */
function sweep(truth: ChargerTruth, sets: readonly (readonly string[])[], seed: number): SplitReading[] {
  const normal = seededNormal(seededRandom(seed));
  const [cable] = CABLES;
  if (!cable) throw new Error('no cable');
  return sets.map((occupied) => {
    const clock = new HandClock();
    const bench = new SimulatedBench(truth, cable, clock);
    bench.setSupply(truth.kind === 'car' ? { on: true, volts: 13.8, hertz: 0 } : { on: true });
    for (const port of occupied) bench.plug(port, true);
    clock.advance(5);
    for (const port of occupied) {
      const best = bench
        .offers(port)
        .map((object, index) => ({ object, position: index + 1, volts: voltsOf(object)?.high ?? 0 }))
        .filter(({ object }) => object.kind === 'fixed')
        .sort((a, b) => b.volts * usableAmps(b.object, b.volts) - a.volts * usableAmps(a.object, a.volts))
        .find(({ position }) => bench.request(port, position, null));
      if (best) bench.setLoad(port, { amps: usableAmps(best.object, best.volts), on: true });
    }
    clock.advance(5);
    const watts = Object.fromEntries(
      occupied.map((port) => {
        const { volts, amps } = bench.port(port);
        const truthWatts = volts * amps;
        return [port, measured(truthWatts * (1 + 0.001 * normal()) + 0.02 * normal(), 0.03 + 0.001 * truthWatts)];
      }),
    );
    return { occupied, light: [], watts, rest: null, total: null, mainsWatts: null, atLeast: false, sourceIds: [] };
  });
}

const labels = ({ ports }: ChargerTruth) => ports.map(({ label }) => label);

describe.each(SEVERAL.map((truth) => [truth.name, truth] as const))('%s', (_name, truth) => {
  const ports = labels(truth);

  it.each([1, 2, 3])('its rule is found from a noisy sweep, seed %i', (seed) => {
    const rule = inferRule(ports, sweep(truth, sweepSets(ports).sets, seed));
    expect(rule.unexplained).toEqual([]);
    expect(rule.open).toEqual([]);
    for (const { ports: set, watts } of truth.allocations) {
      const given = predictSplit(rule, set);
      for (const port of set) {
        const wanted = Math.min(watts[port] ?? 0, truth.ports.find(({ label }) => label === port)?.watts ?? 0);
        // What its offers can make of a share: steps of current and voltage.
        expect(given[port], `${port} with ${set.join('+')}`).toBeGreaterThan(wanted * 0.93 - 0.6);
        expect(given[port], `${port} with ${set.join('+')}`).toBeLessThan(wanted * 1.03 + 0.6);
      }
    }
  });
});

it('three budgets are told apart, and sets nobody measured follow from them', () => {
  const truth = CHARGERS.find(({ name }) => name === 'Six 210') as ChargerTruth;
  const rule = inferRule(labels(truth), sweep(truth, sweepSets(labels(truth)).sets, 7));
  expect(rule.budgets.map(({ ports }) => ports)).toEqual([
    ['C1', 'C2'],
    ['C3', 'C4'],
    ['A1', 'A2'],
  ]);
  expect(rule.sentences[0]).toMatch(/^C1 and C2 share 16\d W/);
  expect(rule.sentences[2]).toBe('A1 and A2 share 15 W evenly; alone A1 12 W, A2 12 W.');
  // Three ports at once were never measured.
  const three = predictSplit(rule, ['C1', 'C3', 'A1']);
  expect(Object.values(three).map((value) => Math.round(value ?? 0))).toEqual([100, 25, 12]);
});

it('a sweep cut short says what is not determined, and the measurement that would decide', () => {
  const truth = CHARGERS.find(({ name }) => name === 'Six 210') as ChargerTruth;
  const few = sweep(truth, [['C1'], ['C2'], ['C3'], ['C1', 'C2']], 7);
  const rule = inferRule(labels(truth), few);
  expect(rule.budgets.map(({ ports }) => ports)).toContainEqual(['C1', 'C2']);
  expect(rule.open.map(({ says }) => says)).toContain('Nothing read tells whether C1 and C3 share.');
  expect(rule.open.find(({ says }) => says.includes('C1 and C3'))?.measure).toEqual(['C1', 'C3']);
  expect(rule.open.map(({ says }) => says)).toContain('A1 was not read at all.');
});
