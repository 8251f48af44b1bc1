import { describe, expect, it } from 'vitest';
import { dossierFor, EU } from '../testing/verdict.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { judgeSample } from '../verdict/index.ts';
import { bondOf, bondResult } from './bond.ts';
import { checksOf, type EarthCheck, type SafetyCheck, safetyRefusal, type TouchCheck } from './checks.ts';
import { describeCheck } from './describe.ts';
import { classALimit, harmonicsOf, limitsHold } from './harmonics.ts';
import { leverOf } from './lever.ts';
import { SAFETY_LIMITS } from './limits.ts';
import { judgeEarth, judgeTouch, ownTouch } from './touch.ts';

const [COMPUTING, HOUSEHOLD] = SAFETY_LIMITS as unknown as [
  (typeof SAFETY_LIMITS)[number],
  (typeof SAFETY_LIMITS)[number],
];
const head = {
  takenAt: '2026-03-02T10:00:00.000Z',
  note: '',
  supersedes: null,
  withdrawn: false,
  by: { person: 'Workshop electrician', standing: 'licensed' },
  instrumentId: null,
} as const;
/** ±2 µA stated at k = 2: U is 2 µA. */
const METER = { ...NO_SPEC, offset: 2e-6, coverage: 'k = 2 or 95 %' } as const;
const touch = (part: Partial<TouchCheck> = {}): TouchCheck => ({
  ...head,
  id: 't',
  kind: 'touch',
  accuracy: METER,
  amps: 250e-6,
  form: 'rms',
  network: 'perception',
  mains: EU,
  polarity: 'as plugged in',
  earth: 'none',
  from: 'shell of C1',
  loaded: false,
  ...part,
});
const earth = (ohms: number, testAmps = 32): EarthCheck => ({
  ...head,
  id: 'e',
  kind: 'earth',
  accuracy: { ...NO_SPEC, offset: 0.004, coverage: 'k = 2 or 95 %' },
  ohms,
  testAmps,
  to: 'shell of C1',
});
const state = (check: TouchCheck, set = COMPUTING) =>
  judgeTouch(check, [set], 'guarded').judged.map((one) => one.state);

describe('a touch current', () => {
  it('is held against the limit for the way it was read and the earth as it stood', () => {
    expect(state(touch())).toEqual(['proven']);
    expect(state(touch(), HOUSEHOLD)).toEqual(['borderline']);
    expect(state(touch({ amps: 497.9e-6 }))).toEqual(['proven']);
    expect(state(touch({ amps: 499e-6 }))).toEqual(['borderline']);
    expect(state(touch({ amps: 503e-6 }))).toEqual(['short']);
    // 0.707 mA peak is what a sine of 0.5 mA rms has.
    expect(state(touch({ amps: 650e-6, form: 'peak' }))).toEqual(['proven']);
    expect(state(touch({ amps: 650e-6, form: 'rms' }))).toEqual(['short']);
    // With the earth open much more may flow, read as let-go.
    expect(state(touch({ amps: 3e-3, earth: 'open', network: 'let-go' }))).toEqual(['proven']);
  });
  it('read unweighted is at most that: it may prove and never refute', () => {
    const [within] = judgeTouch(touch({ network: 'unweighted' }), [COMPUTING], 'guarded').judged;
    expect(within).toMatchObject({ state: 'proven', known: { low: Number.NEGATIVE_INFINITY }, probability: null });
    expect(within?.known.high).toBeCloseTo(252e-6, 12);
    const [over] = judgeTouch(touch({ network: 'unweighted', amps: 0.9e-3 }), [COMPUTING], 'guarded').judged;
    expect(over).toMatchObject({ state: 'cannot be decided' });
    expect(over?.because).toContain('at most this');
  });
  it('read with another network, or by a meter nobody states an accuracy of, decides nothing', () => {
    expect(state(touch({ network: 'other', amps: 1e-6 }))).toEqual(['cannot be decided']);
    expect(state(touch({ network: 'let-go', amps: 1e-6 }))).toEqual(['cannot be decided']);
    for (const network of ['perception', 'unweighted'] as const)
      expect(state(touch({ accuracy: null, network }))).toEqual(['cannot be decided']);
  });
  it('is held against a limit of one’s own too, as rms and as the peak of a sine', () => {
    const own = ownTouch(100e-6);
    expect(judgeTouch(touch(), [COMPUTING, own], 'guarded').judged.map((one) => [one.title, one.state])).toEqual([
      ['Computing equipment, rms', 'proven'],
      ['Your own limit, rms', 'short'],
    ]);
    expect(judgeTouch(touch({ amps: 139e-6, form: 'peak' }), [own], 'guarded').judged[0]?.state).toBe('proven');
    expect(judgeTouch(touch({ amps: 144e-6, form: 'peak' }), [own], 'guarded').judged[0]?.state).toBe('short');
  });
  it('of nought is within; with nothing to hold it against there is nothing judged', () => {
    expect(state(touch({ amps: 0 }))).toEqual(['proven']);
    expect(judgeTouch(touch(), [], 'guarded').judged).toEqual([]);
  });
});

