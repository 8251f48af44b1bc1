import { describe, expect, it } from 'vitest';
import { EndWatch } from './ending.ts';

/** @returns when the end was noticed, and since when it is the end */
function noticed(watts: (t: number) => number, seconds: number, every = 1) {
  const watch = new EndWatch();
  for (let at = 0; at <= seconds; at += every) {
    watch.take(at, watts(at));
    if (watch.ended !== null) return { at, since: watch.ended };
  }
  return null;
}

describe('the end of a charge as it is logged', () => {
  it('is power steady and low for five minutes', () => {
    // 40 W for an hour, falling to 2 W over half an hour, then 0.3 W.
    const watts = (t: number) => (t < 3600 ? 40 : t < 5400 ? 40 - ((t - 3600) / 1800) * 38 : 0.3);
    for (const every of [0.1, 1, 10, 30]) {
      const found = noticed(watts, 8000, every);
      expect(Math.abs((found?.since ?? 0) - 5400)).toBeLessThan(90);
      expect((found?.at ?? 0) - (found?.since ?? 0)).toBeLessThan(360);
    }
  });

  it('is not the tail that still falls, nor a pause', () => {
    expect(noticed((t) => (t < 600 ? 40 : 40 * Math.exp(-(t - 600) / 3000)), 8000)).toBeNull();
    // Out for four minutes.
    expect(noticed((t) => (t > 1000 && t < 1240 ? 0 : 40), 4000)).toBeNull();
  });

  it('stays where it was found, and is none after all where power comes back', () => {
    const watch = new EndWatch();
    for (let at = 0; at <= 6000; at += 10) watch.take(at, at < 1000 ? 20 : 0.3);
    expect(Math.abs((watch.ended ?? 0) - 1000)).toBeLessThan(40);
    for (let at = 6010; at <= 6100; at += 10) watch.take(at, 20);
    expect(watch.ended).toBeNull();
  });

  it('is nothing before anything flowed, and minds no noise or gaps', () => {
    expect(noticed(() => 0.02, 3000)).toBeNull();
    const watch = new EndWatch();
    watch.take(0, 20);
    watch.take(Number.NaN, 20);
    watch.take(30, Number.NaN);
    watch.take(25, 20);
    expect([watch.began, watch.ended]).toEqual([0, null]);
    expect(noticed((t) => (t < 1000 ? 20 : 0.4 + 0.1 * Math.sin(t)), 3000)?.since).toBeLessThan(1060);
  });
});
