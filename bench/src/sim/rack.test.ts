import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ScpiClient } from '../scpi/index.ts';
import { overSocket } from '../ways/index.ts';
import { CLASSES, idleMean, type Rack, RunningClock, startRack } from './index.ts';

let rack: Rack;
const clients = new Map<string, ScpiClient>();
beforeAll(async () => {
  rack = await startRack({ firstPort: 0, speed: 60, seed: 11 });
  for (const [name, port] of Object.entries(rack.ports)) {
    const one = new ScpiClient({ way: overSocket('127.0.0.1', port), timeout: 4000 });
    one.open();
    clients.set(name, one);
  }
});
afterAll(async () => {
  for (const one of clients.values()) one.close();
  await rack.close();
});

const to = (name: keyof Rack['ports']): ScpiClient => {
  const one = clients.get(name);
  if (!one) throw new Error(name);
  return one;
};

describe('the rack', () => {
  it('has every class on a port of its own, each saying who it is', async () => {
    const said = await Promise.all(CLASSES.map((kind) => to(kind).query('*IDN?')));
    expect(new Set(said).size).toBe(CLASSES.length);
    expect(said.every((one) => one.startsWith('Fernwall Workshop,'))).toBe(true);
  });

  it('measures a loaded charger: what the instruments say is near what is true, and not exactly it', async () => {
    await to('control').confirm('BENC:CHAR "Ember 45"');
    for (const command of ['SOUR:VOLT 230', 'SOUR:FREQ 50', 'OUTP ON']) await to('ac-source').confirm(command);
    for (const command of ['INST:NSEL 1', 'SINK:CONN ON', 'SINK:REQ 4', 'CURR 2.25', 'INP ON'])
      await to('dc-load').confirm(command);
    const [watts = 0] = await to('power-analyser').queryNumbers('MEAS:POW?');
    const [volts = 0] = await to('inline-meter').queryNumbers('MEAS:VOLT?');
    const [amps = 0] = await to('dc-load').queryNumbers('MEAS:CURR?');
    const truth = rack.bench.port('C1');
    expect(volts).not.toBe(truth.volts);
    expect(Math.abs(volts - truth.volts)).toBeLessThan(0.015);
    expect(Math.abs(amps - truth.amps)).toBeLessThan(0.006);
    expect(Math.abs(watts - rack.bench.input().watts)).toBeLessThan(0.06);
    const [time = 0, v = 0, a = 0] = await to('dc-load').queryNumbers('FETC?');
    expect(time).toBeGreaterThan(0);
    expect(v).toBeLessThan(volts);
    expect(a).toBeCloseTo(2.25, 1);
    await to('dc-load').confirm('INP:ALL OFF');
    expect(rack.bench.port('C1').amps).toBe(0);
  });

  it('reads offers out as words, by the cable that is laid', async () => {
    await to('control').confirm('BENC:CHAR "Monolith 180"');
    expect(await to('pd-analyser').query('READ:CAP? 1')).toContain('000B41F4');
    await to('control').confirm('BENC:CABL "60 W, 1 m"');
    expect(await to('pd-analyser').query('READ:CAP? 1')).not.toContain('000B41F4');
    await to('control').confirm('BENC:CABL "240 W, 1 m"');
    expect(await to('pd-analyser').query('READ:CABL?')).toContain('000A2640');
  });

  it('states the power of a port: what it is built for, has with the others, and advertises', async () => {
    const info = () => to('pd-analyser').query('READ:INFO? 1');
    await to('control').confirm('BENC:CHAR "Monolith 180"');
    expect(await info()).toBe('80B4B4B4');
    await to('control').confirm('BENC:CABL "60 W, 1 m"');
    expect(await info()).toBe('80B4B43C');
    await to('control').confirm('BENC:CABL "240 W, 1 m"');
  });

  it('counts energy without load over its own minutes', async () => {
    await to('control').confirm('BENC:CHAR "Ember 45"');
    await to('control').confirm('BENC:SPE 3000');
    await to('power-analyser').write('INT:STAR');
    await new Promise((resolve) => setTimeout(resolve, 600));
    await to('power-analyser').write('INT:STOP');
    const [hours = 0] = await to('power-analyser').queryNumbers('INT:ENER?');
    const [seconds = 0] = await to('power-analyser').queryNumbers('INT:TIME?');
    await to('control').confirm('BENC:SPE 60');
    expect(seconds).toBeGreaterThan(600);
    const truth = rack.bench.charger.idle;
    expect((hours * 3600) / seconds).toBeCloseTo(idleMean(truth), 2);
  });

  it('keeps its truth to itself: no command tells it', async () => {
    for (const command of ['BENC:TRUT?', 'TRUT?', 'BENC:CHAR:LOSS?'])
      expect(
        await to('control')
          .query(command)
          .catch(() => 'no answer'),
      ).toBe('no answer');
  });
});

describe('its clock', () => {
  it('runs faster by a factor that can change while it runs', () => {
    let real = 0;
    const clock = new RunningClock(10, () => real);
    real = 2;
    expect(clock.now()).toBe(20);
    clock.speed = 60;
    real = 3;
    expect(clock.now()).toBe(80);
    expect(() => {
      clock.speed = 0;
    }).toThrow(RangeError);
  });
});
