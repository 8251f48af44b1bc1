import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../random/index.ts';
import { halfWidthAfter, soakForecast, warmFit } from './index.ts';

const soak = (seed: number, minutes: number) => {
  const normal = seededNormal(seededRandom(seed));
  const t = Array.from({ length: minutes * 6 }, (_, at) => at * 10);
  return warmFit(
    t,
    t.map((s) => 24 + 40 * (1 - Math.exp(-s / 1200)) + 0.1 * normal()),
  );
};
const half = (fit: ReturnType<typeof soak>) => ((fit?.interval[1] ?? 0) - (fit?.interval[0] ?? 0)) / 2;

describe('how much a longer soak would narrow', () => {
  it('is what soaks that did last longer came to, within a half', () => {
    for (const seed of [1, 2, 3, 4]) {
      const short = soak(seed, 25);
      if (!short) throw new Error('It can be fitted.');
      const told = halfWidthAfter(short, 25 * 60, 25 * 60) ?? 0;
      const came = half(soak(seed, 50));
      expect(told / came).toBeGreaterThan(0.5);
      expect(told / came).toBeLessThan(2);
      expect(told).toBeLessThan(half(short));
    }
  });

  it('says of a soak that goes on where it leads, and when it is known well enough', () => {
    const normal = seededNormal(seededRandom(9));
    const t = Array.from({ length: 800 }, (_, at) => 100 + at * 10);
    const y = t.map((s) => 24 + 40 * (1 - Math.exp(-(s - 100) / 1200)) + 0.1 * normal());
    expect(soakForecast(t.slice(0, 10), y.slice(0, 10))).toBeNull();
    expect(soakForecast([], [])).toBeNull();
    const early = soakForecast(t.slice(0, 60), y.slice(0, 60));
    expect(early?.tight).toBe(false);
    const late = soakForecast(t, y);
    expect(late?.tight).toBe(true);
    expect(late?.fit.steady).toBeCloseTo(64, 0);
    expect(late?.after ?? 1).toBeLessThan(late?.half ?? 0);
  });

  it('no longer narrows nothing, and what is not bounded is not told', () => {
    const fit = soak(1, 25);
    if (!fit) throw new Error('It can be fitted.');
    expect(halfWidthAfter(fit, 1500, 0)).toBeCloseTo(half(fit), 9);
    expect(halfWidthAfter({ ...fit, interval: [60, null] }, 1500, 600)).toBeNull();
    expect(halfWidthAfter({ ...fit, timeConstants: [], parts: [] }, 1500, 600)).toBeNull();
    expect(halfWidthAfter(fit, Number.NaN, 600)).toBeNull();
  });
});
