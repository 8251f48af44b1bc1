// Captures as other scopes and meters write them: noise, rails, early triggers, ringing, offsets, gaps.
import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../random/index.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import {
  captureFigures,
  captureSays,
  type DipFigures,
  evenly,
  type FadingFigures,
  type IdleFigures,
  type InrushFigures,
  type WaveformFigures,
} from './index.ts';

const TURN = 2 * Math.PI;
const normal = (seed: number) => seededNormal(seededRandom(seed));
const fill = (count: number, of: (index: number) => number) =>
  Float64Array.from({ length: count }, (_, index) => of(index));
const take = <T>(
  kind: Parameters<typeof captureFigures>[0],
  interval: number,
  columns: Record<string, Float64Array>,
  specs = {},
): T => {
  const figures = captureFigures(kind, { interval, columns }, specs);
  if ('reason' in figures) throw new Error(figures.reason);
  return figures as T;
};

describe('a waveform with noise', () => {
  it.each([
    [100_000, 50.37],
    [1_000_000, 50.37],
    [100_000, 59.81],
  ])('at %i samples a second is right to 0.1 Hz, with 10 V rms on 230 V', (rate, hertz) => {
    const noise = normal(rate + Math.round(hertz));
    const count = Math.round(rate * 0.11);
    const volts = fill(count, (n) => 325 * Math.sin((TURN * hertz * n) / rate + 0.7) + 10 * noise());
    const amps = fill(count, (n) => 2 * Math.sin((TURN * hertz * n) / rate + 0.4));
    const figures = take<WaveformFigures>('waveform', 1 / rate, { volts, amps });
    expect(figures.cycles).toBeGreaterThanOrEqual(4);
    expect(Math.abs(figures.hertz - hertz)).toBeLessThan(0.1);
  });

  it('of one short record too', () => {
    const noise = normal(4);
    const volts = fill(4500, (n) => 325 * Math.sin((TURN * 50 * n) / 100_000 - 0.3) + 10 * noise());
    const figures = take<WaveformFigures>('waveform', 1e-5, { volts, amps: volts });
    expect(Math.abs(figures.hertz - 50)).toBeLessThan(0.1);
  });
});

describe('the ends of cycles', () => {
  it('are interpolated: power of a peaked current is right to 0.05 % at 4.1 kS/s wherever the record begins', () => {
    // i(t) is a third and a fifth harmonic on the fundamental; only the fundamental carries power: ½·325·2·cos 0.4.
    const truth = 0.5 * 325 * 2 * Math.cos(0.4);
    for (let begin = 0; begin < 1; begin += 0.037) {
      const at = (n: number) => n / 4100 + begin / 50;
      const volts = fill(900, (n) => 325 * Math.sin(TURN * 50 * at(n)));
      const amps = fill(
        900,
        (n) =>
          2 * Math.sin(TURN * 50 * at(n) - 0.4) +
          1.2 * Math.sin(TURN * 150 * at(n)) +
          0.8 * Math.sin(TURN * 250 * at(n) + 1),
      );
      const figures = take<WaveformFigures>('waveform', 1 / 4100, { volts, amps });
      expect(Math.abs(figures.watts / truth - 1)).toBeLessThan(5e-4);
      expect(figures.currentDistortion).toBeCloseTo(Math.hypot(0.6, 0.4), 2);
    }
  });
});

