import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { efficiencySeries } from '../efficiency/index.ts';
import { csvText } from '../table/index.ts';
import { aPoint, aReading, aRig } from '../testing/reading.ts';
import { packTrace, readTrace, unpackTrace } from '../trace/index.ts';
import {
  type Capture,
  captureContradiction,
  captureFigures,
  captureTable,
  correctionBrackets,
  currentCaptures,
  type DipFigures,
  evenly,
  type FadingFigures,
  harmonicParts,
  type IdleFigures,
  type InrushFigures,
  keptOf,
  minMax,
  readCapture,
  type SweepFigures,
  waveformFigures,
} from './index.ts';

const TURN = 2 * Math.PI;
const RATE = 20_000;
const sine = (samples: number, hertz: number, amplitude: number, phase = 0) =>
  Float64Array.from({ length: samples }, (_, index) => amplitude * Math.sin((TURN * hertz * index) / RATE + phase));
const wave = (volts: Float64Array, amps: Float64Array) => {
  const figures = waveformFigures(volts, amps, 1 / RATE);
  if ('reason' in figures) throw new Error(figures.reason);
  return figures;
};

describe('a mains waveform', () => {
  it('of pure sines in phase has power factor 1, crest √2 and no distortion', () => {
    const figures = wave(sine(4000, 50, 325.27, 0.3), sine(4000, 50, Math.SQRT2, 0.3));
    expect(figures.hertz).toBeCloseTo(50, 3);
    expect(figures.volts).toBeCloseTo(230, 1);
    expect(figures.amps).toBeCloseTo(1, 3);
    expect(figures.watts).toBeCloseTo(230, 0);
    expect(figures.powerFactor).toBeCloseTo(1, 4);
    expect(figures.currentCrest).toBeCloseTo(Math.SQRT2, 2);
    expect(figures.currentDistortion).toBeLessThan(1e-3);
  });

  it('shifted by 60° has power factor ½', () => {
    expect(wave(sine(4000, 60, 170, 1), sine(4000, 60, 1, 1 - Math.PI / 3)).powerFactor).toBeCloseTo(0.5, 2);
  });

  it('tells its harmonics: 30 % third and 20 % fifth make 36.06 %', () => {
    const amps = sine(4000, 50, 1, 0.2).map(
      (value, index) =>
        value + 0.3 * Math.sin((TURN * 150 * index) / RATE + 0.6) + 0.2 * Math.sin((TURN * 250 * index) / RATE),
    );
    const figures = wave(sine(4000, 50, 325, 0.2), amps);
    expect(figures.currentDistortion).toBeCloseTo(Math.hypot(0.3, 0.2), 3);
    expect(harmonicParts(figures)[2]).toBeCloseTo(0.3, 3);
    expect(harmonicParts({ harmonics: [0, 0] })).toEqual([0, 0]);
    expect(figures.powerFactor).toBeCloseTo(1 / Math.sqrt(1 + 0.09 + 0.04), 3);
  });

  it('notes a distorted supply, a probe the wrong way round, and too few cycles', () => {
    const volts = sine(1000, 50, 325).map((value, index) => value + 13 * Math.sin((TURN * 250 * index) / RATE));
    const { findings } = wave(volts, sine(1000, 50, -1));
    expect(findings).toEqual([
      'Power is negative: the current probe is the wrong way round.',
      expect.stringContaining('whole cycle'),
      'The supply itself is distorted by 4.0 %; 2 % is allowed for a verdict.',
    ]);
  });

  it('of another supply than it is said to be is told, a sagging one of the same is not', () => {
    const figures = wave(sine(4000, 50, 325), sine(4000, 50, 1));
    expect(captureContradiction({ kind: 'ac', volts: 230, hertz: 50 }, figures)).toBeNull();
    expect(captureContradiction({ kind: 'ac', volts: 240, hertz: 50 }, figures)).toBeNull();
    expect(captureContradiction({ kind: 'ac', volts: 115, hertz: 60 }, figures)).toBe(
      "It shows 229.8 V at 50.0 Hz, not 115 V 60 Hz. Choose the supply it was taken at, or check the probe's scale.",
    );
  });

  it('is refused without a whole cycle or with too few samples in one', () => {
    expect(waveformFigures(sine(300, 50, 325), sine(300, 50, 1), 1 / RATE)).toMatchObject({
      reason: expect.stringContaining('no whole cycle'),
    });
    const slow = Float64Array.from({ length: 200 }, (_, index) => Math.sin((TURN * index) / 20 + 0.1));
    expect(waveformFigures(slow, slow, 1e-3)).toMatchObject({ reason: expect.stringContaining('Sample faster') });
  });

  it('has the same figures wherever in the cycle the record begins', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: 45, max: 65, noNaN: true }),
        (phase, hertz) => {
          const figures = wave(sine(6000, hertz, 325, phase), sine(6000, hertz, 2, phase - 0.4));
          expect(figures.powerFactor).toBeCloseTo(Math.cos(0.4), 2);
          expect(figures.hertz).toBeCloseTo(hertz, 2);
        },
      ),
      { numRuns: 40 },
    );
  });
});

