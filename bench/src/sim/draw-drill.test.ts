// Drills are drawn by seed; what hides fits what it hides in, and shows at the instruments.
import { DRILL_FAULTS, DRILL_LEVELS, type DrillLevel, drillLevel } from '@lastmark/core/drill';
import { describe, expect, it } from 'vitest';
import { ScpiClient } from '../scpi/index.ts';
import { overSocket } from '../ways/index.ts';
import {
  benchParts,
  CHARGER_FAULTS,
  cablesOn,
  drawDrill,
  RIG_LEAD,
  rigWith,
  seededCable,
  seededCharger,
  startRack,
} from './index.ts';

const SEEDS = Array.from({ length: 30 }, (_one, at) => at + 1);
const levelOf = (id: string): DrillLevel => {
  const level = drillLevel(id);
  if (!level) throw new Error(id);
  return level;
};

describe('a drill', () => {
  it.each(DRILL_LEVELS.map(({ id }) => id))('of level %s is what it says, the same for a seed', (id) => {
    const level = levelOf(id);
    for (const seed of SEEDS) {
      const drawn = drawDrill(level, seed);
      expect(drawDrill(level, seed)).toEqual(drawn);
      // It can be built, and every fault in it can be named.
      const { chargers, cables } = benchParts(drawn);
      expect(chargers).toHaveLength(level.chargers.length);
      expect(cables).toHaveLength(level.cables.length);
      for (const [at, { truth, faults }] of chargers.entries()) {
        const [low, high] = level.chargers[at]?.faults ?? [0, 0];
        expect(faults.length).toBeGreaterThanOrEqual(low);
        expect(faults.length).toBeLessThanOrEqual(high);
        expect(truth.ports.length).toBeGreaterThanOrEqual(level.chargers[at]?.ports ?? 1);
        for (const fault of faults) expect(level.among).toContain(fault.id);
      }
      expect(drawn.rig.length).toBeLessThanOrEqual(level.rig > 0 ? 1 : 0);
      if (level.rig === 1) expect(drawn.rig).toHaveLength(1);
      const names = [...chargers, ...cables].map(({ truth }) => truth.name);
      expect(new Set(names).size).toBe(names.length);
      expect(names.join(' ')).not.toMatch(/\d{4}/);
    }
  });
  it('draws every fault of its level sooner or later, and a sound one where it may', () => {
    const drawn = Array.from(
      { length: 120 },
      (_one, at) => drawDrill(levelOf('perhaps'), at).chargers[0]?.faults ?? [],
    );
    expect(new Set(drawn.flat())).toEqual(new Set(levelOf('perhaps').among));
    expect(drawn.filter((faults) => faults.length === 0).length).toBeGreaterThan(30);
    const rigs = new Set(Array.from({ length: 40 }, (_one, at) => drawDrill(levelOf('rig'), at).rig[0]));
    expect(rigs.size).toBe(3);
  });
  it('has a catalogue that says of every fault what is true and what shows it', () => {
    const known = new Set(DRILL_FAULTS.map(({ id }) => id));
    for (const { id, says, caughtBy } of CHARGER_FAULTS) {
      expect(known).toContain(id);
      expect(says.length * caughtBy.length).toBeGreaterThan(0);
    }
    for (const { among } of DRILL_LEVELS) for (const id of among) expect(known).toContain(id);
  });
});

describe('a seeded cable', () => {
  it('is sound unless a fault hides in it, and keeps its marker', () => {
    const total = (faults: readonly string[]) => {
      const { copperOhms, contactOhms } = seededCable({ seed: 9, faults }).truth;
      return copperOhms + contactOhms;
    };
    // A volt less 0.25 of it may go in the line at 5 A: 50 mΩ a volt; sound ones lie far below twice the worn.
    expect(total([])).toBeLessThan(0.125);
    expect(total(['wrong marker'])).toBeGreaterThan(0.2);
    expect(total(['worn contacts'])).toBeGreaterThan(0.19);
    expect(seededCable({ seed: 9, faults: ['wrong marker'] }).truth.marker).toEqual(
      seededCable({ seed: 9 }).truth.marker,
    );
  });
});

describe('a rig that is wrong', () => {
  it('has a lead with more resistance, and other cables as they were', () => {
    const ohms = (faults: readonly string[], name: string) =>
      cablesOn(rigWith(faults)).find((one) => one.name === name)?.contactOhms ?? Number.NaN;
    expect(ohms(['worn lead'], RIG_LEAD) - ohms([], RIG_LEAD)).toBeCloseTo(0.125, 9);
    expect(ohms(['worn lead'], '60 W, 1 m')).toBe(ohms([], '60 W, 1 m'));
  });
  it('reads two parts in a hundred too much at the port, stands still, and shows what a display says', async () => {
    const withPorts = (several: boolean) =>
      SEEDS.find((seed) => seededCharger({ seed }).truth.ports.length > 1 === several) ?? 0;
    const { chargers, rig } = benchParts({
      chargers: [
        { seed: withPorts(false), name: 'Plain' },
        { seed: withPorts(true), faults: ['lying display'], name: 'Shown' },
      ],
      rig: ['meter out of calibration', 'frozen meter'],
    });
    const rack = await startRack({
      firstPort: 0,
      speed: 1,
      seed: 1,
      rig,
      chargers: chargers.map(({ truth }) => truth),
    });
    const clients: ScpiClient[] = [];
    const speak = (port: number) => {
      const client = new ScpiClient({ way: overSocket('127.0.0.1', port) });
      client.open();
      clients.push(client);
      return client;
    };
    try {
      const hand = speak(rack.ports.control);
      await expect.poll(() => hand.state).toBe('up');
      await hand.confirm('BENC:CHAR "Shown"');
      expect(await hand.query('BENC:CHAR?')).toBe('"Shown"');
      const analyser = speak(rack.ports['power-analyser']);
      await expect.poll(() => analyser.state).toBe('up');
      const before = Number(await analyser.query('MEAS:POW?'));
      const { label } = rack.bench.charger.ports[0] ?? { label: '' };
      rack.bench.setSupply({ on: true });
      rack.bench.plug(label, true);
      rack.bench.setLoad(label, { amps: 1, on: true });
      // The analyser answers what it answered first.
      expect(Number(await analyser.query('MEAS:POW?'))).toBe(before);
      const { volts, amps } = rack.bench.port(label);
      const meter = speak(rack.ports.multimeter);
      await expect.poll(() => meter.state).toBe('up');
      expect(Number(await meter.query('MEAS:VOLT? 1')) / volts).toBeCloseTo(1.02, 2);
      expect(Number(await hand.query('BENC:DISP?')) / (volts * amps)).toBeCloseTo(1.125, 3);
      await hand.confirm('BENC:FAUL power-analyser,none');
      expect(Number(await analyser.query('MEAS:POW?'))).toBeGreaterThan(before + 3);
      await hand.confirm('BENC:CHAR "Plain"');
      expect(await hand.query('BENC:DISP?')).toBe('NONE');
    } finally {
      for (const client of clients) client.close();
      await rack.close();
    }
  });
});
