// A cable judged as a whole: its stations and its claims.
import { describe, expect, it } from 'vitest';
import type { BendFault, CableFacts } from '../cable/index.ts';
import type { Promised } from '../promise/index.ts';
import { aCopy, aLook, aMarker, aPromise, aSeries, cableDossier } from '../testing/cable.ts';
import { judgeSample } from './judge.ts';
import type { Dossier } from './types.ts';

const MARK_240 = ['FF00A041', '18000000', '00000000', '00000000', '000A2640'];
const MARK_60 = ['FF00A041', '18000000', '00000000', '00000000', '00082020'];
const RATED_240: Promised = { kind: 'cable-rating', amps: 5, volts: 48 };
const RATED_60: Promised = { kind: 'cable-rating', amps: 3, volts: 20 };

const judged = (part: Partial<Dossier>, promises: readonly Promised[] = [], cable: Partial<CableFacts> = {}) =>
  judgeSample(cableDossier({ ...part, claims: promises.map((one) => aPromise(one)) }, cable));
const claimOf = (part: Partial<Dossier>, promise: Promised) => judged(part, [promise]).claims[0];

describe('a cable', () => {
  it('has stations of its own, and a charger has none of them', () => {
    expect(judged({}).stations.map(({ id }) => id)).toEqual([
      'intake',
      'claims',
      'marker',
      'resistance',
      'data',
      'bends',
      'verdict',
    ]);
  });
});

it('stands on the shelf with what is printed on it, the least of it, and with nothing by the watt', () => {
  expect(judged({}, [RATED_240, RATED_60]).figures).toMatchObject({ watts: 60, massPerWatt: null, pricePerWatt: null });
  expect(judged({}).figures).toMatchObject({ watts: null, efficiency: null, idle: null });
});

describe('its marker', () => {
  it('says what it may carry, the lower of both ends', () => {
    const { results } = judged({ readOuts: [aMarker('near', MARK_240), aMarker('far', MARK_240)] });
    expect(results.marker.rating).toEqual({ amps: 5, volts: 48, epr: true });
    expect(results.marker.findings).toEqual([]);
    const unlike = judged({ readOuts: [aMarker('near', MARK_240), aMarker('far', MARK_60)] }).results.marker;
    expect(unlike.rating?.amps).toBe(3);
    expect(unlike.findings[0]?.sentence).toContain('Its ends say different things: 5 A, 240 W and 3 A, 60 W');
  });

  it('that does not answer is at most 3 A, 60 W; printed 240 W it contradicts', () => {
    const { results, claims, stations } = judged({ readOuts: [aMarker('near', [])] }, [RATED_240]);
    expect(results.marker.rating).toEqual({ amps: 3, volts: 20, epr: false });
    expect(results.marker.findings.map(({ grade, sentence }) => [grade, sentence])).toEqual([
      ['fault', '5 A, 240 W (plug) is printed, and no marker answers: no charger gives it more than 3 A, 60 W.'],
    ]);
    expect(claims[0]).toMatchObject({ state: 'short' });
    expect(stations.find(({ id }) => id === 'marker')?.worst).toBe('short');
  });

  it('is nothing a charger says when it is asked for itself', () => {
    const port = ['FF00A041', '01800000', '00000000', '00000000', '000A2640'];
    const alone = judged({ readOuts: [aMarker('near', port)] }, [RATED_240]);
    expect(alone.results.marker.rating).toBeNull();
    expect(alone.results.marker.findings[0]?.sentence).toContain('A port answered for itself');
    expect(alone.claims[0]).toMatchObject({ state: 'not tested' });
    // At the other end nothing answered: what counts is that, not the port.
    const other = judged({ readOuts: [aMarker('near', port), aMarker('far', [])] }, [RATED_240]);
    expect(other.results.marker.rating).toEqual({ amps: 3, volts: 20, epr: false });
    expect(other.results.marker.findings.at(-1)?.sentence).toContain('no marker answers');
    const both = judged({ readOuts: [aMarker('near', port), aMarker('far', MARK_240)] }, [RATED_240]);
    expect(both.claims[0]).toMatchObject({ state: 'advertised only' });
  });

  it('counts as one where only one end carries it', () =>
    expect(judged({ readOuts: [aMarker('near', MARK_240), aMarker('far', [])] }).results.marker.rating?.amps).toBe(5));

  it('slower than printed, and more than printed, are told', () => {
    const said = (promise: Promised, words = MARK_240) =>
      judged({ readOuts: [aMarker('near', words)] }, [promise])
        .results.marker.findings.map(({ sentence }) => sentence)
        .join();
    expect(said({ kind: 'data-rate', bits: 10e9 })).toBe('10 Gbit/s is printed; its marker says 480 Mbit/s at most.');
    expect(said(RATED_60)).toContain('more than the 3 A, 60 W (plug) printed');
    expect(said(RATED_240, MARK_60)).toContain('its marker says 3 A, 60 W: no charger gives it more');
  });

  it('of an A to C cable is not missed, and an extension is told of', () => {
    const plain = judged({ readOuts: [aMarker('far', [])] }, [], { ends: ['A plug', 'C plug'] }).results.marker;
    expect(plain.findings).toEqual([]);
    const extension = judged({}, [], { form: 'extension', ends: ['C plug', 'C socket'] }).results.marker;
    expect(extension.findings[0]?.sentence).toContain('knows no extensions');
  });
});