describe('a protective earth', () => {
  const judged = (check: EarthCheck) => judgeEarth(check, [COMPUTING], 'guarded').judged[0];
  it('below 0.1 Ω is within at the current the text asks for, and undecided at less', () => {
    expect(judged(earth(0.07))?.state).toBe('proven');
    expect(judged(earth(0.07, 0.2))).toMatchObject({ state: 'cannot be decided', probability: null });
    expect(judged(earth(0.07, 0.2))?.because).toBe('Read at 0.2 A; the text asks for 32 A.');
  });
  it('each text asks for a current of its own', () => {
    const at25 = judgeEarth(earth(0.07, 25), [COMPUTING, HOUSEHOLD], 'guarded').judged;
    expect(at25.map((one) => one.state)).toEqual(['cannot be decided', 'proven']);
  });
  it('above it is too much at any current, and near it too close to call', () => {
    expect(judged(earth(0.15, 0.2))?.state).toBe('short');
    expect(judged(earth(0.098))?.state).toBe('borderline');
  });
});

describe('an output and the earth', () => {
  it.each([
    [0, false, 'direct'],
    [9.9, false, 'direct'],
    [11, false, 'resistive'],
    [1e6, false, 'resistive'],
    [10e6, false, 'none'],
    [20e6, true, 'none'],
    [2e6, true, null],
    [Number.NaN, false, null],
  ])('at %d Ω (over the range: %s) are joined: %s', (ohms, overRange, is) =>
    expect(bondOf({ ohms, overRange })).toBe(is),
  );
  it('say what was read, in a unit for it', () => {
    const bond = {
      ...head,
      id: 'b',
      kind: 'bond',
      port: 'C1',
      accuracy: null,
      ohms: 1.02e6,
      overRange: false,
    } as const;
    expect(bondResult(bond).words).toBe('C1: resistive (1.02 MΩ)');
    expect(bondResult({ ...bond, ohms: 2e6, overRange: true }).words).toBe(
      'C1: over 2 MΩ; a range to 10 MΩ would tell',
    );
  });
});

describe('the lever on a socket', () => {
  it('is weight times distance from 8 mm behind the face', () => {
    // 0.3 kg · 9.80665 m/s² · (40 + 8) mm, by hand.
    expect(leverOf(0.3, 0.04)).toBeCloseTo(0.141_215_76, 9);
    expect(leverOf(0.55, 0.04)).toBeGreaterThan(0.25);
  });
  it('is not known without mass or distance, and never of nonsense', () => {
    for (const [mass, reach] of [
      [null, 0.04],
      [0.3, null],
      [0, 0.04],
      [-1, 0.04],
      [0.3, -0.1],
      [Number.NaN, 0.04],
    ] as const)
      expect(leverOf(mass, reach)).toBeNull();
  });
});

describe('harmonics against class A', () => {
  const ALL: readonly [order: number, amps: number][] = [
    // IEC 61000-3-2, table 1, read off the text.
    [2, 1.08],
    [3, 2.3],
    [4, 0.43],
    [5, 1.14],
    [6, 0.3],
    [7, 0.77],
    [8, 0.23],
    [9, 0.4],
    [11, 0.33],
    [13, 0.21],
    [15, 0.15],
    [39, 2.25 / 39],
    [40, 1.84 / 40],
  ];
  it.each(ALL)('harmonic %d may have %d A', (order, amps) => expect(classALimit(order)).toBeCloseTo(amps, 9));
  it.each([0, 1, 41, 2.5, Number.NaN])('there is no limit for order %d', (order) =>
    expect(classALimit(order)).toBeNull(),
  );

  const of = { id: 'c', takenAt: head.takenAt, mains: EU, load: 1 };
  const amps = (list: Readonly<Record<number, number>>) => Array.from({ length: 40 }, (_, at) => list[at + 1] ?? 0);
  it('names the one nearest to its limit, and leaves out what is small', () => {
    const result = harmonicsOf(
      { amps: 1, harmonics: amps({ 1: 0.8, 3: 0.5, 15: 0.12, 39: 0.0055, 40: 0.0059 }), expanded: { amps: 0.02 } },
      of,
      'guarded',
    );
    // 0.6 % of 1 A are 6 mA: harmonics 39 and 40 are below.
    expect(result?.lines.map(({ order }) => order)).toEqual([3, 15]);
    expect(result?.nearest).toMatchObject({ order: 15, state: 'proven' });
    expect(result?.state).toBe('proven');
  });
  it('too much of one is too much, near it cannot be called, and without an accuracy nothing is decided', () => {
    const state = (fifteenth: number, expanded: { amps: number } | null = { amps: 0.02 }) =>
      harmonicsOf({ amps: 1, harmonics: amps({ 1: 0.8, 15: fifteenth }), expanded }, of, 'guarded')?.state;
    // U is 2 % of it: 3 mA at 150 mA.
    expect([state(0.16), state(0.152), state(0.146), state(0.146, null)]).toEqual([
      'short',
      'borderline',
      'proven',
      'cannot be decided',
    ]);
  });
  it('has no limits below 220 V, at DC, or where nothing flows', () => {
    const some = { amps: 1, harmonics: amps({ 1: 1 }), expanded: null };
    expect(harmonicsOf(some, { ...of, mains: { kind: 'ac', volts: 115, hertz: 60 } }, 'guarded')).toBeNull();
    expect(harmonicsOf(some, { ...of, mains: { kind: 'dc', volts: 230 } }, 'guarded')).toBeNull();
    expect(harmonicsOf({ ...some, amps: 0 }, of, 'guarded')).toBeNull();
    expect(harmonicsOf({ ...some, amps: Number.NaN }, of, 'guarded')).toBeNull();
  });
  it('counts above 75 W of input, and says where that is not known', () => {
    expect([limitsHold(100, null), limitsHold(65, 80), limitsHold(45, 52)]).toEqual([true, true, false]);
    expect([limitsHold(65, null), limitsHold(null, null), limitsHold(null, 50)]).toEqual([null, null, null]);
  });
});