describe('a rail', () => {
  const sine = (top: number, bits: number | null) =>
    fill(4000, (n) => {
      const value = Math.max(-top, Math.min(top, Math.sin((TURN * 50 * n) / 20_000 + 0.2)));
      const step = bits === null ? 0 : 2 / 2 ** bits;
      return 325 * (step > 0 ? Math.round(value / step) * step : value);
    });
  const found = (volts: Float64Array) =>
    take<WaveformFigures>('waveform', 1 / 20_000, {
      volts,
      amps: fill(4000, (n) => Math.sin((TURN * 50 * n) / 20_000)),
    }).findings.filter((one) => one.includes('clipped'));
  it.each([
    ['a quarter', 0.75, null],
    ['a quarter, 8 bits', 0.75, 8],
    ['a twentieth', 0.95, 12],
  ] as const)('that cuts off %s is said', (_, top, bits) => expect(found(sine(top, bits))).toHaveLength(1));
  it.each([[null], [8], [10], [12]] as const)('is none in a whole sine of %s bits', (bits) =>
    expect(found(sine(2, bits))).toEqual([]),
  );
  it('cuts an inrush too', () => {
    const amps = fill(3000, (n) => (n < 300 ? 0 : Math.min(20, 40 * Math.exp(-(n - 300) / 400))));
    expect(take<InrushFigures>('inrush', 1e-6, { amps }).findings.join()).toContain('clipped');
  });
});

describe('an inrush', () => {
  it('that rings is summed to the end of its ringing, not to its first zero', () => {
    // i = 40·e^(−t/τ)·cos ωt, τ = 1.5 ms, 2 kHz. ∫i² = (40²/4)·τ·(1 + 1/(1 + (ωτ)²)) ≈ 40²τ/4.
    const rate = 500_000;
    const tau = 1.5e-3;
    const omega = TURN * 2000;
    const amps = fill(12_000, (n) => {
      const t = n / rate - 4e-3;
      return t < 0 ? 0 : 40 * Math.exp(-t / tau) * Math.cos(omega * t);
    });
    const truth = ((40 ** 2 * tau) / 4) * (1 + 1 / (1 + (omega * tau) ** 2));
    const figures = take<InrushFigures>('inrush', 1 / rate, { amps });
    expect(figures.peak).toBeCloseTo(40, 6);
    // What lies below a tenth of the peak holds a hundredth of it.
    expect(figures.squareSeconds / truth).toBeGreaterThan(0.97);
    expect(figures.squareSeconds / truth).toBeLessThan(1.001);
  });
  it('ends before the next pulse of the mains', () => {
    const amps = fill(30_000, (n) => {
      const t = n / 1e6;
      if (t < 2e-3) return 0;
      const pulse = (t - 2e-3) % 10e-3;
      const size = t < 11e-3 ? 40 : 8;
      return pulse < 2e-3 ? size * Math.sin((Math.PI * pulse) / 2e-3) : 0;
    });
    const figures = take<InrushFigures>('inrush', 1e-6, { amps });
    expect(figures.length).toBeLessThan(2.2e-3);
    expect(figures.squareSeconds).toBeCloseTo((40 ** 2 * 2e-3) / 2, 1);
  });
  it('is freed of what the clamp shows of nothing', () => {
    const noise = normal(9);
    const amps = fill(4000, (n) => 0.8 + 0.02 * noise() + (n < 1000 ? 0 : 30 * Math.exp(-(n - 1000) / 400)));
    const figures = take<InrushFigures>('inrush', 1e-6, { amps });
    expect(figures.offset).toBeCloseTo(0.8, 2);
    expect(figures.peak).toBeCloseTo(30, 1);
  });
});

