// Labels as different makers print the same promise.
import { describe, expect, it } from 'vitest';
import { describePromise, parseCableLine, parseLabel } from './index.ts';

const PORTS = ['C1', 'C2', 'A1'];
const said = (text: string, ports: readonly string[] = PORTS): readonly string[] =>
  parseLabel(text, ports).flatMap((line) =>
    'promises' in line
      ? [...line.promises.map(describePromise), ...(line.unused ?? []).map((one) => `unused ${one}`)]
      : [line.reason],
  );

describe('ports together', () => {
  it.each([
    ['C2+A1: 5V=4.8A 24W Max', ['C2 + A1 share 24 W']],
    ['C2+A1: 5V 4.8A', ['C2 + A1 share 24 W']],
    ['C1+C2: 20V3A 60W + 9V2A 18W', ['C1 + C2: 60 + 18 W']],
    ['C1 & C2: 50W x 2', ['C1 + C2: 50 + 50 W']],
    ['C1+C2: 2 × 50 W', ['C1 + C2: 50 + 50 W']],
    ['C1+C2+A1: 2×45W + 18W', ['C1 + C2 + A1: 45 + 45 + 18 W']],
    ['C1+C2: 50W each', ['C1 + C2: 50 + 50 W']],
    ['C1+C2: 50W', ['C1 + C2 share 50 W']],
    ['C1+C2: 65W (45W+20W)', ['C1 + C2: 45 + 20 W']],
    ['C1+C2: 45W+20W (65W)', ['C1 + C2: 45 + 20 W']],
    ['C1+C2: 45W+20W (90W)', ['C1 + C2: 45 + 20 W', 'unused 90 W']],
  ])('%s', (line, promises) => expect(said(line)).toEqual(promises));

  it('stand there once each, those that share included', () =>
    expect(said('C1+C2+A1: 45W+(C2+A1) 15W')[0]).toContain('C2 stands there twice'));
});

describe('a port without its number', () => {
  const TWO = ['C1', 'A1'];
  it.each([
    ['USB-A: 5V/2.4A', ['A1: 5 V 2.4 A']],
    ['USB-A 5V⎓2.4A 12W', ['A1: 5 V 2.4 A']],
    ['USB-C: 20V 3A, USB-A: 5V 2.4A', ['C1: 20 V 3 A', 'A1: 5 V 2.4 A']],
    ['USB-C + USB-A: 20W+12W', ['C1 + A1: 20 + 12 W']],
    ['USB-A:\n5V 3A\n9V 2A', ['A1: 5 V 3 A', 'A1: 9 V 2 A']],
    ['C1 (USB-C): 5V 3A, 9V 3A', ['C1: 5 V 3 A', 'C1: 9 V 3 A']],
    ['C1: 5V 3A, USB-C', ['C1: 5 V 3 A']],
  ])('%j is the one of its kind', (line, promises) => expect(said(line, TWO)).toEqual(promises));

  it('is asked for where there are several', () => {
    expect(said('A1: 5V 2.4A, USB-C: 20V 3A')).toEqual(['USB-C may be C1 or C2: name the port.']);
    expect(said('USB-C: 20V 3A')).toEqual(['USB-C may be C1 or C2: name the port.']);
  });
});

describe('a port with its number apart', () => {
  it.each(['USB C 1: 9V2A', 'Type-C 1: 9V 2A', 'C-1: 9V/2A', 'USB-C1 9V 2A'])('%s', (line) =>
    expect(said(line)).toEqual(['C1: 9 V 2 A']),
  );
  it('is not a current', () => expect(said('USB-C 1 A, 5 V')[0]).toContain('Start with a port'));
  it('is not how many there are', () => expect(said('USB-C 2 x 45W')).not.toContain('C2 alone: 45 W'));
});

