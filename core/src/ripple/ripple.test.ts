import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../random/index.ts';
import { type RippleFigures, rippleOf } from './index.ts';

/** Sines by amplitude peak to peak, V, at Hz, with a phase; and noise of this rms. */
function record(
  rate: number,
  seconds: number,
  sines: readonly (readonly [volts: number, hertz: number, phase?: number])[],
  noise = 0,
): Float64Array {
  const normal = seededNormal(seededRandom(5));
  return Float64Array.from({ length: Math.round(rate * seconds) }, (_, at) =>
    sines.reduce(
      (sum, [volts, hertz, phase = 0]) => sum + (volts / 2) * Math.sin((2 * Math.PI * hertz * at) / rate + phase),
      noise > 0 ? noise * normal() : 0,
    ),
  );
}

const figures = (...args: Parameters<typeof rippleOf>): RippleFigures => {
  const found = rippleOf(...args);
  if ('reason' in found) throw new Error(found.reason);
  return found;
};

describe('ripple of a record', () => {
  it('20 mV at 100 Hz and 10 mV at 100 kHz: 29.98 mV, 7.906 mV rms, and both lines', () => {
    const found = figures(
      record(5e6, 0.2, [
        [0.02, 100],
        [0.01, 100e3],
      ]),
      2e-7,
      { mains: 50 },
    );
    expect(found.peakToPeak).toBeCloseTo(0.02998, 5);
    expect(found.rms).toBeCloseTo(0.007906, 6);
    expect(found.lines.map(({ kind }) => kind)).toEqual(['mains', 'switching']);
    expect(found.lines[0]?.peakToPeak).toBeCloseTo(0.02, 4);
    expect(found.lines[1]?.peakToPeak).toBeCloseTo(0.01, 4);
    expect(found.findings).toEqual([]);
  });

  it('each line is right to 1 % wherever it falls between the values of the spectrum', () => {
    for (let step = 0; step <= 10; step += 1) {
      const hertz = 65_000 + step * 7.63;
      const low = 103 + step * 0.5;
      const { lines } = figures(
        record(
          2e6,
          0.1,
          [
            [0.01, low, step],
            [0.006, hertz, 2 * step],
          ],
          2e-5,
        ),
        5e-7,
        { mains: 0 },
      );
      const near = (wanted: number) => lines.find((line) => Math.abs(line.hertz - wanted) < 3);
      expect(Math.abs((near(hertz)?.peakToPeak ?? 0) / 0.006 - 1)).toBeLessThan(0.01);
      expect(Math.abs((near(low)?.peakToPeak ?? 0) / 0.01 - 1)).toBeLessThan(0.01);
      expect(lines.length).toBe(2);
    }
  });

  it('lines are named: mains, bursts, switching, their multiples', () => {
    const { lines } = figures(
      record(
        10e6,
        0.1,
        [
          [0.01, 120],
          [0.004, 240],
          [0.02, 850],
          [0.008, 1700],
          [0.015, 132e3],
          [0.004, 264e3],
          [0.002, 396e3],
        ],
        1e-4,
      ),
      1e-7,
      { mains: 60 },
    );
    const named = Object.fromEntries(lines.map(({ hertz, kind }) => [Math.round(hertz), kind]));
    expect(named).toEqual({
      120: 'mains',
      240: 'harmonic',
      850: 'burst',
      1700: 'harmonic',
      132000: 'switching',
      264000: 'harmonic',
      396000: 'harmonic',
    });
  });

  it('all multiples of the mains are its own, however many: a saw tooth and a rectified wave', () => {
    // First part of a Fourier series, peak to peak, of a wave one high.
    const waves: readonly (readonly [(turn: number) => number, number])[] = [
      [(turn) => turn % 1, 2 / Math.PI],
      [(turn) => Math.abs(Math.sin(Math.PI * turn)), 8 / (3 * Math.PI)],
    ];
    for (const [wave, first] of waves) {
      const noise = seededNormal(seededRandom(8));
      const values = Float64Array.from({ length: 500_000 }, (_, at) => 0.01 * wave(at / 50_000) + 1e-4 * noise());
      const { lines } = figures(values, 2e-7, { mains: 50 });
      expect(lines.length).toBeGreaterThan(10);
      expect(lines.map(({ kind }) => kind)).toEqual(['mains', ...lines.slice(1).map(() => 'harmonic')]);
      expect((lines[0]?.peakToPeak ?? 0) / 0.01 / first).toBeCloseTo(1, 2);
    }
  });

  it('what packets make of a switching line stands on both sides of it, and switches nothing', () => {
    const noise = seededNormal(seededRandom(9));
    const values = Float64Array.from({ length: 500_000 }, (_, at) => {
      const [seconds, part] = [at / 5e6, ((at / 5e6) * 1300) % 1];
      return (part < 0.3 ? 0.02 * Math.sin(2 * Math.PI * 130e3 * seconds) : 0) + 0.01 * part + 5e-4 * noise();
    });
    const { lines } = figures(values, 2e-7, { mains: 50 });
    const around = lines.filter(({ hertz }) => Math.abs(hertz - 130e3) < 10e3);
    expect(around.length).toBeGreaterThanOrEqual(5);
    expect(around.filter(({ kind }) => kind === 'switching').map(({ hertz }) => Math.round(hertz))).toEqual([130_000]);
    expect(lines.find(({ kind }) => kind === 'burst')?.hertz).toBeCloseTo(1300, -1);
  });

  it('a frequency that wanders by 5 % lies where it wanders', () => {
    for (const pace of [400, 2000, 9000]) {
      const values = Float64Array.from({ length: 500_000 }, (_, at) => {
        const turn = (2 * Math.PI * at) / 5e6;
        return 0.01 * Math.sin(130e3 * turn + (6500 / pace) * Math.sin(pace * turn));
      });
      const strong = figures(values, 2e-7).lines.filter(({ peakToPeak }) => peakToPeak > 1.3e-3);
      expect(strong.length).toBeGreaterThan(2);
      for (const { hertz } of strong) expect(Math.abs(hertz - 130e3), `${hertz} Hz at ${pace} Hz`).toBeLessThan(12e3);
    }
  });

  it('what drifts at random or settles after a step has no lines; those that stand on it stay', () => {
    const noise = seededNormal(seededRandom(10));
    let walk = 0;
    const walked = Float64Array.from({ length: 500_000 }, () => {
      walk = 0.9999 * walk + 1e-4 * noise();
      return walk;
    });
    expect(figures(walked, 2e-7, { mains: 50 }).lines).toEqual([]);
    const stepped = Float64Array.from({ length: 500_000 }, (_, at) => {
      const seconds = at / 5e6;
      const settling = seconds > 0.05 ? 0.1 * Math.exp((0.05 - seconds) / 0.002) : 0;
      return settling + 0.005 * Math.sin(2 * Math.PI * 130e3 * seconds) + 5e-4 * noise();
    });
    expect(figures(stepped, 2e-7, { mains: 50 }).lines.map(({ kind, hertz }) => [kind, Math.round(hertz)])).toEqual([
      ['switching', 130_000],
    ]);
    const settled = Float64Array.from(
      { length: 500_000 },
      (_, at) => 0.02 * Math.exp(-at / 1e5) + 0.005 * Math.sin((2 * Math.PI * 100 * at) / 5e6) + 5e-4 * noise(),
    );
    const [mains, ...more] = figures(settled, 2e-7, { mains: 50 }).lines;
    expect(more).toEqual([]);
    expect(mains?.peakToPeak).toBeCloseTo(0.01, 4);
  });

  it('noise alone has no lines', () => {
    for (const [rate, seconds] of [
      [1e6, 0.05],
      [5e6, 0.2],
      [50e3, 1],
    ] as const)
      expect(figures(record(rate, seconds, [], 1e-3), 1 / rate).lines).toEqual([]);
  });
});

