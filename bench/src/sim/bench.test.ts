import { describeOffer, encodeRequest } from '@lastmark/core/pd';
import { describe, expect, it } from 'vitest';
import { CABLES, CHARGERS, HandClock, idleMean, named, SimulatedBench } from './index.ts';

const bench = (charger: string, cable = '240 W, 1 m') => {
  const clock = new HandClock();
  const truth = named(CHARGERS, charger);
  const lead = named(CABLES, cable);
  if (!truth || !lead) throw new Error('not in this world');
  const one = new SimulatedBench(truth, lead, clock);
  one.setSupply({ on: true });
  return { one, clock, truth };
};
/** Plug in, ask for a position, draw. */
const draw = (one: SimulatedBench, label: string, position: number, amps: number, volts: number | null = null) => {
  one.plug(label, true);
  expect(one.request(label, position, volts)).toBe(true);
  one.setLoad(label, { amps, on: true });
};
const said = (one: SimulatedBench, label: string) => one.offers(label).map(describeOffer);

describe('a port', () => {
  it('is cold until something is plugged in, then gives 5 V, then what is asked for', () => {
    const { one } = bench('Ember 45');
    expect(one.port('C1').volts).toBe(0);
    one.plug('C1', true);
    expect(one.port('C1').volts).toBeCloseTo(5.02, 2);
    draw(one, 'C1', 4, 2.25);
    expect(one.port('C1').volts).toBeCloseTo(20 * 1.004 - 0.02 * 2.25, 6);
    expect(one.port('C1').amps).toBe(2.25);
    expect(one.input().watts).toBeGreaterThan(45);
  });

  it('loses volts along the cable as current and its resistance say', () => {
    const { one } = bench('Ember 45');
    draw(one, 'C1', 4, 2);
    const { volts, endVolts } = one.port('C1');
    expect(volts - endVolts).toBeCloseTo(2 * (0.078 * (1 + 0.00393 * 5) + 0.036), 6);
  });

  it('moves through a range, refuses beyond it, and holds its current limit there', () => {
    const { one } = bench('Ember 45');
    draw(one, 'C1', 5, 1, 9.5);
    expect(one.port('C1').volts).toBeCloseTo(9.5 * 1.004 - 0.02, 6);
    expect(one.request('C1', 5, 18)).toBe(false);
    one.setLoad('C1', { amps: 4 });
    expect(one.port('C1').amps).toBe(3);
    expect(one.port('C1').volts).toBeLessThan(9);
  });

  it('takes a request as a sink sends it on the wire', () => {
    const { one } = bench('Ember 45');
    one.plug('C1', true);
    const word = encodeRequest({
      kind: 'pps',
      position: 5,
      flags: [],
      volts: 11,
      operating: 2,
      most: null,
      reserved: 0,
    });
    expect(one.requestWord('C1', word)).toBe(true);
    expect(one.port('C1').volts).toBeCloseTo(11 * 1.004, 6);
    expect(one.requestWord('C1', 0xf0000000)).toBe(false);
  });

  it('lists a level and refuses it, where that is its nature', () => {
    const { one } = bench('Quad 130');
    one.plug('C1', true);
    expect(said(one, 'C1')).toContain('12 V 3 A');
    expect(one.request('C1', 3, null)).toBe(false);
  });
});

describe('the cable’s marker', () => {
  it('lets 5 A and EPR through only where it says so', () => {
    expect(said(bench('Monolith 180').one, 'C1')).toContain('36 V 5 A');
    const without = said(bench('Monolith 180', '"240 W" without a marker, 1 m').one, 'C1');
    expect(without).toContain('20 V 3 A');
    expect(without.some((offer) => offer.startsWith('36 V') || offer.startsWith('EPR'))).toBe(false);
  });
});

describe('ports that share', () => {
  it('cut their offers when another is plugged in, and lose their output for a moment', () => {
    const { one, clock } = bench('Quad 130');
    draw(one, 'C1', 5, 5);
    expect(one.port('C1').volts).toBeGreaterThan(19);
    one.plug('C2', true);
    expect(one.port('C1').volts).toBe(0);
    one.setLoad('C1', { amps: 2 });
    clock.advance(1.2);
    expect(said(one, 'C1')).toContain('20 V 3 A');
    expect(one.port('C1').volts).toBeCloseTo(20 * 1.004 - 0.02 * 2, 6);
  });

  it('give exactly what the rule of the set says, and the whole again when the other leaves', () => {
    const { one, clock, truth } = bench('Trio 75');
    const most = (label: string) =>
      Math.max(...one.offers(label).map((offer) => ('volts' in offer ? offer.volts * offer.amps : 0)));
    for (const { ports, watts } of truth.allocations) {
      for (const { label } of truth.ports) one.plug(label, ports.includes(label));
      clock.advance(3);
      for (const label of ports) {
        expect(most(label)).toBeLessThanOrEqual((watts[label] ?? 0) + 1e-6);
        expect(most(label)).toBeGreaterThan((watts[label] ?? 0) * 0.9);
      }
    }
    for (const label of ['C2', 'A1']) one.plug(label, false);
    one.plug('C1', true);
    clock.advance(3);
    expect(most('C1')).toBeCloseTo(75, 6);
  });

  it('of three budgets do not touch each other', () => {
    const { one, clock } = bench('Six 210');
    draw(one, 'C1', 4, 5);
    for (const label of ['C3', 'A1', 'C4', 'A2']) one.plug(label, true);
    expect(one.port('C1').volts).toBeGreaterThan(19);
    one.plug('C2', true);
    expect(one.port('C1').volts).toBeGreaterThan(19);
    clock.advance(3);
    expect(said(one, 'C2')).toContain('20 V 3.25 A');
  });
});