describe('its resistance', () => {
  it('comes from all series of a side, as it is after the last bends', () => {
    const { resistance } = judged({
      cableRuns: [aSeries(0.15), aSeries(0.152), aSeries(0.154), aSeries(0.17, { bends: 2000 })],
      readOuts: [aMarker('near', MARK_60)],
    }).results;
    expect(resistance.series.map(({ bends, runIds }) => [bends, runIds.length])).toEqual([
      [0, 3],
      [2000, 1],
    ]);
    expect(resistance.loop?.value).toBeCloseTo(0.17, 4);
    expect(resistance.rated).toEqual({ amps: 3, by: 'by its marker' });
    expect(resistance.losses.at(-1)?.loss).toBeCloseTo(1.53, 2);
    expect(resistance.gauge).toBeCloseTo(24, 0);
  });

  it('proves a rating only with both conductors apart', () => {
    const readOuts = [aMarker('near', MARK_60)];
    expect(claimOf({ readOuts, cableRuns: [aSeries(0.15)] }, RATED_60)).toMatchObject({
      state: 'advertised only',
      notes: [expect.stringContaining('necessary and not sufficient')],
    });
    const apart = [aSeries(0.1, { side: 'vbus' }), aSeries(0.06, { side: 'ground' })];
    expect(claimOf({ readOuts, cableRuns: apart }, RATED_60)).toMatchObject({ state: 'proven' });
    expect(
      claimOf({ readOuts, cableRuns: [aSeries(0.1, { side: 'vbus' }), aSeries(0.09, { side: 'ground' })] }, RATED_60),
    ).toMatchObject({
      state: 'short',
      sentence: expect.stringContaining('along ground'),
    });
    expect(claimOf({ readOuts, cableRuns: [aSeries(0.3)] }, RATED_60)?.state).toBe('short');
    // A marker of 5 A makes no promise of 3 A harder: 0.18 Ω drop 540 mV at 3 A, and 900 mV at 5 A.
    const more = claimOf({ readOuts: [aMarker('near', MARK_240)], cableRuns: [aSeries(0.18)] }, RATED_60);
    expect(more?.state).toBe('advertised only');
    expect(more?.tests[0]?.value).toBeCloseTo(0.54, 2);
    expect(more?.tests[0]?.evidence.conditions).toContain('at 3 A');
    expect(claimOf({ readOuts: [aMarker('near', MARK_240)], cableRuns: [aSeries(0.18)] }, RATED_240)?.state).toBe(
      'short',
    );
    expect(claimOf({ cableRuns: [] }, RATED_240)?.state).toBe('not tested');
  });

  it('by meters whose accuracy nobody stated decides nothing', () => {
    const unstated = { amps: null, near: null, far: null };
    const result = claimOf(
      { readOuts: [aMarker('near', MARK_60)], cableRuns: [aSeries(0.2, { accuracy: unstated })] },
      RATED_60,
    );
    expect(result?.state).toBe('cannot be decided');
    expect(result?.unstated.map(({ quantity }) => quantity)).toEqual(['current', 'voltage']);
  });

  it('means something for a device: what is left, and to what the rating holds it', () => {
    const devices = [
      {
        id: 'd',
        name: 'Laptop',
        kind: 'laptop' as const,
        battery: null,
        ceilings: [{ connector: 'C', lead: 'own', volts: 20, watts: 90 }],
        baseline: null,
        note: '',
      },
    ];
    const [first] = judged({ devices, cableRuns: [aSeries(0.25)], readOuts: [aMarker('near', [])] }).results.resistance
      .devices;
    expect(first).toMatchObject({ device: 'Laptop', heldTo: 60, fate: 'stays' });
    expect(first?.at?.volts).toBeCloseTo(19.22, 2);
  });

  it('taken back or corrected does not count', () => {
    const wrong = aSeries(0.9);
    const { series } = judged({ cableRuns: [wrong, { ...aSeries(0.15), supersedes: wrong.id }] }).results.resistance;
    expect(series).toHaveLength(1);
    expect(series[0]?.ohms.value).toBeCloseTo(0.15, 4);
  });
});

