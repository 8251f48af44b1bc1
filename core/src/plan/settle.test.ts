import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Look, ONE_PERCENT_RULE, settling } from './index.ts';

/** Looks every 10 s. */
const looks = (watts: (seconds: number) => number, until: number): Look[] =>
  Array.from({ length: until / 10 + 1 }, (_, index) => ({ seconds: index * 10, value: watts(index * 10) }));

describe('a load point', () => {
  it('settles once input power drifts less than 1 % over five minutes, and not before five have passed', () => {
    const steady = () => 50;
    expect(settling(looks(steady, 290), ONE_PERCENT_RULE)).toMatchObject({ done: false, drift: 0 });
    expect(settling(looks(steady, 300), ONE_PERCENT_RULE)).toMatchObject({ done: true, averaged: false, from: 0 });
  });

  it('that still warms up waits until the drift of the last five minutes is small enough', () => {
    // 50 W falling to 48 W with a time constant of five minutes.
    const warming = (seconds: number) => 48 + 2 * Math.exp(-seconds / 300);
    const at = Array.from({ length: 180 }, (_, index) => index * 10).find(
      (until) => settling(looks(warming, until), ONE_PERCENT_RULE).done,
    );
    // 2·e^(−t/300)·(e − 1) = 0.01·(48 + …) gives 583 s.
    expect(at).toBeGreaterThanOrEqual(570);
    expect(at).toBeLessThanOrEqual(600);
  });

  it('that never settles is averaged over half an hour, and says so', () => {
    const pulsing = (seconds: number) => (seconds % 60 < 30 ? 50 : 40);
    expect(settling(looks(pulsing, 1790), ONE_PERCENT_RULE).done).toBe(false);
    expect(settling(looks(pulsing, 1800), ONE_PERCENT_RULE)).toMatchObject({
      done: true,
      averaged: true,
      from: 0,
      drift: 0.2,
    });
  });

  it('without a rule is read as it is', () => {
    expect(
      settling(
        looks(() => 3, 10),
        null,
      ),
    ).toMatchObject({ done: true, averaged: false });
  });

  it('nobody has looked at is not settled; what is no number is left out', () => {
    expect(settling([], ONE_PERCENT_RULE)).toMatchObject({ done: false, drift: null, share: 0 });
    expect(settling([{ seconds: 0, value: Number.NaN }], null).done).toBe(false);
    expect(
      settling(
        looks(() => 0, 300),
        ONE_PERCENT_RULE,
      ),
    ).toMatchObject({ done: false, drift: null });
  });

  it('never counts looks from before the stretch', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1, max: 100, noNaN: true }), { minLength: 60, maxLength: 120 }),
        (values) => {
          const made = values.map((value, index) => ({ seconds: index * 10, value }));
          const now = settling(made, ONE_PERCENT_RULE);
          const inside = made.filter(({ seconds }) => seconds >= now.from).map(({ value }) => value);
          const most = Math.max(...inside);
          expect(now.drift).toBeCloseTo((most - Math.min(...inside)) / most, 12);
          expect(now.done).toBe((now.drift ?? 1) <= 0.01);
        },
      ),
    );
  });
});