const taken = <T>(
  kind: Parameters<typeof captureFigures>[0],
  interval: number,
  columns: Record<string, number[] | Float64Array>,
): T => {
  const trace = Object.fromEntries(Object.entries(columns).map(([name, values]) => [name, Float64Array.from(values)]));
  const figures = captureFigures(kind, { interval, columns: trace });
  if ('reason' in figures) throw new Error(figures.reason);
  return figures as T;
};

describe('idle over time', () => {
  const bursts = (seconds: number, interval: number) =>
    Float64Array.from({ length: seconds / interval }, (_, index) => {
      const phase = (index * interval + 3) % 20;
      return phase < 0.5 ? 0.6 : 0.028 + 0.0004 * Math.sin(index * 1.7);
    });

  it('finds floor, bursts, their period and length, and the mean by energy', () => {
    const figures = taken<IdleFigures>('idle', 0.1, { watts: bursts(1200, 0.1) });
    expect(figures.bursts).toBe(60);
    expect(figures.period).toBeCloseTo(20, 6);
    expect(figures.length).toBeCloseTo(0.5, 6);
    expect(figures.floor).toBeCloseTo(0.028, 4);
    expect(figures.burst).toBeCloseTo(0.6, 6);
    expect(figures.watts).toBeCloseTo(0.028 + (0.6 - 0.028) * 0.025, 4);
    expect(figures.burstShare).toBeCloseTo((0.6 * 0.025) / figures.watts, 2);
    expect(figures.findings).toEqual([]);
  });

  it('of a steady draw has no bursts, and a short one says that it is short', () => {
    const figures = taken<IdleFigures>('idle', 1, {
      watts: Array.from({ length: 120 }, (_, index) => 0.08 + (index % 3) * 1e-4),
    });
    expect(figures).toMatchObject({ bursts: 0, burst: null, period: null, burstShare: 0 });
    expect(figures.findings[0]).toContain('Recorded for 120 s');
  });
});