describe('what can be looked at', () => {
  it('follows from what it is and how it is plugged in', () => {
    expect(checksOf({ kind: 'wall', plugForm: 'fixed' })).toEqual(['touch', 'fit', 'mark']);
    expect(checksOf({ kind: 'desktop', plugEarthed: true, plugForm: 'detachable lead' })).toEqual([
      'touch',
      'earth',
      'bond',
      'mark',
    ]);
    expect(checksOf({ kind: 'car' })).toEqual(['fit', 'mark']);
    expect(checksOf({ kind: 'cable' })).toEqual([]);
  });
  it('refuses what cannot be so, in a sentence', () => {
    const wall = { kind: 'wall', plugEarthed: false, plugForm: 'fixed' } as const;
    const desk = { kind: 'desktop', plugEarthed: true, plugForm: 'detachable lead' } as const;
    expect(safetyRefusal(touch(), wall)).toBeNull();
    expect(safetyRefusal(touch(), desk)).toContain('say whether that was joined or open');
    expect(safetyRefusal(touch({ earth: 'open' }), wall)).toContain('no earth');
    expect(safetyRefusal(touch({ mains: { kind: 'dc', volts: 325 } }), wall)).toContain('AC mains');
    expect(safetyRefusal(earth(0.05), wall)).toContain('Change the plug at Intake first');
    expect(safetyRefusal(touch(), { kind: 'car' })).toContain('hangs on no mains');
    // Taking one back is never refused: the plug may have been entered anew since.
    expect(safetyRefusal({ ...earth(0.05), withdrawn: true }, wall)).toBeNull();
  });
});

describe('the station', () => {
  const judged = (checks: readonly SafetyCheck[], part: object = {}) => {
    const base = dossierFor({ checks });
    const { results, stations } = judgeSample({ ...base, sample: { ...base.sample, plugForm: 'fixed', ...part } });
    return { result: results.safety, station: stations.find(({ id }) => id === 'safety') };
  };
  it('untouched says what is open', () => {
    const { result, station } = judged([]);
    expect(station).toMatchObject({ done: 0, total: 3, worst: null, look: 'untouched' });
    expect(result.open).toEqual(['touch current was not looked at', 'fit in the socket was not looked at']);
  });
  it('asks for the plug turned round, and finds what is over', () => {
    const { result, station } = judged([touch({ amps: 610e-6 })]);
    expect(result.open).toContain('touch current with the plug turned round');
    expect(station).toMatchObject({ worst: 'short', look: 'found wanting' });
    expect(station?.says[0]).toBe(
      '610.0 ± 2.0 µA rms from shell of C1 (230 V 50 Hz, as plugged in, no earth, weighted for perception (IEC 60990, figure 4), no load); Computing equipment, rms: over.',
    );
  });
  it('never says proven, certified or safe', () => {
    const marks: SafetyCheck = {
      ...head,
      id: 'm',
      kind: 'mark',
      mark: 'safety listing',
      printed: 'label',
      ambient: 313.15,
    };
    const { station } = judged([touch(), touch({ id: 't2', polarity: 'turned round' }), marks], {
      marks: ['double insulation'],
    });
    expect(station?.says.join(' ')).not.toMatch(/proven|certif|\bsafe\b|complian/);
    expect(station?.says.join(' ')).toContain('safety listing (label): Stated for up to 40 °C.');
  });
  it('a corrected check counts no more', () => {
    const { result } = judged([touch({ amps: 610e-6 }), touch({ id: 't2', supersedes: 't', amps: 61e-6 })]);
    expect(result.touch.map(({ measured }) => measured.value)).toEqual([61e-6]);
  });
});

describe('a check in words', () => {
  it.each([
    [touch({ amps: 65e-6 }), 'Touch current 65 µA rms from shell of C1, 230 V 50 Hz'],
    [earth(0.062, 0.2), 'Earth continuity 62 mΩ to shell of C1 at 0.2 A'],
  ])('is said shortly', (check, words) => expect(describeCheck(check)).toBe(words));
});
