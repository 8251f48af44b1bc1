import { describe, expect, it } from 'vitest';
import { Warmth } from './warmth.ts';

const told = (warmth: Warmth, at: number, amps: number, points: (number | null)[]) => {
  warmth.take('DC load', [at, 20, amps]);
  warmth.take('thermometer', points);
};

describe('the hottest point of a soak', () => {
  it('counts from the moment the load draws, the room left out', () => {
    const warmth = new Warmth();
    told(warmth, 10, 0, [90, 24, 25]);
    expect(warmth.times).toEqual([]);
    told(warmth, 20, 2.25, [90, 26, 25]);
    told(warmth, 25, 2.25, [90, null, 27]);
    expect([warmth.times, warmth.celsius]).toEqual([
      [20, 25],
      [26, 27],
    ]);
  });

  it('knows the room wherever the rig says it stands', () => {
    const warmth = new Warmth(['front', 'room']);
    told(warmth, 20, 2.25, [26, 90, 25]);
    expect(warmth.celsius).toEqual([26]);
  });

  it('begins anew when the load went off meanwhile', () => {
    const warmth = new Warmth();
    told(warmth, 20, 2.25, [24, 50]);
    told(warmth, 25, 0, [24, 49]);
    told(warmth, 30, 2.25, [24, 45]);
    expect([warmth.times, warmth.celsius]).toEqual([[30], [45]]);
  });

  it('thins out rather than grow, and takes no time twice', () => {
    const warmth = new Warmth();
    for (let at = 0; at < 10_000; at += 1) told(warmth, at, 2, [24, 40]);
    expect(warmth.times.length).toBeLessThan(1200);
    expect(warmth.times.length).toBeGreaterThan(500);
    expect(warmth.times.at(-1)).toBeGreaterThan(9980);
    expect(new Set(warmth.times).size).toBe(warmth.times.length);
    told(warmth, 9999, 2, [24, 40]);
    expect(new Set(warmth.times).size).toBe(warmth.times.length);
  });

  it('tells nothing without a clock', () => {
    const warmth = new Warmth();
    warmth.take('thermometer', [24, 40]);
    expect(warmth.times).toEqual([]);
  });
});
