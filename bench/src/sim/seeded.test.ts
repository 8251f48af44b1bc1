// A seeded charger is sound unless a fault hides in it; each fault shows in what is measured, and in nothing that is printed.
import { parseClaimLine } from '@lastmark/core/promise';
import { describe, expect, it } from 'vitest';
import {
  CABLES,
  CHARGER_FAULTS,
  type ChargerTruth,
  HandClock,
  idleMean,
  named,
  readBench,
  SimulatedBench,
  seededCharger,
} from './index.ts';

const SEEDS = Array.from({ length: 60 }, (_one, at) => at + 1);
const lead = named(CABLES, '240 W, 1 m');
if (!lead) throw new Error('no cable');

function benchOf(truth: ChargerTruth) {
  const clock = new HandClock();
  const one = new SimulatedBench(truth, lead as NonNullable<typeof lead>, clock);
  one.setSupply({ on: true });
  return { one, clock };
}
/** Volts and amps of a port alone at its last level and a current. */
function drawn(truth: ChargerTruth, at: number, seconds = 0) {
  const { one, clock } = benchOf(truth);
  const port = truth.ports.at(at);
  if (!port) throw new Error('no port');
  const top = port.offers.at(-1);
  if (top?.kind !== 'fixed') throw new Error('no level');
  one.plug(port.label, true);
  const granted = one.request(port.label, port.offers.length, null);
  one.setLoad(port.label, { amps: top.amps, on: true });
  for (let at60 = 0; at60 < seconds; at60 += 60) clock.advance(60);
  const { volts, amps } = one.port(port.label);
  return { granted, volts, amps, watts: volts * amps, asked: top.volts * top.amps, level: top.volts };
}

describe('a seeded charger', () => {
  it('is the same for the same seed and another for another', () => {
    expect(seededCharger({ seed: 7 })).toEqual(seededCharger({ seed: 7 }));
    expect(new Set(SEEDS.map((seed) => JSON.stringify(seededCharger({ seed }).truth))).size).toBe(SEEDS.length);
  });
  it.each(SEEDS)('%i has a label that is read line by line, and keeps it', (seed) => {
    const { truth, label } = seededCharger({ seed });
    for (const line of label) {
      const read = parseClaimLine(
        line,
        truth.ports.map(({ label: port }) => port),
      );
      expect([line, 'promises' in read && read.promises.length > 0]).toEqual([line, true]);
    }
    for (let at = 0; at < truth.ports.length; at += 1) {
      const { granted, watts, asked, volts, level } = drawn(truth, at);
      expect(granted).toBe(true);
      expect(watts).toBeGreaterThan(asked * 0.98);
      expect(Math.abs(volts - level) / level).toBeLessThan(0.05);
    }
  });
  it('cannot have what it cannot have, and what nobody knows', () => {
    const single = SEEDS.find((seed) => seededCharger({ seed }).truth.ports.length === 1) ?? 0;
    expect(() => seededCharger({ seed: single, faults: ['oversold split'] })).toThrow('cannot have the fault');
    expect(() => seededCharger({ seed: 1, faults: ['haunted'] })).toThrow(
      'There is no fault “haunted”. There are: refused level, weak port',
    );
  });
});