describe('a cable', () => {
  const cable = (line: string): readonly string[] => {
    const read = parseCableLine(line);
    return 'promises' in read ? read.promises.map(describePromise) : [read.reason];
  };
  it.each([
    ['USB 2.0 480Mbps, 60W', ['Data at 480 Mbit/s', 'Carries 60 W: 3 A at 20 V']],
    ['Gen 2 480 Mbps', ['Data at 480 Mbit/s']],
    ['USB 2.0 10 000 bends', ['10000 bends', 'Data at 480 Mbit/s']],
    ['bend lifespan 10,000 times', ['10000 bends']],
    ['12k+ bends', ['12000 bends']],
    ['5V/3A, 9V/3A, 20V/5A', ['Carries 100 W: 5 A at 20 V']],
    ['USB4 Gen 3x2 240W', ['Data at 40 Gbit/s', 'Carries 240 W: 5 A at 48 V']],
    ['USB4 Gen 2', ['Data at 20 Gbit/s']],
    ['USB 3.2 Gen 2x2', ['Data at 20 Gbit/s']],
    ['USB 3.2 Gen 2, 100 W', ['Data at 10 Gbit/s', 'Carries 100 W: 5 A at 20 V']],
    ['USB 3.0', ['Data at 5 Gbit/s']],
  ])('%s', (line, promises) => expect(cable(line)).toEqual(promises));
  it('promises nothing by a number alone', () => expect(cable('2m / 6.6ft')[0]).toContain('Write watts or amps'));
});

describe('figures of the whole', () => {
  const one = (line: string) => {
    const [read] = parseLabel(line, PORTS);
    return read && 'promises' in read ? [read.promises[0], ...(read.unused ?? [])] : [read?.reason];
  };
  const at = (volts: number, hertz: number) => ({ kind: 'ac', volts, hertz });
  it.each([
    ['idle: < 75 mW @230V', 0.075, at(230, 50)],
    ['No-load power consumption: ≤ 0.075 W (230 V 50 Hz)', 0.075, at(230, 50)],
    ['no load 0.1 W at 115 V 60 Hz', 0.1, at(115, 60)],
    ['standby 30mW', 0.03, null],
    ['vampire draw < 0.1W', 0.1, null],
    ['idle 0.1 W at 220 V 60 Hz', 0.1, at(220, 60)],
  ])('%s', (line, watts, mains) => expect(one(line)).toEqual([{ kind: 'idle', watts, mains }]));

  it('leave a supply alone that is not named for sure', () =>
    expect(one('idle 0.1 W at 100 V')).toEqual([{ kind: 'idle', watts: 0.1, mains: null }, 'at 100 V']));

  it.each([
    ['ripple < 50 mVp-p', { kind: 'ripple', volts: 0.05, mains: null }],
    ['Output ripple & noise <= 100 mV p-p @ 20MHz', { kind: 'ripple', volts: 0.1, mains: null }],
    ['Max ripple voltage: 100 mVp-p (20 MHz bandwidth)', { kind: 'ripple', volts: 0.1, mains: null }],
    ['Surface ≤ 65 ℃', { kind: 'surface', celsius: 65 }],
    ['Ripple & noise: ≤ 0,1 V', { kind: 'ripple', volts: 0.1, mains: null }],
    ['surface below 65 °C', { kind: 'surface', celsius: 65 }],
    ['Max surface temperature 77 °C', { kind: 'surface', celsius: 77 }],
    ['case temp 140°F max', { kind: 'surface', celsius: 60 }],
  ])('%s', (line, promise) => expect(one(line)).toEqual([promise]));

  it('of ripple are peak to peak', () => expect(one('ripple 10 mV rms')[0]).toContain('Start with a port'));

  it('have an average efficiency at a supply, and no best one', () => {
    expect(one('Average active efficiency: 88.5 % (230 V)')).toEqual([
      { kind: 'average-efficiency', ratio: 0.885, mains: at(230, 50) },
    ]);
    for (const line of ['efficiency up to 95%', 'max efficiency 95 %', 'peak efficiency 95 %'])
      expect(one(line)[0], line).toContain('Only an average efficiency is a claim');
  });
});