describe('findings', () => {
  it('too short for the mains, few steps, clipped, too slow for the bandwidth', () => {
    const short = figures(record(1e6, 0.01, [[0.01, 50e3]], 1e-4), 1e-6, { mains: 50, bandwidth: 20e6 });
    expect(short.findings.join()).toMatch(/1\.0 periods of 100 Hz/);
    expect(short.findings.join()).toMatch(/may be understated/);
    const coarse = record(1e6, 0.1, [[0.01, 50e3]], 1e-4).map((value) => Math.round(value / 0.001) * 0.001);
    expect(figures(coarse, 1e-6).findings.join()).toMatch(/steps of the digitiser/);
    const cut = record(1e6, 0.1, [[0.01, 1017]], 1e-5).map((value) => Math.min(0.003, value));
    expect(figures(cut, 1e-6).findings.join()).toMatch(/clipped/);
  });

  it('slow drift is told apart from ripple', () => {
    const drifting = record(
      1e6,
      0.2,
      [
        [0.01, 100],
        [0.002, 80e3],
      ],
      1e-4,
    ).map((value, at) => value + (0.02 * at) / 200_000);
    const found = figures(drifting, 1e-6, { mains: 50 });
    expect(found.drift).toBeCloseTo(0.02, 3);
    expect(found.findings.join()).toMatch(/Slow drift of (20|19\.[89]|20\.[12]) mV.*without it 12\.\d mV/);
    expect(figures(record(1e6, 0.2, [[0.01, 100]], 1e-4), 1e-6).drift).toBe(0);
  });

  it('an envelope has no rms and no spectrum, by its facts or by its look', () => {
    const plain = record(1e6, 0.1, [[0.01, 50e3]], 1e-4);
    expect(figures(plain, 1e-6, { envelope: true })).toMatchObject({ rms: null, lines: [] });
    const extremes = plain.map((_, at) => (at % 2 === 0 ? 0.01 : -0.01) * (1 + 0.05 * Math.sin(at)));
    expect(figures(extremes, 1e-6)).toMatchObject({ rms: null, lines: [] });
  });

  it('a multiple folded back from above half the rate is suspected', () => {
    // Third multiple of 220 kHz at 1 MS/s comes back at 340 kHz.
    const found = figures(
      record(
        1e6,
        0.1,
        [
          [0.02, 220e3],
          [0.006, 660e3],
        ],
        1e-4,
      ),
      1e-6,
      { mains: 0 },
    );
    expect(found.findings.join()).toMatch(/Aliasing suspected: the line at 340 kHz/);
  });

  it('samples out of range are counted, and nothing is guessed', () => {
    const gaps = record(1e6, 0.1, [[0.01, 50e3]], 1e-4);
    gaps[500] = Number.NaN;
    const found = figures(gaps, 1e-6);
    expect(found.lines).toEqual([]);
    expect(found.findings.join()).toMatch(/1 samples are out of range or missing/);
    expect(rippleOf(new Float64Array(3), 1e-6)).toHaveProperty('reason');
    expect(rippleOf(new Float64Array(100).fill(Number.NaN), 1e-6)).toHaveProperty('reason');
    expect(rippleOf(new Float64Array(100), Number.NaN)).toHaveProperty('reason');
    expect(figures(new Float64Array(100), 1e-6)).toMatchObject({ peakToPeak: 0, rms: 0, lines: [] });
  });

  it('the middle 99.99 % leaves a stray sample out', () => {
    const stray = record(1e6, 0.2, [[0.01, 100]]);
    stray[1234] = 0.05;
    const found = figures(stray, 1e-6);
    expect(found.peakToPeak).toBeCloseTo(0.055, 4);
    expect(found.peakToPeak9999).toBeCloseTo(0.01, 4);
  });
});

it('a line of the other mains makes one ask whether the supply is right', () => {
  const values = record(
    1e6,
    0.2,
    [
      [0.02, 100],
      [0.004, 90e3],
    ],
    1e-4,
  );
  expect(figures(values, 1e-6, { mains: 60 }).findings.join()).toMatch(
    /100 Hz is twice a mains of 50 Hz, and the supply is said to be 60 Hz/,
  );
  expect(figures(values, 1e-6, { mains: 50 }).findings).toEqual([]);
});
