import { describe, expect, it } from 'vitest';
import { efficiencyAround, efficiencySeries, outputFromWall } from '../efficiency/index.ts';
import { aDeviceRun, aHold, aSetup, aStep, METERS, proofRig } from '../testing/proof.ts';
import { aReadOut } from '../testing/read-out.ts';
import { aPoint, aRig } from '../testing/reading.ts';
import { measured } from '../uncertainty/index.ts';
import { deviceSummary, offerState, type ProofInput, proofResult, stepTitle } from './index.ts';

const OFFERS = aReadOut(['5 V 3 A', '20 V 3.25 A', 'PPS 3.3–11 V 3 A']);
const five = aSetup([{ port: 'C1', volts: 5, amps: 3 }]);
const twenty = aSetup([{ port: 'C1', volts: 20, amps: 3.25 }]);
const pps = aSetup([{ port: 'C1', volts: 11, amps: 3, supply: 'pps' }]);
const input = (part: Partial<ProofInput>): ProofInput => ({
  ports: ['C1'],
  claims: [],
  readOuts: [OFFERS],
  setups: [five, twenty, pps],
  points: [],
  runs: [],
  devices: [],
  rigs: [proofRig],
  instruments: METERS,
  series: [],
  rules: { rule: 'guarded', allowance: 0.02, tolerance: null },
  ...part,
});
const stepOf = (title: string, part: Partial<ProofInput>) => {
  const found = proofResult(input(part)).steps.find(({ step }) => stepTitle(step) === title);
  if (!found) throw new Error(`no step ${title}`);
  return found;
};

describe('a step', () => {
  it.each<[string, number, number, string]>([
    ['within 5 % and at its current', 20.03, 3.25, 'proven'],
    ['below 19 V', 18.9, 3.25, 'short'],
    ['above 21 V', 21.2, 3.25, 'short'],
    ['so near the edge that its uncertainty straddles it', 19.003, 3.25, 'borderline'],
    ['that draws less than asked', 20.03, 2.9, 'short'],
    ['a little less, within the setting of the load', 20.03, 3.2, 'proven'],
  ])('%s is judged', (_what, volts, amps, state) => {
    expect(stepOf('C1 20 V 3.25 A', { points: [aStep(twenty, { port: [volts, amps] })] }).state).toBe(state);
  });

  it('of the 5 V level has its own band, 4.75 to 5.50 V', () => {
    const at = (volts: number) => stepOf('C1 5 V 3 A', { points: [aStep(five, { port: [volts, 3] })] }).state;
    expect([at(4.8), at(5.45), at(4.7), at(5.55)]).toEqual(['proven', 'proven', 'short', 'short']);
  });

  it('of a range at 5 V has ±5 %, not the band of the fixed level', () => {
    const low = aSetup([{ port: 'C1', volts: 5, amps: 3, supply: 'pps' }]);
    const readOuts = [aReadOut(['5 V 3 A', 'PPS 5–11 V 3 A'])];
    const at = (volts: number) =>
      stepOf('C1 PPS 5 V 3 A', { readOuts, setups: [low], points: [aStep(low, { port: [volts, 3] })] }).state;
    expect([at(5.2), at(5.35), at(4.8)]).toEqual(['proven', 'short', 'proven']);
  });

  it('is held to the user’s own tolerance where that is tighter', () => {
    const rules = { rule: 'guarded', allowance: 0.02, tolerance: 0.02 } as const;
    expect(stepOf('C1 20 V 3.25 A', { rules, points: [aStep(twenty, { port: [19.5, 3.25] })] }).state).toBe('short');
  });

  it('without load is judged by its voltage alone', () => {
    expect(stepOf('C1 20 V, no load', { points: [aStep(twenty, { port: [20.1, null] }, { load: 0 })] }).state).toBe(
      'proven',
    );
  });

  it('read at the load end alone is corrected with the drop the other steps show', () => {
    const points = [
      aStep(five, { port: [4.95, 3], end: [4.65, 3] }),
      aStep(five, { port: [5.02, null], end: [5.02, null] }, { load: 0 }),
      aStep(twenty, { end: [19.675, 3.25] }),
    ];
    const { outputs } = stepOf('C1 20 V 3.25 A', { points });
    expect(outputs[0]?.volts.value).toBeCloseTo(20, 6);
    expect(outputs[0]?.volts.uInstrument).toBeGreaterThan(0.004);
  });

  it('of PPS at its current limit may fold back, legally', () => {
    const folded = stepOf('C1 PPS 11 V 3 A', { points: [aStep(pps, { port: [10.1, 2.95] })] });
    expect(folded.state).toBe('borderline');
    expect(folded.notes.join()).toContain('as a programmable supply may');
    expect(stepOf('C1 PPS 11 V 3 A', { points: [aStep(pps, { port: [10.1, 2.5] })] }).state).toBe('short');
  });

  it('measured for efficiency counts as proof too', () => {
    const setup = { ...twenty, id: 'eff', purpose: 'efficiency' as const };
    const rig = aRig();
    const point = aPoint({ setupId: 'eff', watts: 71.6, u: 0.003, out: { C1: [20.04, 3.25] } });
    const series = [efficiencySeries(setup, [point], [rig])];
    expect(stepOf('C1 20 V 3.25 A', { series }).state).toBe('proven');
  });

  it('keeps the reason it went beyond the line', () => {
    const point = aStep(twenty, { port: [20, 3.25] }, { override: 'short check' });
    expect(stepOf('C1 20 V 3.25 A', { points: [point] }).notes).toContain(
      'Beyond the rating of the line, because: short check',
    );
  });

  it('that one run proves and another refutes is borderline', () => {
    const points = [
      aStep(twenty, { port: [20, 3.25] }),
      aStep(twenty, { port: [18, 3.25] }, { mains: { kind: 'ac', volts: 115, hertz: 60 } }),
    ];
    expect(stepOf('C1 20 V 3.25 A', { points })).toMatchObject({ state: 'borderline' });
  });
});

