// Idle as a whole sample sees it: what counts as idle, one class a sample, and the meter's floor.
import { describe, expect, it } from 'vitest';
import { classOfSample, idleResults } from '../idle/index.ts';
import { LIMIT_SETS } from '../limits/index.ts';
import { aPoint, aReading } from '../testing/reading.ts';
import { dossierFor, EU } from '../testing/verdict.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { type Dossier, judgeSample } from './index.ts';

const averaged = (watts: number, seconds: number, u = 0.002) =>
  aPoint({
    setupId: null,
    load: 0,
    mains: EU,
    readings: [
      aReading({ quantity: 'energy', value: watts * seconds, u: u * seconds }),
      aReading({ quantity: 'duration', value: seconds }),
    ],
  });
const moment = (watts: number, part: Parameters<typeof aPoint>[0] = {}) =>
  aPoint({ setupId: null, load: 0, mains: EU, watts, u: 0.002, ...part });
const idleOf = (points: Dossier['points'], part: Partial<Dossier> = {}) =>
  judgeSample(dossierFor({ points, ...part })).results.idle.draws;

describe('what counts as idle', () => {
  const proof = { ...dossierFor({}).setups[0], id: 'step', purpose: 'proof' } as Dossier['setups'][number];
  it('is not a step of a proof without load: its level is agreed and something hangs on it', () => {
    const points = [averaged(0.05, 600), moment(0.31, { setupId: 'step' })];
    const [one] = idleOf(points, { setups: [proof] });
    expect(one?.watts.value).toBeCloseTo(0.05, 12);
    expect(one?.runs).toBe(1);
  });

  it('never pools a moment with an hour', () => {
    const [one] = idleOf([averaged(0.05, 3600), moment(0.31), averaged(0.2, 60)]);
    expect(one).toMatchObject({ runs: 1, seconds: 3600, findings: [] });
    expect(one?.watts.value).toBeCloseTo(0.05, 12);
    expect(one?.notes).toEqual(['2 shorter readings are kept and not counted beside the longer.']);
  });

  it.each([
    ['a moment', moment(0.05), 'Read at one moment'],
    ['a mean over a time nobody recorded', moment(0.05), 'Averaged over a time nobody recorded'],
    ['five minutes', averaged(0.05, 300), 'Averaged over 5 min'],
  ])('deviates from the procedure by %s', (name, point, says) => {
    const own =
      name === 'a mean over a time nobody recorded'
        ? { ...point, readings: point.readings.map((one) => ({ ...one, count: 50, spread: 0.01 })) }
        : point;
    const lines = judgeSample(dossierFor({ points: [own], limitSets: LIMIT_SETS, claims: [] })).results.idle.limits;
    expect(lines.length).toBeGreaterThan(0);
    for (const { standing, reasons } of lines) {
      expect(standing).toBe('indicative');
      expect(reasons.join(' ')).toContain(says);
    }
  });

  it('averaged as a power over ten minutes counts as averaged', () => {
    const point = {
      ...moment(0.05),
      readings: [
        aReading({ quantity: 'power', value: 0.05, u: 0.001 }),
        aReading({ quantity: 'duration', value: 600 }),
      ],
    };
    expect(idleResults([point], () => 0)[0]).toMatchObject({ seconds: 600, findings: [] });
  });
});