describe('its data', () => {
  const RATE: Promised = { kind: 'data-rate', bits: 10e9 };
  it('is proven by a copy that needed the link, or by what the host calls it', () => {
    expect(claimOf({ cableRuns: [aCopy({ seconds: 2 })] }, RATE)).toMatchObject({ state: 'proven' });
    expect(claimOf({ cableRuns: [aCopy({ seconds: 2.6, link: 10e9 })] }, RATE)?.state).toBe('proven');
  });
  it('is never refuted by a slow copy alone, but by a slow link on a host that can do more', () => {
    expect(claimOf({ cableRuns: [aCopy()] }, RATE)).toMatchObject({
      state: 'at least',
      sentence: expect.stringContaining('At least 480 Mbit/s'),
    });
    expect(claimOf({ cableRuns: [aCopy({ link: 480e6 })] }, RATE)?.state).toBe('at least');
    expect(claimOf({ cableRuns: [aCopy({ link: 480e6, hostLink: 10e9 })] }, RATE)?.state).toBe('short');
    expect(
      claimOf({ cableRuns: [aCopy({ link: 480e6, hostLink: 10e9 }), aCopy({ seconds: 2, host: 'other' })] }, RATE)
        ?.state,
    ).toBe('borderline');
  });
  it('without a copy is at most advertised', () => {
    expect(claimOf({}, RATE)?.state).toBe('not tested');
    expect(claimOf({ readOuts: [aMarker('near', ['000A2642'])] }, RATE)?.state).toBe('advertised only');
  });
  it('repeats have an interval, failures are told', () => {
    const { data } = judged({
      cableRuns: [aCopy({ seconds: 50 }), aCopy({ seconds: 52 }), aCopy({ seconds: 51, errors: 1 })],
    }).results;
    expect(data.groups).toHaveLength(1);
    expect(data.groups[0]?.rate.interval).not.toBeNull();
    expect(data.findings).toEqual([
      { sentence: 'one file of 2 GB to the device: 1 copy was not the same.', fault: true },
    ]);
  });
});

describe('its bends', () => {
  const PROMISED: Promised = { kind: 'bends', count: 8000 };
  const stateOf = (looks: readonly (readonly [number, BendFault])[]) =>
    claimOf({ cableRuns: looks.map(([count, fault]) => aLook(count, { fault })) }, PROMISED)?.state;
  it('settle what is promised of them', () => {
    expect(stateOf([])).toBe('not tested');
    expect(stateOf([[4000, 'none']])).toBe('at least');
    expect(
      stateOf([
        [4000, 'none'],
        [8000, 'none'],
      ]),
    ).toBe('proven');
    expect(
      stateOf([
        [4000, 'none'],
        [8000, 'bump'],
      ]),
    ).toBe('proven');
    expect(
      stateOf([
        [4000, 'none'],
        [7000, 'open'],
      ]),
    ).toBe('short');
    expect(
      stateOf([
        [7000, 'none'],
        [9000, 'open'],
      ]),
    ).toBe('borderline');
    expect(
      stateOf([
        [8000, 'none'],
        [12_000, 'open'],
      ]),
    ).toBe('proven');
  });

  it('wear it where the resistance rises by a tenth and by more than its uncertainty', () => {
    const wearOf = (after: number, u = 0) =>
      judged({
        cableRuns: [
          aSeries(0.15),
          aLook(4000),
          aSeries(after, {
            bends: 4000,
            ...(u
              ? {
                  steps: aSeries(after).steps.map((one, at) => ({ ...one, drop: (one.drop ?? 0) + (at % 2 ? u : -u) })),
                }
              : {}),
          }),
        ],
      }).results.bends.wear[0];
    expect(wearOf(0.18)).toMatchObject({ worn: true, part: expect.closeTo(0.2, 2) });
    expect(wearOf(0.16)?.worn).toBe(false);
    expect(wearOf(0.16)?.sentence).toContain('more, but not worn');
    expect(wearOf(0.15)?.sentence).toContain('as before');
    expect(wearOf(0.18, 0.2)).toMatchObject({
      worn: false,
      sentence: expect.stringContaining('within its uncertainty'),
    });
    expect(
      judged({
        cableRuns: [aSeries(0.15, {}, null), aLook(4000), aSeries(0.18, { bends: 4000 }, null)],
      }).results.bends.findings.join(),
    ).toContain('warmer room');
    expect(
      judged({ cableRuns: [aLook(4000), aSeries(0.18, { bends: 4000 })] }).results.bends.findings.join(),
    ).toContain('before the first bend is not known');
  });

  it('go to the maker’s count and a margin, or to the same for all', () => {
    const { plan, next } = judged({ cableRuns: [aLook(4000)] }, [PROMISED]).results.bends;
    expect(plan).toMatchObject({
      count: 10_000,
      looks: [2000, 4000, 6000, 8000, 10_000],
      why: '8000 claimed and 25 % more',
    });
    expect(next).toBe(6000);
    expect(judged({}).results.bends.plan).toMatchObject({ count: 10_000, why: 'nothing is claimed: the usual count' });
  });
});