describe('one event', () => {
  it('inrush: peak, ∫i²dt and length of the surge', () => {
    const amps = Array.from({ length: 2000 }, (_, index) => (index < 200 ? 0 : 40 * Math.exp(-(index - 200) / 150)));
    const figures = taken<InrushFigures>('inrush', 1e-6, { amps });
    expect(figures.peak).toBe(40);
    expect(figures.at).toBeCloseTo(200e-6, 9);
    // ∫ from the peak to a tenth of it: I²τ/2·(1 − 0.01).
    expect(figures.squareSeconds).toBeCloseTo(((40 ** 2 * 150e-6) / 2) * 0.99, 2);
    expect(figures.findings).toEqual([]);
    expect(taken<InrushFigures>('inrush', 1e-6, { amps: amps.slice(200) }).findings[0]).toContain('touches the edge');
  });

  it('a fading output: half and empty from where it begins to fall', () => {
    const volts = Array.from({ length: 400 }, (_, index) => (index < 50 ? 5 : 5 * Math.exp(-(index - 50) / 60)));
    const figures = taken<FadingFigures>('fading', 0.1, { volts });
    expect(figures.from).toBeCloseTo(5, 9);
    expect(figures.half).toBeCloseTo(60 * 0.1 * (Math.log(2) + Math.log(0.95)), 0);
    expect(figures.empty).toBeCloseTo(60 * 0.1 * (Math.log(5 / 0.8) + Math.log(0.95)), 0);
    const short = taken<FadingFigures>('fading', 0.1, { volts: volts.slice(0, 80) });
    expect(short.empty).toBeNull();
    expect(short.findings[0]).toContain('stays charged longer');
  });

  it('a dip: how low, for how long, and whether it came back', () => {
    const volts = Array.from({ length: 200 }, (_, index) => (index > 50 && index < 80 ? 8.1 : 9.03));
    expect(taken<DipFigures>('dip', 0.01, { volts })).toMatchObject({
      lowest: 8.1,
      outside: expect.closeTo(0.29, 9),
      recovered: true,
      lost: false,
    });
    const gone = volts.map((value, index) => (index > 60 ? 0 : value));
    expect(taken<DipFigures>('dip', 0.01, { volts: gone })).toMatchObject({ lost: true, recovered: false });
  });

  it('a sweep: where output goes and where it comes back', () => {
    const supply = Array.from({ length: 121 }, (_, index) => (index <= 60 ? 14 - index * 0.1 : 8 + (index - 60) * 0.1));
    let on = true;
    const volts = supply.map((value) => {
      if (value < 9.45) on = false;
      if (value > 10.55) on = true;
      return on ? 20.05 : 0;
    });
    // It falls from 14 V past 9.45 V, then rises past 10.55 V.
    const figures = taken<SweepFigures>('sweep', 0.5, { supply, volts });
    expect(figures.cutOut).toBeCloseTo(9.4, 9);
    expect(figures.restart).toBeCloseTo(10.6, 9);
    const held = taken<SweepFigures>('sweep', 0.5, { supply, volts: supply.map(() => 20) });
    expect(held).toMatchObject({ cutOut: null, restart: null, lowest: 8 });
    expect(held.findings[0]).toContain('cut-out lies lower');
  });
});

describe('a capture that cannot be taken', () => {
  const some = Float64Array.from({ length: 40 }, (_, index) => index);
  it.each([
    ['no column', 'waveform', { volts: some }, 'no column of amps'],
    ['too short', 'idle', { watts: some.slice(0, 5) }, '16 or more'],
    ['a gap', 'idle', { watts: some.map((value) => (value === 7 ? Number.NaN : value)) }, 'has gaps'],
    ['unequal', 'sweep', { volts: some, supply: some.slice(1) }, 'differ in length'],
  ] as const)('%s says why', (_, kind, columns, says) => {
    expect(captureFigures(kind, { interval: 1, columns })).toMatchObject({ reason: expect.stringContaining(says) });
  });

  it('without a time step neither', () => {
    expect(captureFigures('idle', { interval: 0, columns: { watts: some } })).toMatchObject({
      reason: expect.stringContaining('above zero'),
    });
  });
});