describe('bursts', () => {
  it('are none in a noise of 30 % rms', () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const noise = normal(seed);
      const watts = fill(20_000, () => 0.05 * (1 + 0.3 * noise()));
      const figures = take<IdleFigures>('idle', 0.1, { watts });
      expect(figures.bursts).toBe(0);
      expect(figures.burst).toBeNull();
      expect(figures.watts).toBeCloseTo(0.05, 3);
    }
  });
  it.each([
    ['clean', 0],
    ['with 3 % noise', 0.03],
    ['with 8 % noise', 0.08],
  ])('of 50 to 74 mW are counted to 5 %%, %s', (_, part) => {
    const noise = normal(7);
    const watts = fill(36_000, (n) => ((n + 31) % 300 < 20 ? 0.074 : 0.05) + 0.05 * part * noise());
    const figures = take<IdleFigures>('idle', 0.05, { watts });
    expect(Math.abs(figures.bursts / 120 - 1)).toBeLessThanOrEqual(0.05);
    expect(figures.period).toBeCloseTo(15, 0);
    expect(figures.length).toBeCloseTo(1, 0);
  });
  // What a noisy record is smoothed with must neither lengthen a burst nor thin it: 2, 4 or 10 samples in 47.
  it.each([0.03, 0.08, 0.15, 0.3].flatMap((part) => [2, 4, 10].map((samples) => [part, samples] as const)))(
    'of 0.4 W have their power and length with %d noise and %i samples each',
    (part, samples) => {
      const noise = normal(11);
      const watts = fill(7200, (n) => (n % 47 < samples ? 0.4 : 0.05) + 0.05 * part * noise());
      const figures = take<IdleFigures>('idle', 0.5, { watts });
      expect(figures).toMatchObject({ bursts: 154, period: expect.closeTo(23.5, 6) });
      expect(Math.abs((figures.length ?? 0) - samples / 2)).toBeLessThan(0.05);
      expect(Math.abs((figures.burst ?? 0) / 0.4 - 1)).toBeLessThan(0.01);
      expect(figures.floor).toBeCloseTo(0.05, 3);
    },
  );
  it('of two samples in strong noise are not lost to what smooths it', () => {
    const noise = normal(12);
    const watts = fill(7200, (n) => (n % 47 < 2 ? 0.1 : 0.05) + 0.0075 * noise());
    const figures = take<IdleFigures>('idle', 0.5, { watts });
    expect(Math.abs(figures.bursts / 154 - 1)).toBeLessThan(0.1);
    expect(figures.burst).toBeCloseTo(0.1, 2);
  });
  it('of a coarse meter are not its last digit', () => {
    const watts = fill(6000, (n) => (n % 7 < 3 ? 0.05 : 0.06));
    expect(take<IdleFigures>('idle', 0.1, { watts }).bursts).toBe(0);
  });
});

describe('an early trigger', () => {
  it('does no harm to a fading output: 3 % of the record before it are enough', () => {
    const volts = fill(1000, (n) => (n < 30 ? 20 : 20 * Math.exp(-(n - 30) / 200)));
    const figures = take<FadingFigures>('fading', 0.01, { volts });
    expect(figures.from).toBe(20);
    expect(figures.half).toBeCloseTo(2 * (Math.log(2) + Math.log(0.95)), 1);
    expect(figures.findings).toEqual([]);
  });
  it('that leaves hardly anything before it is said', () => {
    const volts = fill(1000, (n) => (n < 2 ? 20 : 20 * Math.exp(-(n - 2) / 30)));
    expect(take<FadingFigures>('fading', 0.01, { volts }).findings.join()).toContain('record earlier');
  });
  it('does no harm to a dip', () => {
    const volts = fill(1000, (n) => (n >= 20 && n < 300 ? 8 : 12));
    expect(take<DipFigures>('dip', 0.001, { volts })).toMatchObject({ from: 12, lowest: 8, recovered: true });
  });
});

describe('a dip', () => {
  const after = (volts: number) =>
    take<DipFigures>('dip', 0.01, { volts: fill(400, (n) => (n < 100 ? 20 : n < 150 ? 0 : volts)) });
  it('from which it comes back at another level is not one from which it does not come back', () => {
    const lower = after(9);
    expect(lower).toMatchObject({ recovered: false, after: 9, lost: true });
    expect(lower.findings.join()).toContain('came back at 9.00 V');
    expect(captureSays(lower)).toContain('came back at 9 V');
    expect(after(0).findings.join()).toContain('not back at the end');
    expect(after(0).after).toBeUndefined();
    expect(after(20)).toMatchObject({ recovered: true });
  });
});

