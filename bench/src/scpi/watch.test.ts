import { describe, expect, it } from 'vitest';
import { MeterWatch, type WatchRules } from './index.ts';

/** Asked ten times a second unless told otherwise. */
const watch = (
  readings: readonly (readonly [value: number, setting: number | null])[],
  rules: Partial<WatchRules> = {},
  every = 0.1,
) => {
  const meter = new MeterWatch({ range: 100, ...rules });
  return readings.map(([value, setting], index) => meter.look({ value, setting, at: index * every })?.kind ?? null);
};

const of = <T>(count: number, one: (index: number) => T): T[] =>
  Array.from({ length: count }, (_, index) => one(index));

describe('a meter that is watched', () => {
  it('is frozen when it stands still for seconds after the load was moved', () => {
    const seen = watch([...of(40, (): [number, number] => [5, 10]), ...of(50, (): [number, number] => [5, 20])]);
    expect(seen.indexOf('frozen')).toBe(70);
    expect(seen.slice(70).every((kind) => kind === 'frozen')).toBe(true);
  });

  it('says for how long, and what it should have followed', () => {
    const meter = new MeterWatch({ range: 100 });
    const seen = of(80, (index) => meter.look({ value: 0.07, setting: index < 45 ? 0 : 45, at: index / 10 }));
    expect(seen.at(-1)?.sentence).toBe(
      'The same reading for 3 s while the load went from 0 W to 45 W: the meter stands still.',
    );
  });

  it.each([2, 1, 0.5])('that shows %d readings a second follows in its own time', (hertz) => {
    // The load goes from nothing to 20 W in steps of 5 s; each is seen as the meter next shows something.
    const load = (seconds: number) => 5 * Math.floor(seconds / 5);
    const shown = (seconds: number) => load(Math.floor(seconds * hertz) / hertz) / 0.9;
    expect(watch(of(220, (index) => [shown(index / 10), load(index / 10)])).filter(Boolean)).toEqual([]);
  });

  it('may show the same for as long as the load stays where it is', () => {
    expect(watch(of(100, () => [5, 10])).filter(Boolean)).toEqual([]);
  });

  it('may be told of before the load that made it, and be too coarse to change from then on', () => {
    // Meter and load measure every two seconds, the load a moment later.
    const on = (seconds: number) => (seconds < 4 ? [0, 0] : [48.9, 44.5]);
    const at = (index: number, late: number) => Math.floor((index / 10 - late) / 2) * 2;
    expect(watch(of(200, (index) => [on(at(index, 0))[0] ?? 0, on(at(index, 1.8))[1] ?? 0])).filter(Boolean)).toEqual(
      [],
    );
  });

  it('may be too coarse for the noise of a load', () => {
    expect(watch(of(100, (index) => [16.2, 14.55 + 0.4 * (index % 2)])).filter(Boolean)).toEqual([]);
  });

  it('need not follow a load that came back before it showed anything', () => {
    expect(watch(of(100, (index) => [0, index >= 20 && index < 40 ? 30 : 0])).filter(Boolean)).toEqual([]);
  });

  it('that stood still while the load was moved is caught as the load is moved on', () => {
    const load = (index: number) => (index < 2 ? 0 : index < 60 ? 30 : 45);
    const seen = watch(of(120, (index) => [0.07, load(index)]));
    expect(seen.slice(0, 60).filter(Boolean)).toEqual([]);
    expect(seen.at(-1)).toBe('frozen');
  });

  it('is forgiven once it moves again', () => {
    expect(watch([...of(40, (index): [number, number] => [5, 10 * index]), [5.01, 400]]).at(-1)).toBeNull();
  });

  it('is not frozen by a few looks after this machine itself stood still', () => {
    expect(
      watch(
        [
          [5, 10],
          [5, 20],
          [5, 20],
        ],
        {},
        10,
      ),
    ).toEqual([null, null, null]);
  });

  it('of a load nobody knows is never frozen, and follows from where it becomes known', () => {
    expect(watch(of(100, () => [5, null])).filter(Boolean)).toEqual([]);
    const seen = watch([
      ...of(40, (): [number, null] => [5, null]),
      [5, 10],
      ...of(40, (): [number, number] => [5, 20]),
    ]);
    expect(seen.at(-1)).toBe('frozen');
  });

  it('a little below zero is its noise', () => {
    const gentle = new MeterWatch({ range: 100, noise: 0.05 });
    expect(gentle.look({ value: -0.04, setting: 0.05, at: 0 })).toBeNull();
    expect(gentle.look({ value: -0.06, setting: 0.05, at: 0.1 })?.kind).toBe('reversed');
  });
  it('that has not followed the load yet, or whose zero is off, is not turned round', () => {
    expect(watch([[-0.12, 65]])).toEqual([null]);
    expect(watch([[-71.6, 65]])).toEqual(['reversed']);
  });

  it('with the other sign, out of range, or with no number says so', () => {
    expect(watch([[-2, 1]])).toEqual(['reversed']);
    expect(watch([[-2, null]])).toEqual([null]);
    expect(watch([[-0.001, 0]])).toEqual([null]);
    expect(watch([[500, 1]])).toEqual(['out of range']);
    expect(
      watch([
        [Number.NaN, 1],
        [Number.POSITIVE_INFINITY, 1],
      ]),
    ).toEqual(['not a number', 'out of range']);
  });
});