describe('a capture as a file', () => {
  const text = [
    'scope export',
    'time (ms);voltage [V];current [mA]',
    ...Array.from({ length: 20 }, (_, index) => `${index * 0.5};${(index * 0.1).toFixed(1).replace('.', ',')};250`),
  ].join('\n');

  it('is read with its units and either decimal sign', () => {
    const read = readCapture('waveform', text.replaceAll('0.5', '0,5').replace(/^(\d+)\.(\d+);/gm, '$1,$2;'));
    expect(read).toMatchObject({ ok: true, samples: 20 });
    if (!read.ok) return;
    expect(read.trace.interval).toBeCloseTo(0.0005, 12);
    expect(read.trace.columns.amps?.[3]).toBe(0.25);
    expect(read.trace.columns.volts?.[3]).toBeCloseTo(0.3, 12);
  });

  it('says with its figures which units were assumed', () => {
    const lines = Array.from({ length: 800 }, (_, at) => {
      const turn = (at / 200) * 2 * Math.PI;
      return `${at * 100},${(325 * Math.sin(turn)).toFixed(2)},${(0.4 * Math.sin(turn)).toFixed(4)}`;
    });
    const kept = keptOf(
      { kind: 'waveform', mains: { kind: 'ac', volts: 230, hertz: 50 } },
      readTrace(`time [us],CH1,CH2\n${lines.join('\n')}\n`),
    );
    expect('reason' in kept ? kept.reason : kept.figures.findings).toContain(
      'No unit is stated: "CH1" in V, "CH2" in A is assumed.',
    );
  });

  it.each([
    ['the mains by the names of an input', 'waveform', 'Vin [V],Iin [A]', { volts: 230, amps: 1 }],
    ['what was read, not what was set or the extremes beside it', 'idle', 'P max [W],Power avg [W]', { watts: 1 }],
    ['what comes out while a supply dips', 'dip', 'Vin [V],Vout [V]', { volts: 1 }],
  ] as const)('takes %s', (_, kind, heads, columns) => {
    const lines = Array.from({ length: 20 }, (_unused, at) => `${at},230,1`);
    const read = readCapture(kind, `t [s],${heads}\n${lines.join('\n')}\n`);
    if (!read.ok) throw new Error(read.reason);
    expect(Object.fromEntries(Object.entries(read.trace.columns).map(([name, all]) => [name, all?.[7]]))).toEqual(
      columns,
    );
  });

  it.each(['ripple', 'waveform', 'inrush'] as const)(
    'sent as its samples alone says of %s what the file did',
    (kind) => {
      const lines = Array.from({ length: 2000 }, (_, at) => {
        const turn = (at / 200) * 2 * Math.PI;
        return `${at * 100},${(325 * Math.sin(turn)).toFixed(2)},${(0.4 * Math.sin(turn)).toFixed(4)}`;
      });
      const head = { kind, mains: { kind: 'ac' as const, volts: 230, hertz: 50 } };
      const heads = kind === 'inrush' ? 'time [us],CH1 [V],CH2' : 'time [us],CH1,CH2';
      const first = keptOf(head, readTrace(`${heads}\n${lines.join('\n')}\nMean,1,2\n`));
      if ('reason' in first) throw new Error(first.reason);
      for (const says of [/No unit is stated: "CH/, /Behind the table a line was left out/])
        expect(first.figures.findings.join(' ')).toMatch(says);
      expect(keptOf(head, unpackTrace(packTrace(first.trace)))).toMatchObject({ figures: first.figures });
    },
  );

  it('has no volts of an output where only its supply was logged', () => {
    const lines = Array.from({ length: 20 }, (_, at) => `${at},13.8`);
    expect(readCapture('dip', `t [s],Vin [V]\n${lines.join('\n')}\n`)).toMatchObject({ ok: false });
  });

  it('goes out and comes back', () => {
    const trace = {
      interval: 0.1,
      columns: { watts: Float64Array.from({ length: 30 }, (_, index) => 0.03 + index / 1000) },
    };
    const read = readCapture('idle', csvText(captureTable(trace)));
    const drift = [...trace.columns.watts].map((value, index) =>
      Math.abs(value - ((read.ok && read.trace.columns.watts?.[index]) || 0)),
    );
    expect(Math.max(...drift)).toBeLessThan(1e-8);
    expect(read.ok && read.trace.interval).toBeCloseTo(0.1, 9);
  });

  it.each([
    ['a missing column', 'time,volts\n0,1\n1,2', 'waveform', 'No column of amps'],
    ['a word among numbers', 'time,power\n0,1\n1,lots\n2,1', 'idle', 'Line 3: "lots" under "power" is no number'],
    ['times that stand still', 'time,power\n0,1\n0,1\n0,1', 'idle', 'do not rise'],
    ['uneven times', 'time,volts,amps\n0,1,1\n1,1,1\n5,1,1\n6,1,1', 'waveform', 'not evenly spaced'],
    ['a unit nobody knows', 'time [s],power [hp]\n0,1\n1,1', 'idle', '"hp" is not a unit'],
    ['nothing', '', 'idle', 'empty'],
  ] as const)('with %s says what and where', (_, wrong, kind, says) => {
    expect(readCapture(kind, wrong)).toMatchObject({ ok: false, reason: expect.stringContaining(says) });
  });
});

describe('where correction wakes up', () => {
  const setup = {
    id: 's1',
    name: 'C1 20 V',
    outputs: [{ port: 'C1', volts: 20, amps: 5 }],
    evidence: 'load',
    rigId: 'rig',
    purpose: 'efficiency',
  } as const;
  const at = (load: number, factor: number) => {
    const point = aPoint({ load, watts: 110 * load, out: { C1: [20, 5 * load] } });
    return { ...point, readings: [...point.readings, aReading({ quantity: 'power-factor', value: factor })] };
  };
  const brackets = (...points: [number, number][]) =>
    correctionBrackets([
      efficiencySeries(
        setup,
        points.map(([load, factor]) => at(load, factor)),
        [aRig()],
      ),
    ]);

  it('is the bracket of the largest step', () => {
    const [bracket] = brackets([0.1, 0.42], [0.25, 0.45], [0.5, 0.5], [0.75, 0.95], [1, 0.97]);
    expect(bracket).toMatchObject({
      between: [0.5, 0.75],
      betweenWatts: [expect.closeTo(50, 6), expect.closeTo(75, 6)],
    });
    expect(bracket?.says).toBe('Correction wakes up between 50 % and 75 % load (50 and 75 W out).');
  });

  it('says where there is none to be seen', () => {
    expect(brackets([0.25, 0.45], [1, 0.55])[0]).toMatchObject({
      between: null,
      says: 'Not corrected at any load measured.',
    });
    expect(brackets([0.25, 0.9], [1, 0.97])[0]?.says).toBe('Corrected at every load measured.');
    expect(correctionBrackets([])).toEqual([]);
  });
});

describe('many samples', () => {
  it('are drawn by lowest and highest of each bucket, so that no spike is lost', () => {
    const values = new Float64Array(100_000);
    values[54_321] = 9;
    values[70_007] = -4;
    const drawn = minMax(values, 1e-3, 500);
    expect(drawn.length).toBeLessThanOrEqual(1000);
    expect(drawn.find(({ y }) => y === 9)?.x).toBeCloseTo(54.321, 9);
    expect(drawn.some(({ y }) => y === -4)).toBe(true);
    expect(drawn.every(({ x }, index) => index === 0 || x >= (drawn[index - 1]?.x ?? 0))).toBe(true);
  });

  it('captures that were taken back or replaced no longer stand', () => {
    const of = (id: string, supersedes: string | null = null, withdrawn = false) =>
      ({ id, supersedes, withdrawn }) as Capture;
    expect(currentCaptures([of('a'), of('b', 'a'), of('c'), of('d', 'c', true)]).map(({ id }) => id)).toEqual(['b']);
  });
});

describe('readings that come a little early or late', () => {
  it('become even samples, linear in between', () => {
    const readings = [0, 0.9, 2.05, 3, 4].map((seconds) => ({ seconds, value: 2 * seconds }));
    const even = evenly(readings);
    expect(even?.values.length).toBeGreaterThan(3);
    even?.values.forEach((value, index) => {
      expect(value).toBeCloseTo(2 * index * even.interval, 9);
    });
    const other = evenly(readings, { from: 1, interval: 0.5, count: 4 });
    expect([...(other?.values ?? [])].map((value) => Number(value.toFixed(9)))).toEqual([2, 3, 4, 5]);
  });

  it('fewer than two are none', () => {
    expect(evenly([])).toBeNull();
    expect(evenly([{ seconds: 1, value: 1 }])).toBeNull();
  });
});