describe('a gap', () => {
  const looks = [...Array.from({ length: 100 }, (_, n) => n), ...Array.from({ length: 100 }, (_, n) => 160 + n)].map(
    (seconds) => ({ seconds, value: 0.05 }),
  );
  it('is reported, not bridged: neither its time nor its energy counts', () => {
    const even = evenly(looks);
    expect(even?.gaps).toEqual([{ from: 99, to: 160 }]);
    expect(even?.values[130]).toBeNaN();
    const figures = captureFigures('idle', {
      interval: even?.interval ?? 0,
      columns: { watts: even?.values ?? new Float64Array() },
      gaps: even?.gaps ?? [],
    });
    expect(figures).toMatchObject({ kind: 'idle', watts: expect.closeTo(0.05, 9), seconds: 200, bursts: 0 });
    expect('findings' in figures && figures.findings.join()).toContain('Nothing was read from 99.0 to 160.0 s');
  });
  describe('just where something happened', () => {
    const holed = (values: Float64Array, from: number, to: number) =>
      values.map((value, index) => (index >= from && index < to ? Number.NaN : value));
    // 14 V down to 8 V and up again, 0.1 V a second; gone below 9.45 V (second 46), back above 10.55 V (second 86).
    const supply = fill(121, (n) => (n <= 60 ? 14 - n * 0.1 : 8 + (n - 60) * 0.1));
    const output = fill(121, (n) => (n < 46 || n > 85 ? 20 : 0));
    const swept = (volts: Float64Array, fed = supply, gaps = [{ from: 0, to: 1 }]) => {
      const figures = captureFigures('sweep', { interval: 1, columns: { supply: fed, volts }, gaps });
      if (!('kind' in figures) || figures.kind !== 'sweep') throw new Error('no sweep');
      return figures;
    };
    it('tells between which voltages output went and came back, never the edge of the gap', () => {
      const went = swept(holed(output, 40, 50));
      expect(went.cutOut).toBeNull();
      expect(went.cutOutWithin).toEqual({ from: expect.closeTo(9, 9), to: expect.closeTo(10.1, 9) });
      expect(went.restart).toBeCloseTo(10.6, 9);
      expect(went.unread).toBe(10);
      expect(captureSays(went)).toBe(
        'Output goes between 9 V and 10.1 V and comes back at 10.6 V; 10 s of it not read.',
      );
      const came = swept(output, holed(supply, 80, 90));
      expect([came.cutOut, came.restart]).toEqual([expect.closeTo(9.4, 9), null]);
      expect(came.findings.join()).toContain('It came back between 9.90 and 11.00 V');
    });
    it('takes no gap for an output that is gone', () => {
      expect(swept(holed(output, 10, 20))).toMatchObject({ cutOut: expect.closeTo(9.4, 9), unread: 10 });
      const held = swept(
        holed(
          fill(121, () => 20),
          50,
          70,
        ),
      );
      expect(held).toMatchObject({ cutOut: null, restart: null, lowest: expect.closeTo(9, 0) });
      expect(held.cutOutWithin).toBeUndefined();
      expect(captureSays(held)).toBe('Output stays down to 9 V; 20 s of it not read.');
    });
    it('gives a fading output no time it was not seen at', () => {
      // 20 V, from second 10 on a volt less every second: 19 V is 95 %.
      const volts = fill(60, (n) => Math.max(0, n < 10 ? 20 : 20 - (n - 9)));
      const faded = (from: number, to: number) => {
        const figures = captureFigures('fading', {
          interval: 1,
          columns: { volts: holed(volts, from, to) },
          gaps: [{ from, to }],
        });
        if (!('kind' in figures) || figures.kind !== 'fading') throw new Error('nothing faded');
        return figures;
      };
      expect(faded(2, 4)).toMatchObject({ half: 9, empty: 18, last: 0 });
      const late = faded(25, 35);
      expect(late).toMatchObject({ half: 9, empty: null, last: 0 });
      expect(late.findings.join()).toContain('It fell below 0.80 V between 24.0 s and 35.0 s, while nothing was read');
      expect(captureSays(late)).toBe('Empty at the end; how long it took is not known; 10 s of it not read.');
      const start = faded(8, 15);
      expect(start).toMatchObject({ half: null, empty: null });
      expect(start.findings.join()).toContain('It began to fall between 7.0 s and 15.0 s');
      expect(captureSays(faded(15, 60))).toContain('Still 15 V at the end');
    });
  });
  it('in the middle of a noisy record hides no burst behind it, and lengthens no period', () => {
    // A burst of 2 s every 20 s, sampled twice a second for 1200 s, read by a meter of 8 % noise; 300 s are missing.
    const noise = normal(7);
    const clean = fill(2400, (n) => (n % 40 < 4 ? 0.4 : 0.05));
    const watts = clean.map((value, n) => (n >= 810 && n < 1410 ? Number.NaN : value * (1 + 0.08 * noise())));
    const figures = captureFigures('idle', { interval: 0.5, columns: { watts }, gaps: [{ from: 405, to: 705 }] });
    expect(figures).toMatchObject({
      bursts: 45,
      period: expect.closeTo(20, 1),
      length: expect.closeTo(2, 0),
      watts: expect.closeTo(0.05 + 0.35 * 0.1, 2),
      floor: expect.closeTo(0.05, 2),
      unread: 300,
    });
  });
  it('nobody declared is refused', () => {
    const watts = fill(40, (n) => (n === 5 ? Number.NaN : 1));
    expect(captureFigures('idle', { interval: 1, columns: { watts } })).toHaveProperty('reason');
  });
  it('times that go back or are no numbers are refused', () => {
    const at = (...times: number[]) => evenly(times.map((seconds) => ({ seconds, value: 1 })));
    expect(at(0, 2, 1, 3)).toBeNull();
    expect(at(0, Number.NaN, 2)).toBeNull();
    expect(at(0, 1, 2)?.gaps).toEqual([]);
  });
});