describe('a fault', () => {
  const seed = SEEDS.find((one) => {
    const { truth } = seededCharger({ seed: one });
    return truth.ports.length > 1 && truth.nameplate === 100;
  }) as number;
  const sound = seededCharger({ seed }).truth;
  const faulty = (id: string) => seededCharger({ seed, faults: [id] });
  it.each(CHARGER_FAULTS.map(({ id }) => id))('%s leaves the label as it was', (id) => {
    expect(faulty(id).label).toEqual(seededCharger({ seed }).label);
    expect(faulty(id).truth).not.toEqual(sound);
  });
  it('refused level: what is listed is not given', () =>
    expect(drawn(faulty('refused level').truth, 0).granted).toBe(false));
  it('weak port: the last port gives less, the first as much', () => {
    const { truth } = faulty('weak port');
    expect(drawn(truth, -1).watts).toBeLessThan(0.9 * drawn(sound, -1).watts);
    expect(drawn(truth, 0).watts).toBeCloseTo(drawn(sound, 0).watts, 6);
  });
  it('sagging level: a loaded level leaves its tolerance', () => {
    const { one } = benchOf(faulty('sagging level').truth);
    one.plug('C1', true);
    one.setLoad('C1', { amps: 3, on: true });
    expect(one.port('C1').volts).toBeLessThan(4.75);
  });
  it('timer: a glance sees the whole power, a hold does not', () => {
    const { truth } = faulty('timer');
    expect(drawn(truth, 0).watts).toBeGreaterThan(0.97 * Math.min(100, truth.nameplate));
    expect(drawn(truth, 0, 600).watts).toBeLessThan(drawn(sound, 0, 600).watts * 0.99);
  });
  it('throttles when hot: neither a glance nor a warm-up shows it, an hour does', () => {
    for (const one of SEEDS.slice(0, 20)) {
      const { truth } = seededCharger({ seed: one, faults: ['throttles when hot'] });
      const { asked } = drawn(truth, 0);
      expect([one, drawn(truth, 0, 1500).watts > 0.95 * asked]).toEqual([one, true]);
      expect([one, drawn(truth, 0, 3540).watts < 0.8 * asked]).toEqual([one, true]);
    }
  });
  it('oversold split: together the ports give less than is printed', () => {
    const [own] = faulty('oversold split').truth.allocations;
    const [was] = sound.allocations;
    for (const port of was?.ports ?? []) expect(own?.watts[port]).toBeCloseTo(0.75 * (was?.watts[port] ?? 0), 9);
  });
  it('heavy idle: the mean draw is several times as high', () =>
    expect(idleMean(faulty('heavy idle').truth.idle)).toBeGreaterThan(2.5 * idleMean(sound.idle)));
  it('lossy: what is printed is not reached, which the sound one does with room', () => {
    const averageOf = (truth: ChargerTruth): number => {
      const port = truth.ports[0];
      const top = port?.offers.at(-1);
      if (!port || top?.kind !== 'fixed') throw new Error('no level');
      const loads = [1, 0.75, 0.5, 0.25].map((load) => {
        const { one } = benchOf(truth);
        one.plug(port.label, true);
        one.request(port.label, port.offers.length, null);
        one.setLoad(port.label, { amps: load * top.amps, on: true });
        const { volts, amps } = one.port(port.label);
        return (volts * amps) / one.input().watts;
      });
      return loads.reduce((sum, each) => sum + each, 0) / 4;
    };
    for (const one of SEEDS) {
      const { truth, label } = seededCharger({ seed: one });
      const printed = Number(/efficiency (\d+) %/.exec(label.join('\n'))?.[1]) / 100;
      expect(averageOf(truth)).toBeGreaterThan(printed + 0.012);
      expect(averageOf(seededCharger({ seed: one, faults: ['lossy'] }).truth)).toBeLessThan(printed - 0.01);
    }
  });
  it('no sound one falls behind its nameplate', () => {
    for (const one of SEEDS) {
      const { truth } = seededCharger({ seed: one });
      const together = truth.allocations.map(({ watts }) => Object.values(watts).reduce((sum, each) => sum + each, 0));
      const most = Math.max(...together, ...truth.ports.map(({ watts }) => watts));
      expect([one, most]).toEqual([one, Math.max(most, 0.98 * truth.nameplate)]);
    }
  });
  it('lossy: the same output takes more from the wall', () => {
    const input = (truth: ChargerTruth) => {
      const { one } = benchOf(truth);
      one.plug('C1', true);
      one.setLoad('C1', { amps: 3, on: true });
      return one.input().watts;
    };
    expect(input(faulty('lossy').truth)).toBeGreaterThan(input(sound) + 0.5);
  });
});

describe('a list of chargers', () => {
  it('is read, and each wrong entry told by its place', () => {
    const { chargers: read } = readBench('[{ "seed": 3 }, { "seed": 4, "faults": ["lossy"], "name": "Alder 65" }]');
    expect(read.map(({ truth, faults }) => [truth.name, faults.map(({ id }) => id)]).at(1)).toEqual([
      'Alder 65',
      ['lossy'],
    ]);
    expect(() => readBench('{')).toThrow('no JSON');
    expect(() => readBench('7')).toThrow('no list');
    expect(() => readBench('{ "chargers": 7 }')).toThrow('no list');
    expect(() => readBench('{ "meters": [] }')).toThrow('“meters” is nothing a bench has');
    expect(() => readBench('{ "rig": "worn lead" }')).toThrow('Faults of the rig are a list');
    expect(() => readBench('{ "rig": ["haunted"] }')).toThrow('A rig has no fault “haunted”');
    expect(() => readBench('{ "cables": [{ "seed": 1, "faults": ["timer"] }] }')).toThrow(
      'Entry 1: A cable has no fault “timer”',
    );
    expect(readBench('{}')).toEqual({ chargers: [], cables: [], rig: { lead: 0, drift: 1, frozen: null } });
    expect(readBench('{ "rig": ["worn lead"] }').rig.lead).toBe(0.125);
    expect(() => readBench('[{ "seed": 1 }, { "seed": "two" }]')).toThrow('Entry 2 is no charger');
    expect(() => readBench('[{ "seed": 1, "faults": ["haunted"] }]')).toThrow('Entry 1: There is no fault');
    expect(() => readBench('[{ "seed": 1, "name": "A" }, { "seed": 2, "name": "a" }]')).toThrow(
      'Two chargers are called “a”',
    );
    expect(() => readBench('[{ "seed": 1, "name": "\\"; *RST" }]')).toThrow('Entry 1 is no charger');
  });
});