describe('under the meter’s floor', () => {
  const instruments = [
    { id: 'wattmeter', name: 'Wattmeter', sees: null, specs: { power: { ...NO_SPEC, offset: 0.03, floor: 0.05 } } },
  ];
  const claims: Dossier['claims'] = [
    { id: 'c', promise: { kind: 'idle', watts: 0.075, mains: null }, duration: { kind: 'unstated' }, printed: 'box' },
  ];
  const judged = (watts: number) =>
    judgeSample(dossierFor({ points: [averaged(watts, 600, 0.0175)], instruments, claims, limitSets: LIMIT_SETS }));

  it('the upper bound is the floor or value + U, whichever is more', () => {
    // 0.049 ± 0.035 W: up to 0.084 W, so a promise of 0.075 W is not proven.
    const {
      results: { idle },
      claims,
    } = judged(0.049);
    expect(idle.draws[0]?.below).toBeCloseTo(0.084, 9);
    expect(claims[0]?.state).toBe('borderline');
    expect(claims[0]?.sentence).toContain('below 0.084 W');
    expect(judged(0.01).results.idle.draws[0]?.below).toBe(0.05);
    expect(judged(0.01).claims[0]?.state).toBe('proven');
  });

  it('never makes a larger value easier than a smaller one', () => {
    const states = [0.039, 0.045, 0.049, 0.0499, 0.051, 0.06].map((watts) => judged(watts).claims[0]?.state);
    expect(states).toEqual(['proven', 'borderline', 'borderline', 'borderline', 'borderline', 'borderline']);
  });

  it('screen, sheet, shelf and claim say the same words', () => {
    const {
      results: { idle },
      figures,
      claims,
    } = judged(0.049);
    const words = 'below 0.084 W';
    expect(figures.idle?.words).toBe(words);
    expect(claims[0]?.tests[0]?.words).toBe(words);
    for (const line of idle.limits) expect(line.words).toBe(words);
    const coc = idle.limits.find(({ setId }) => setId === 'eu-coc-5-tier-2');
    expect(coc?.decision.outcome).toBe('borderline');
  });
});

describe('the class of a sample', () => {
  const loading = (id: string, ...outputs: Dossier['setups'][number]['outputs']) =>
    ({ ...dossierFor({}).setups[0], id, outputs }) as Dossier['setups'][number];
  const ports = (...labels: string[]) =>
    labels.map((label) => ({ label, connector: label.startsWith('A') ? 'A' : 'C', twin: null }) as const);
  const five = { port: 'C1', volts: 5, amps: 3 };
  const twenty = { port: 'C1', volts: 20, amps: 2.25 };
  const usb = { port: 'A1', volts: 5, amps: 2.4 };
  const of = (setups: Dossier['setups'], labels = ['C1'], classChoice: Dossier['sample']['classChoice'] = null) => {
    const { sample } = dossierFor({});
    return classOfSample(dossierFor({ setups, sample: { ...sample, ports: ports(...labels), classChoice } }));
  };

  it('does not hang on which loading was entered first', () => {
    const one = of([loading('a', five), loading('b', twenty)]);
    const other = of([loading('b', twenty), loading('a', five)]);
    expect(one).toEqual(other);
    expect(one).toMatchObject({ nameplateClass: 'basic', why: expect.stringContaining('adaptive') });
  });

  it('is multiple-voltage where ports can give different voltages at once, also when nobody loaded them together', () => {
    expect(of([loading('a', twenty), loading('b', usb)], ['C1', 'A1'])).toMatchObject({
      nameplateClass: 'multiple-voltage',
      why: 'C1 20 V and A1 5 V are possible at once: several voltages.',
    });
    expect(of([loading('a', usb)], ['A1'])).toMatchObject({ nameplateClass: 'low-voltage' });
  });

  it('is what someone chose, with the reason', () => {
    const choice = { nameplateClass: 'basic', reason: 'only one port works at a time' } as const;
    expect(of([loading('a', twenty), loading('b', usb)], ['C1', 'A1'], choice)).toEqual({
      nameplateClass: 'basic',
      why: choice.reason,
      chosen: true,
    });
  });

  it('decides the no-load limit: 0.1 W for one voltage at a time, 0.3 W for several', () => {
    const limitOf = (setups: Dossier['setups'], labels: string[]) => {
      const { sample } = dossierFor({});
      const { limits } = judgeSample(
        dossierFor({
          setups,
          sample: { ...sample, ports: ports(...labels) },
          points: [averaged(0.05, 600)],
          claims: [{ id: 't', promise: { kind: 'total', watts: 45 }, duration: { kind: 'unstated' }, printed: 'x' }],
          limitSets: LIMIT_SETS,
        }),
      ).results.idle;
      const found = limits.find(({ setId }) => setId === 'eu-2019-1782')?.limit;
      return found?.kind === 'at-most' ? found.high : null;
    };
    expect(limitOf([loading('a', five), loading('b', twenty)], ['C1'])).toBe(0.1);
    expect(limitOf([loading('b', twenty), loading('a', usb)], ['C1', 'A1'])).toBe(0.3);
  });
});
