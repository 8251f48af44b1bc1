import { describe, expect, it } from 'vitest';
import type { Mains, Setup } from '../reading/index.ts';
import { aPoint, aRig } from '../testing/reading.ts';
import { compareSeries, efficiencySeries, efficiencySurface, type Side, surfaceTable } from './index.ts';

const EU: Mains = { kind: 'ac', volts: 230, hertz: 50 };
const US: Mains = { kind: 'ac', volts: 115, hertz: 60 };
const LOADS = [0.1, 0.25, 0.5, 0.75, 1];

const setupOf = (id: string, volts: number, amps: number, part: Partial<Setup> = {}): Setup => ({
  id,
  name: `C1 ${volts} V`,
  outputs: [{ port: 'C1', volts, amps }],
  evidence: 'load',
  rigId: 'rig',
  purpose: 'efficiency',
  ...part,
});

const points = (setup: Setup, mains: Mains, eta: number, loads = LOADS, u = 0.01) =>
  loads.map((load) => {
    const [{ volts, amps } = { volts: 0, amps: 0 }] = setup.outputs;
    return aPoint({
      setupId: setup.id,
      mains,
      load,
      u,
      watts: (volts * amps * load) / (eta + load * 0.01),
      out: { C1: [volts, amps * load] },
    });
  });

const twenty = setupOf('s20', 20, 2.25);
const five = setupOf('s5', 5, 3);
const all = [...points(twenty, EU, 0.9), ...points(twenty, US, 0.88), ...points(five, EU, 0.85, [0.25, 0.5, 0.75, 1])];
const series = [twenty, five].map((setup) => efficiencySeries(setup, all, [aRig()]));

describe('the surface of a sample', () => {
  const surface = efficiencySurface(series);

  it('has a row a level and mains, a column a load, and holes where nothing was measured', () => {
    expect(surface.loads).toEqual(LOADS);
    expect(surface.rows.map(({ name, mains }) => [name, mains.volts])).toEqual([
      ['C1 20 V', 115],
      ['C1 20 V', 230],
      ['C1 5 V', 230],
    ]);
    expect(surface.rows[2]?.cells[0]).toBeNull();
    expect(surface.rows[2]?.result.average?.value).toBeCloseTo(0.85 + 0.00625, 9);
  });

  it('names its extremes with level, mains and load', () => {
    expect([surface.best?.row.name, surface.best?.row.mains.volts, surface.best?.at.load]).toEqual(['C1 20 V', 230, 1]);
    expect([surface.worst?.row.name, surface.worst?.at.load]).toEqual(['C1 5 V', 0.25]);
    expect([surface.mostLoss?.row.mains.volts, surface.mostLoss?.at.load]).toEqual([115, 1]);
    expect(surface.mostLoss?.at.loss.value).toBeCloseTo(45 / 0.89 - 45, 9);
  });

  it('goes out as a table, a line a point', () => {
    const table = surfaceTable(surface);
    expect(table).toHaveLength(15);
    expect(table[1]?.slice(0, 3)).toEqual(['C1 20 V', '115 V 60 Hz', 10]);
  });

  it('of nothing is empty', () => expect(efficiencySurface([])).toMatchObject({ loads: [], rows: [], best: null }));
});

describe('two series compared', () => {
  const side = (name: string, setup: Setup, eta: number, part: Partial<Side> = {}, mains = [EU]): Side => ({
    name,
    series: efficiencySeries(
      setup,
      mains.flatMap((one) => points(setup, one, eta)),
      [aRig()],
    ),
    rigId: 'rig',
    warmUp: 1800,
    ...part,
  });

  it('give the difference with its uncertainty, and call it only beyond that', () => {
    const clear = compareSeries(side('first', twenty, 0.9), side('second', twenty, 0.93));
    const average = clear.pairs.find(({ load }) => load === null);
    expect(average?.difference.value).toBeCloseTo(0.03, 9);
    expect(clear.pairs.filter(({ load }) => load !== null)).toHaveLength(5);
    expect(average?.differs).toBe(true);
    const close = compareSeries(side('first', twenty, 0.9), side('second', twenty, 0.9001));
    expect(close.pairs.find(({ load }) => load === null)?.differs).toBe(false);
  });

  it('are not compared where 100 % or the kind of load differs, and say so', () => {
    const levels = compareSeries(side('first', twenty, 0.9), side('second', five, 0.85));
    expect(levels).toMatchObject({ pairs: [], unlike: ['100 % is 20 V 2.25 A for first, 5 V 3 A for second.'] });
    const device = setupOf('s20', 20, 2.25, { evidence: 'device' });
    expect(compareSeries(side('first', twenty, 0.9), side('second', device, 0.9)).unlike).toEqual([
      'first was loaded by an electronic load, second by a real device.',
    ]);
  });

  it('say which mains or warm-up only one of them had', () => {
    const result = compareSeries(
      side('first', twenty, 0.9, {}, [EU, US]),
      side('second', twenty, 0.9, { warmUp: 600 }),
    );
    expect(result.unlike).toEqual([
      'first was warmed up 30 min, second 10 min.',
      'Only first was measured at 115 V 60 Hz.',
    ]);
    expect(result.pairs.every(({ mains }) => mains.volts === 230)).toBe(true);
  });
});

describe('one meter on both sides', () => {
  it('may err on both alike, but nobody’s spec says so: nothing of it cancels in the efficiency', () => {
    const readings = (instrumentId: string | null) =>
      points(twenty, EU, 0.9, [1]).map((point) => ({
        ...point,
        readings: point.readings.map((reading) => ({
          ...reading,
          instrumentId,
          u: reading.quantity === 'power' ? 0.5 : reading.u,
        })),
      }));
    const of = (instrumentId: string | null) =>
      efficiencySeries(twenty, readings(instrumentId), [aRig()]).byMains[0]?.loads[0]?.efficiency.uInstrument ?? 0;
    expect(of('analyser')).toBeCloseTo(of(null), 12);
    expect(of('analyser')).toBeGreaterThan(0);
  });
});