describe('an offer', () => {
  const result = (points: ProofInput['points']) => proofResult(input({ points })).steps;
  const fixed = { kind: 'fixed', volts: 20, amps: 3.25, peak: 0, flags: [], reserved: 0 } as const;
  it('is proven by its step, and only advertised before', () => {
    expect(offerState(result([]), 'C1', fixed)).toBe('advertised only');
    expect(offerState(result([aStep(twenty, { port: [20, 3.25] })]), 'C1', fixed)).toBe('proven');
    expect(offerState(result([aStep(twenty, { port: [18, 3.25] })]), 'C1', fixed)).toBe('short');
  });
  it('of a range is proven only by all its steps, and a fixed level says nothing of it', () => {
    const range = { kind: 'pps', minVolts: 3.3, maxVolts: 11, amps: 3, powerLimited: false, reserved: 0 } as const;
    expect(offerState(result([aStep(pps, { port: [11, 3] })]), 'C1', range)).toBe('advertised only');
  });
});

describe('regulation', () => {
  const points = (without: number, full: number) => [
    aStep(twenty, { port: [without, null] }, { load: 0 }),
    aStep(twenty, { port: [full, 3.25] }),
  ];
  it('is the fall per ampere; nothing of the one voltmeter’s error is taken to cancel', () => {
    const [level] = proofResult(input({ points: points(20.1, 20.035) })).regulation;
    expect(level?.slope.value).toBeCloseTo(0.02, 6);
    // Two readings of u = 4 mV over 3.25 A.
    expect(level?.slope.uInstrument).toBeCloseTo((0.004 * Math.SQRT2) / 3.25, 5);
    expect(level?.sentence).toBe('Falls 20 ± 4 mV/A with load.');
  });
  it('that rises makes up for a cable', () => {
    expect(proofResult(input({ points: points(20, 20.2) })).regulation[0]?.sentence).toContain(
      'makes up for the drop of a cable',
    );
  });
});

describe('watts at the socket', () => {
  const setup = { ...twenty, id: 'eff', purpose: 'efficiency' as const };
  const at = (load: number, watts: number, amps: number) =>
    aPoint({ setupId: 'eff', load, watts, u: 0, out: { C1: [20, amps] } });
  const series = [efficiencySeries(setup, [at(1, 72, 3.25), at(0.5, 36.5, 1.625)], [aRig()])];
  const eu = { kind: 'ac', volts: 230, hertz: 50 } as const;

  it('become an interval with bounds outwards, as 113.2 W at 0.885…0.915 → 100.1…103.6 W', () => {
    const exact = { low: 0.885 * 113.2, high: 0.915 * 113.2 };
    expect(exact.low).toBeCloseTo(100.18, 2);
    expect(exact.high).toBeCloseTo(103.58, 2);
  });

  it('take the efficiency of the points around them', () => {
    const around = efficiencyAround(series, eu, 50);
    expect(around?.low).toBeCloseTo(32.5 / 36.5, 6);
    expect(around?.high).toBeCloseTo(65 / 72, 6);
    const interval = outputFromWall(measured(50, 0), series, eu);
    expect(interval.low).toBeCloseTo((50 * 32.5) / 36.5, 6);
  });

  it('beyond the curve give what an assumed efficiency says, named as assumed', () => {
    expect(efficiencyAround(series, eu, 200)).toBeNull();
    const beyond = outputFromWall(measured(200, 0.5), series, eu);
    expect(beyond).toMatchObject({ most: 201, assumed: { low: 0.8, high: 0.97 } });
    expect([beyond.low, beyond.high]).toEqual([expect.closeTo(0.8 * 199, 9), expect.closeTo(0.97 * 201, 9)]);
    expect(efficiencyAround(series, { kind: 'ac', volts: 115, hertz: 60 }, 50)).toBeNull();
  });

  it('alone make a step an interval, never a reading at the port', () => {
    const only = stepOf('C1 20 V 3.25 A', { series: [], points: [aStep(twenty, { watts: 60 })] });
    expect(only.outputs).toEqual([]);
    expect(only.state).toBe('short');
    expect(stepOf('C1 20 V 3.25 A', { series: [], points: [aStep(twenty, { watts: 80 })] }).state).toBe('borderline');
  });
});

