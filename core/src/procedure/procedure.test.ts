import { describe, expect, it } from 'vitest';
import type { Point, Taken } from '../reading/index.ts';
import { aPoint, byTheBook, takenByTheBook } from '../testing/reading.ts';
import { measured } from '../uncertainty/index.ts';
import { deviations, PROCEDURES, procedureOf, type TakenPoint, takenOf } from './index.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const strict = procedureOf('one-percent');

const taken = (part: Partial<Taken> = {}): Taken => ({ ...takenByTheBook(EU), ...part });
const at = (load: number, part: Partial<Taken> = {}, more: Partial<Point> = {}): TakenPoint => ({
  point: aPoint({ load, taken: taken(part), ...more }),
  powers: [{ what: 'Input', watts: measured(50 * load, 0.02) }],
  findings: [],
});
const series = (part: Partial<Taken> = {}) => [1, 0.75, 0.5, 0.25].map((load) => at(load, part));
const minute = (count: number) => new Date(Date.UTC(2026, 2, 2, 9, count)).toISOString();

describe('a series by the book', () => {
  it('has nothing against it', () => expect(deviations(strict, series(), [])).toEqual([]));

  it('may be averaged for 30 min where it does not settle', () => {
    const rest = { drift: 0.03, over: 1800, averaged: true };
    expect(deviations(strict, series({ rest }), [])).toEqual([]);
  });

  it('may be taken over again from full load', () => {
    const loads = [1, 0.5, 0.25, 1, 0.5];
    const points = loads.map((load, index) => at(load, {}, { takenAt: minute(index) }));
    expect(deviations(strict, points, [])).toEqual([]);
  });
});

describe('what deviates is said', () => {
  it.each([
    ['a short warm-up', { warmUp: 720 }, 'Warmed up 12 min; the procedure asks for 30 min.'],
    ['a warm-up nobody recorded', { warmUp: null }, 'Warm-up is not recorded.'],
    [
      'drift',
      { rest: { drift: 0.021, over: 300, averaged: false } },
      'Input still drifted 2.1 %; the procedure allows 1.0 %.',
    ],
    [
      'too short a look',
      { rest: { drift: 0.001, over: 60, averaged: false } },
      'Watched for 1 min; the procedure asks for 5 min.',
    ],
    [
      'too short an average',
      { rest: { drift: 0.05, over: 600, averaged: true } },
      'Averaged over 10 min; without settling the procedure asks for 30 min.',
    ],
    ['settling nobody recorded', { rest: null }, 'How the input settled is not recorded.'],
    [
      'a supply off its voltage',
      { source: { volts: 226, hertz: 50, distortion: 0.01, crest: null } },
      'Supply at 226 V; 230 V 50 Hz ± 1 % is asked.',
    ],
    [
      'a distorted supply',
      { source: { volts: 230, hertz: 50, distortion: 0.031, crest: null } },
      'Supply distorted by 3.1 %; at most 2 % is allowed.',
    ],
    [
      'a supply that is no sine',
      { source: { volts: 230, hertz: 50, distortion: 0.01, crest: 1.6 } },
      'Crest factor of the supply 1.60; 1.34 to 1.49 is allowed.',
    ],
    [
      'a supply nobody looked at',
      { source: { volts: null, hertz: null, distortion: null, crest: null } },
      'Supply voltage, frequency, distortion not recorded.',
    ],
  ] as const)('%s', (_, part, says) => expect(deviations(strict, series(part), [])).toEqual([says]));

  it('with the load it is about, where others were fine', () => {
    const points = [at(1), at(0.75), at(0.5), at(0.25, { rest: { drift: 0.02, over: 300, averaged: false } })];
    expect(deviations(strict, points, [])).toEqual(['At 25 %: Input still drifted 2.0 %; the procedure allows 1.0 %.']);
  });

  it('an order that climbs', () => {
    const points = [1, 0.5, 0.75, 0.25].map((load, index) => at(load, {}, { takenAt: minute(index) }));
    expect(deviations(strict, points, [])).toEqual([
      'Out of order: 75 % was taken after 50 %; downwards from full load is asked.',
    ]);
  });

  it('a meter too coarse, as a fraction from half a watt on and in watts below', () => {
    const coarse: TakenPoint = { ...at(1), powers: [{ what: 'Input', watts: measured(10, 0.15) }] };
    expect(deviations(strict, [coarse], [])).toEqual(['Input is known to ± 3.0 %; 2 % is asked.']);
    const idle: TakenPoint = {
      point: aPoint({ load: 0, setupId: null, taken: taken({ warmUp: null, rest: null }) }),
      powers: [{ what: 'Idle', watts: measured(0.08, 0.006) }],
      findings: [],
    };
    expect(deviations(strict, [idle], [])).toEqual(['Idle is known to ± 12 mW; 10 mW is asked.']);
  });

  it('a device as the load, and an overdue meter', () => {
    const point = aPoint({ load: 1, evidence: 'device', taken: taken() });
    const overdue = { ...point, readings: [{ ...aPoint({ watts: 50 }).readings[0], overdue: true }] } as Point;
    expect(deviations(strict, [{ point: overdue, powers: [], findings: [] }], [])).toEqual([
      'Loaded by a real device, not by an electronic load.',
      'A meter was overdue for calibration.',
    ]);
  });

  it('meters of which no calibration is stated, by their names', () => {
    const [reading] = aPoint({ watts: 50 }).readings;
    const read = { ...aPoint({ load: 1, taken: taken() }), readings: [{ ...reading, instrumentId: 'm' }] } as Point;
    const meter = (part: object) => [{ id: 'm', name: 'Wall meter', specs: {}, sees: null, ...part }];
    const says = (part: object) => deviations(strict, [{ point: read, powers: [], findings: [] }], [], meter(part));
    expect(says({})).toEqual(['Calibration not stated: Wall meter.']);
    expect(says({ calibratedOn: '2026-01-05' })).toEqual([]);
    expect(says({ calibrationDue: '2027-01-05' })).toEqual([]);
    expect(says({ id: 'another' })).toEqual([]);
  });
});

describe('the older procedure', () => {
  it('allows 5 % of drift', () => {
    const rest = { drift: 0.04, over: 300, averaged: false };
    expect(deviations(procedureOf('five-percent'), series({ rest }), [])).toEqual([]);
    expect(deviations(strict, series({ rest }), [])).toHaveLength(1);
  });

  it('an unknown procedure is the strict one', () => {
    expect(procedureOf('gone')).toBe(PROCEDURES[0]);
  });
});

describe('a statement', () => {
  const bare = aPoint({ load: 1, taken: null });

  it('stands in where a point has no record of its own, for its loading and supply only', () => {
    expect(takenOf(bare, [byTheBook('s1', EU)])).toEqual(taken());
    expect(takenOf(bare, [byTheBook('s2', EU)])).toBeNull();
    expect(takenOf(bare, [byTheBook('s1', { ...EU, volts: 115, hertz: 60 })])).toBeNull();
  });

  it('never overrules what a run recorded; the newest counts', () => {
    const recorded = aPoint({ load: 1, taken: taken({ warmUp: 600 }) });
    expect(takenOf(recorded, [byTheBook('s1', EU)])?.warmUp).toBe(600);
    const older = { ...byTheBook('s1', EU), statedAt: '2026-03-01T10:00:00.000Z', taken: taken({ warmUp: 60 }) };
    expect(takenOf(bare, [byTheBook('s1', EU), older])?.warmUp).toBe(1800);
  });
});
