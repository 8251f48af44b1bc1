import { describe, expect, it } from 'vitest';
import { LaidCable } from './laid-cable.ts';

const truth = { name: 'x', copperOhms: 0.1, contactOhms: 0.04, marker: [], marks: 'none' } as const;

describe('a cable on the simulated bench', () => {
  it('has copper that follows the room, and contacts that do not', () => {
    const cable = new LaidCable(truth);
    expect(cable.ohms(0, 20)).toBeCloseTo(0.14, 12);
    expect(cable.ohms(5, 45)).toBeCloseTo(0.1 * (1 + 0.00393 * 25) + 0.04, 12);
  });

  it('warms by what it loses, and settles where both agree', () => {
    const cable = new LaidCable({ ...truth, kelvinPerWatt: 6 });
    const ohms = cable.ohms(5, 23);
    const celsius = cable.celsius(5, 23);
    expect(celsius).toBeCloseTo(23 + 6 * 25 * ohms, 9);
    expect(ohms).toBeCloseTo(0.1 * (1 + 0.00393 * (celsius - 20)) + 0.04, 9);
    expect(ohms).toBeGreaterThan(cable.ohms(1, 23));
  });

  it('plugged anew has other contacts, about as far apart as said', () => {
    const cable = new LaidCable({ ...truth, contactSpread: 0.1 });
    expect(cable.contact()).toBe(0.04);
    const all = Array.from({ length: 400 }, () => {
      cable.plug();
      return cable.contact();
    });
    const mean = all.reduce((sum, one) => sum + one, 0) / all.length;
    const spread = Math.sqrt(all.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (all.length - 1));
    expect(mean).toBeCloseTo(0.04, 3);
    expect(spread / 0.04).toBeCloseTo(0.1, 1);
  });

  it('wears by bends, and comes apart now and then at last', () => {
    const cable = new LaidCable({ ...truth, wear: { from: 2000, perThousand: 0.01, opensFrom: 9000 } });
    cable.bend(2000);
    expect(cable.contact()).toBeCloseTo(0.04, 12);
    cable.bend(3000);
    expect([cable.bends, cable.contact()]).toEqual([5000, expect.closeTo(0.07, 12)]);
    expect(cable.open(3)).toBe(false);
    cable.bend(4000);
    const open = Array.from({ length: 1000 }, (_, at) => cable.open(at)).filter(Boolean).length;
    expect(open).toBeGreaterThan(60);
    expect(open).toBeLessThan(200);
    expect(
      cable.ohms(1, 20, Array.from({ length: 1000 }, (_, at) => at).find((at) => cable.open(at)) ?? 0),
    ).toBeGreaterThan(1);
  });
});