describe('a device', () => {
  const laptop = {
    id: 'laptop',
    name: 'Laptop',
    kind: 'laptop' as const,
    battery: null,
    ceilings: [{ connector: 'C', lead: 'long lead', volts: 20, watts: 60 }],
    baseline: 58,
    note: '',
  };
  it.each<[string, Parameters<typeof aDeviceRun>[0], string]>([
    ['at its ceiling limits itself', { watts: 59 }, 'the device limits'],
    ['nearly full takes less and less', { charge: 0.9 }, 'takes less and less'],
    ['at too low a level is limited by charger or cable', { volts: 9, watts: 26 }, 'wants 20 V for its full 60 W'],
    ['below its baseline is limited by something else', { watts: 40 }, 'Alone on a strong charger it took 58 W'],
    ['over a lead not on record tells nothing', { lead: 'new lead' }, 'not on record'],
  ])('%s', (_what, part, sentence) => {
    expect(deviceSummary(aDeviceRun(part), laptop, null).limiter).toContain(sentence);
  });
  it('is limited by the port that offers no more, by its own heat, or by a cable that carries less than another', () => {
    const limit = (part: Parameters<typeof aDeviceRun>[0], offered: number | null = null, more = laptop.ceilings) =>
      deviceSummary(aDeviceRun(part), { ...laptop, ceilings: more }, null, null, offered).limiter;
    expect(limit({ watts: 44 }, 45)).toBe('C1 offers 45 W at most: the charger limits.');
    expect(limit({ watts: 40 }, 65)).not.toContain('offers');
    expect(limit({ watts: 40, warmth: 273.15 + 44 })).toBe('The device is at 44 °C: its own heat may limit.');
    expect(limit({ watts: 40, warmth: 273.15 + 31 })).not.toContain('heat');
    const short = { connector: 'C', lead: 'short lead', volts: 20, watts: 90 };
    expect(limit({ watts: 59 }, null, [...laptop.ceilings, short])).toContain('more over another: the cable limits.');
  });
  it('says so where next to nothing flows and it is told to charge, and names peak and mean', () => {
    const { notes } = deviceSummary(aDeviceRun({ watts: 0.1, peak: 41.23, mean: 39.87, spread: 0.52 }), laptop, null);
    expect(notes).toContain('Peak 41.2 W, mean 39.9 W, spread 0.52 W; the plateau counts.');
    expect(notes).toContain(
      'Next to nothing flows and it says it charges: asleep, full, or a meter that hung after hot-plugging?',
    );
  });
  it('is asked for three minutes to settle and for a baseline', () => {
    const notes = deviceSummary(
      aDeviceRun({ settled: 30, message: 'Slow charger' }),
      { ...laptop, baseline: null },
      null,
    ).notes;
    expect(notes).toEqual([
      'Read after 30 s: 3 min are the least to settle.',
      'No baseline alone: run it once on a charger known to be strong.',
      'It says: “Slow charger”. Kept as said.',
    ]);
  });
  it('proves no step of the load list', () => {
    expect(stepOf('C1 20 V 3.25 A', { runs: [aDeviceRun({ watts: 65 })] }).state).toBe('not tested');
  });
});

describe('after stress', () => {
  const stress = aHold({ takenAt: '2026-03-02T12:00:00.000Z' });
  const before = aStep(twenty, { port: [20, 3.25] }, { takenAt: '2026-03-02T09:00:00.000Z' });
  const later = (volts: number, amps: number) =>
    aStep(
      twenty,
      { port: [volts, amps] },
      { takenAt: '2026-03-02T14:00:00.000Z', mains: { kind: 'ac', volts: 230, hertz: 50 } },
    );
  const again = (...points: ProofInput['points']) => proofResult(input({ runs: [stress], points })).again?.lines[0];

  it('every port is due once more at its strongest level', () => {
    expect(again(before)).toMatchObject({ done: false, sentence: 'Due: read it once more.' });
    expect(proofResult(input({ points: [before] })).again).toBeNull();
    expect(proofResult(input({ runs: [aHold({ planned: 300, held: 300 })] })).again).toBeNull();
  });

  it('what is read then stands for the step, and is not pooled with what was before', () => {
    const { steps } = proofResult(input({ runs: [stress], points: [before, later(18, 3.25)] }));
    expect(steps.find(({ step }) => stepTitle(step) === 'C1 20 V 3.25 A')).toMatchObject({
      state: 'short',
      outputs: [{ volts: { value: 18 } }],
    });
  });

  it('a port as before, weaker, or dead is told apart', () => {
    const read = (volts: number, amps: number) => again(before, later(volts, amps));
    expect(read(20, 3.25)?.sentence).toBe('As before.');
    expect(read(19.9, 3.25)?.sentence).toBe('100 mV lower than before.');
    expect(read(19.9, 2.9)).toMatchObject({ state: 'short', sentence: 'Weaker: 2.9 A where it gave 3.25 A.' });
    expect(read(0.1, 0)).toMatchObject({ state: 'short', sentence: 'Dead: it gives nothing any more.' });
  });
});