describe('limits', () => {
  it('an overload cuts off, and comes back or stays off until unplugged', () => {
    const { one, clock } = bench('Monolith 180');
    draw(one, 'C1', 4, 5.6);
    clock.advance(0.01);
    expect(one.port('C1').volts).toBe(0);
    one.setLoad('C1', { amps: 1 });
    clock.advance(3);
    expect(one.port('C1').volts).toBeGreaterThan(19);
    const car = bench('Shuttle 75', '60 W, 1 m');
    draw(car.one, 'C1', 5, 3.6);
    car.clock.advance(0.01);
    car.one.setLoad('C1', { amps: 1 });
    car.clock.advance(600);
    expect(car.one.port('C1').volts).toBe(0);
    car.one.plug('C1', false);
    draw(car.one, 'C1', 5, 1);
    expect(car.one.port('C1').volts).toBeGreaterThan(19);
  });

  it('a peak runs on a timer, the same at two powers', () => {
    for (const amps of [2.2, 1.9]) {
      const { one, clock } = bench('Pip 20');
      draw(one, 'C1', 2, amps);
      clock.advance(598);
      expect(one.port('C1').volts).toBeGreaterThan(8);
      clock.advance(6);
      expect(one.port('C1').volts).toBeLessThan(6);
    }
  });

  it('heat throttles, later at less power, at the same temperature inside', () => {
    const whenThrottled = (amps: number) => {
      const { one, clock } = bench('Trio 75');
      draw(one, 'C1', 4, amps);
      for (let minutes = 1; minutes < 240; minutes += 1) {
        clock.advance(60);
        if (one.port('C1').amps < 0.9 * amps) return minutes;
      }
      return null;
    };
    const full = whenThrottled(3.75);
    const less = whenThrottled(3.4);
    expect(full).not.toBeNull();
    expect(less === null || less > (full ?? 0)).toBe(true);
    expect(whenThrottled(1.5)).toBeNull();
  });

  it('everything is forgotten when the mains go', () => {
    const { one } = bench('Ember 45');
    one.cutOut();
    one.plug('C1', true);
    expect(one.port('C1').volts).toBe(0);
    one.setSupply({ on: false });
    one.setSupply({ on: true });
    expect(one.port('C1').volts).toBeGreaterThan(4.9);
  });
});

describe('the input', () => {
  it('without load is the mean of its bursts over ten minutes', () => {
    const { one, clock, truth } = bench('Ember 45');
    const before = one.energy();
    clock.advance(600);
    expect((one.energy() - before) / 600).toBeCloseTo(idleMean(truth.idle), 3);
  });

  it('of a car charger drains 38 mA or so from 13.8 V', () => {
    const { one, clock } = bench('Shuttle 75', '60 W, 1 m');
    one.setSupply({ volts: 13.8, hertz: 0 });
    const before = one.energy();
    clock.advance(600);
    expect((one.energy() - before) / 600 / 13.8).toBeCloseTo(0.037, 2);
  });

  it('is corrected from its threshold on, and sleeps again below it', () => {
    const { one, clock } = bench('Monolith 180');
    const factorAt = (amps: number) => {
      one.setLoad('C1', { amps, on: true });
      clock.advance(1);
      return one.input().powerFactor;
    };
    draw(one, 'C1', 8, 1);
    expect(factorAt(2)).toBeLessThan(0.6);
    expect(factorAt(3)).toBeGreaterThan(0.9);
    expect(factorAt(2.5)).toBeGreaterThan(0.9);
    expect(factorAt(2)).toBeLessThan(0.6);
  });
});

it('all loads go off together', () => {
  const { one } = bench('Trio 75');
  draw(one, 'C1', 4, 2);
  draw(one, 'C2', 2, 1);
  one.loadsOff();
  expect([one.port('C1').amps, one.port('C2').amps]).toEqual([0, 0]);
});
