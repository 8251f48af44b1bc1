import { describe, expect, it } from 'vitest';
import { BATTERIES, charged, demandOf, freshBattery } from './battery.ts';
import { SimulatedBench } from './bench.ts';
import { CABLES } from './cables.ts';
import { HandClock } from './clock.ts';
import { CHARGERS, named } from './world.ts';

const laptop = named(BATTERIES, "Warden's laptop");
const phone = named(BATTERIES, 'Loan phone');
if (!laptop || !phone) throw new Error('no devices');

function bench(name = 'Monolith 180') {
  const clock = new HandClock();
  const charger = named(CHARGERS, name);
  const [cable] = CABLES;
  if (!charger || !cable) throw new Error(name);
  const made = new SimulatedBench(charger, cable, clock);
  made.setSupply({ on: true, volts: 230, hertz: 50 });
  return { bench: made, clock };
}

describe('a device by itself', () => {
  it('takes all it can up to its knee, less and less above it, and next to nothing when full', () => {
    expect(demandOf(freshBattery(laptop, 0.2), 20)).toBe(74);
    expect(demandOf(freshBattery(laptop, 0.81), 20)).toBeCloseTo(74 * (1 - 0.9 * 0.5), 9);
    expect(demandOf(freshBattery(laptop, 1), 20)).toBe(0.9);
  });

  it('takes little without the level it wants, and more with its screen on', () => {
    expect(demandOf(freshBattery(laptop, 0.2), 9)).toBe(15);
    expect(demandOf({ ...freshBattery(laptop, 1), screenOn: true }, 20)).toBeCloseTo(9.9, 9);
    expect(demandOf({ ...freshBattery(laptop, 1), asleep: false }, 20)).toBeCloseTo(5.9, 9);
    expect(demandOf({ ...freshBattery(laptop, 0.5), reversed: true }, 20)).toBe(-4);
  });

  it('fills by what flows, its screen left out, and takes less once it is hot', () => {
    const own = freshBattery(phone, 0.1);
    charged(own, 18, 3600);
    expect(own.level).toBe(1);
    const lit = { ...freshBattery(phone, 0.5), screenOn: true };
    charged(lit, 1.6, 3600);
    expect(lit.level).toBeCloseTo(0.5, 9);
    const warm = freshBattery(phone, 0);
    // 21 W × 0.7 K/W are 14.7 K steady: never hot; at 40 W it would be.
    for (let at = 0; at < 40; at += 1) charged(warm, 40, 60);
    expect([warm.hot, demandOf({ ...warm, level: 0.2 }, 9)]).toEqual([true, 21 * 0.55]);
    for (let at = 0; at < 60; at += 1) charged(warm, 0, 60);
    expect(warm.hot).toBe(false);
  });
});

describe('a device on a charger', () => {
  it('asks for its level, is charged from a tenth to full, and heats charger and battery', () => {
    const { bench: it1, clock } = bench();
    it1.devices.attach('C1', laptop, 0.1);
    const { volts, amps } = it1.port('C1');
    expect(volts).toBeCloseTo(20, 0);
    expect(volts * amps).toBeCloseTo(74, -0.5);
    const before = it1.energy();
    // 10 % to 62 % at 74 W: 34.3 Wh in 27.8 min; the rest falls to a tenth.
    clock.advance(1668);
    it1.port('C1');
    expect(it1.devices.on('C1')?.level).toBeCloseTo(0.62, 2);
    clock.advance(4 * 3600);
    it1.port('C1');
    expect(it1.devices.on('C1')?.level).toBe(1);
    const after = it1.port('C1');
    expect(after.volts * after.amps).toBeCloseTo(0.9, 1);
    // More went in at the wall than the battery took.
    expect(it1.energy() - before).toBeGreaterThan(0.9 * laptop.joules);
  });

  it('takes what a smaller charger has, and steps down where the level is not there', () => {
    const { bench: small } = bench('Ember 45');
    small.devices.attach('C1', laptop, 0.1);
    const { volts, amps } = small.port('C1');
    expect(volts * amps).toBeLessThan(46);
    expect(volts * amps).toBeGreaterThan(40);
    const { bench: tiny } = bench('Pip 20');
    tiny.devices.attach('A1', laptop, 0.1);
    expect(tiny.port('A1').volts).toBeLessThan(6);
    expect(tiny.port('A1').volts * tiny.port('A1').amps).toBeLessThan(16);
  });

  it('may hang its meter until it is plugged anew, and give power back', () => {
    const { bench: it1, clock } = bench();
    it1.devices.attach('C1', phone, 0.2);
    it1.devices.behave('C1', { hung: true });
    const shown = it1.devices.hung('C1');
    clock.advance(3600);
    it1.port('C1');
    expect(it1.devices.hung('C1')).toEqual(shown);
    it1.devices.attach('C1', phone, 0.2);
    expect(it1.devices.hung('C1')).toBeNull();
    it1.devices.behave('C1', { reversed: true });
    expect(it1.port('C1').amps).toBeLessThan(0);
    expect(it1.devices.inLine).toBe('C1');
    it1.plug('C1', false);
    expect(it1.devices.inLine).toBeNull();
  });
});