describe('accuracy', () => {
  const volts = fill(4000, (n) => 325 * Math.sin((TURN * 50 * n) / 20_000));
  const amps = fill(4000, (n) => 2 * Math.sin((TURN * 50 * n) / 20_000 - 0.5));
  it('of probe and scope makes that of the figures; none stated is said', () => {
    const spec = { ...NO_SPEC, readingPercent: 3 };
    const figures = take<WaveformFigures>('waveform', 1 / 20_000, { volts, amps }, { volts: spec, amps: spec });
    // 3 % rectangular on each: U = 2·√2·3 %/√3 of the power.
    expect((figures.expanded?.watts ?? 0) / figures.watts).toBeCloseTo((2 * Math.SQRT2 * 0.03) / Math.sqrt(3), 4);
    expect(captureSays(figures)).toContain('Power factor 0.88 ± 0.05');
    const bare = take<WaveformFigures>('waveform', 1 / 20_000, { volts, amps });
    expect(bare.expanded).toBeNull();
    expect(captureSays(bare)).toContain('accuracy of probe and scope not stated');
  });
  it('of an inrush counts twice in its ∫i²dt', () => {
    const surge = fill(3000, (n) => (n < 300 ? 0 : 40 * Math.exp(-(n - 300) / 400)));
    const figures = take<InrushFigures>('inrush', 1e-6, { amps: surge }, { amps: { ...NO_SPEC, readingPercent: 3 } });
    expect((figures.expanded?.peak ?? 0) / figures.peak).toBeCloseTo((2 * 0.03) / Math.sqrt(3), 6);
    expect((figures.expanded?.squareSeconds ?? 0) / figures.squareSeconds).toBeCloseTo((4 * 0.03) / Math.sqrt(3), 6);
  });
});
