import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aDeviceRun, aHold, anOver, METERS, proofRig } from '../testing/proof.ts';
import { holdSummaries, moveSentence, overStepEnd, overSteps, overSummary, runRefusal } from './index.ts';
import { runUncertainty } from './runs.ts';

const celsius = (value: number) => value + 273.15;
const ended = (amps: number, minutes: number, hottest: number | null = null) =>
  aHold({ amps, held: minutes * 60, end: 'cut off', hottest: hottest === null ? null : celsius(hottest) });
const only = (...holds: Parameters<typeof holdSummaries>[0]) => holdSummaries(holds)[0];

describe('what ends a hold', () => {
  it('is a timer when the time is the same at two powers', () => {
    expect(only(ended(3.25, 10.1, 62), ended(2.8, 10, 55))?.cause).toBe('timer');
  });

  it('is the heat when the temperature is the same at two times', () => {
    const summary = only(ended(3.25, 21, 81.2), ended(2.8, 38, 82), aHold({ amps: 2 }));
    expect(summary?.cause).toBe('thermal');
    expect(summary?.held).toEqual({ watts: 40, seconds: 3600 });
    expect(summary?.sentence).toContain(
      '65 W cut off after 21 min at 81.2 °C. The same temperature at two powers: the heat.',
    );
    expect(summary?.sentence).toContain('40 W held for 60 min, to the end.');
  });

  it('can be either when both agree', () =>
    expect(only(ended(3.25, 20, 80), ended(2.8, 20.5, 81))?.cause).toBe('either'));

  it('is not told from one power, nor from runs that agree in nothing', () => {
    expect(only(ended(3.25, 20, 80))?.sentence).toContain('Repeat at a second power');
    expect(only(ended(3.25, 20, 80), ended(3.24, 20, 80))?.cause).toBe('not told');
    expect(only(ended(3.25, 20, 60), ended(2.8, 40, 80))?.sentence).toContain('Neither time nor temperature agrees');
  });

  it('is nothing when all were held', () => expect(only(aHold())?.cause).toBeNull());

  it('is told apart by what was loaded together', () => {
    const shared = aHold({ others: [{ port: 'C2', volts: 9, amps: 3 }] });
    expect(holdSummaries([aHold(), shared]).map(({ title }) => title)).toEqual(['C1 20 V', 'C1 20 V + C2 9 V']);
    expect(only(shared)?.lines[0]?.watts).toBe(92);
  });
});

describe('a search over the rating', () => {
  it('goes up in even steps from the rating, at most to half as much again', () => {
    expect(overSteps(3, 0.05).slice(0, 3)).toEqual([3, 3.15, 3.3]);
    expect(overSteps(3, 0.05).at(-1)).toBe(4.5);
    expect(() => overSteps(0, 0.05)).toThrow(RangeError);
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        fc.double({ min: 0.01, max: 0.1, noNaN: true }),
        (rated, step) => {
          const steps = overSteps(rated, step);
          expect(steps.length).toBeLessThanOrEqual(40);
          expect(Math.max(...steps)).toBeLessThanOrEqual(rated * 1.5 + 0.01);
        },
      ),
    );
  });

  it('tells a cut-off from a fold-back', () => {
    expect(overStepEnd({ asked: 3.5, amps: 3.49, volts: 19.8 }, 20)).toBeNull();
    expect(overStepEnd({ asked: 3.5, amps: 3.2, volts: 19.8 }, 20)).toBe('folded back');
    expect(overStepEnd({ asked: 3.5, amps: 3.5, volts: 12 }, 20)).toBe('folded back');
    expect(overStepEnd({ asked: 3.5, amps: 0, volts: 0.1 }, 20)).toBe('cut off');
  });

  it('brackets the trip and says what happens after', () => {
    const steps: [number, number, number][] = [
      [3.25, 3.25, 20],
      [3.4, 3.4, 19.9],
      [3.55, 0, 0],
    ];
    expect(overSummary(anOver(steps, { latched: true })).sentence).toBe(
      'C1 20 V: cut off between 3.4 A and 3.55 A (109 % of its rating); stays off until unplugged.',
    );
    expect(overSummary(anOver(steps, { latched: false, recovery: 2 })).sentence).toContain('back after 2 s');
    expect(overSummary(anOver(steps.slice(0, 2)))).toMatchObject({ end: 'reached the end', trip: null, highest: 3.4 });
    expect(overSummary(anOver([[3.25, 0, 0]])).sentence).toContain('at 3.25 A or below');
  });
});

it('a moved level says how often it broke, for how long and how far down', () => {
  const move = { ...aHold(), kind: 'move' as const, fromVolts: 5, toVolts: 11, amps: 3 };
  expect(moveSentence({ ...move, breaks: 0, longest: null, lowest: null })).toBe('5 V to 11 V at 3 A: no break.');
  expect(moveSentence({ ...move, breaks: 2, longest: 0.24, lowest: 0.3 })).toBe(
    '5 V to 11 V at 3 A: 2 breaks, longest 240 ms, down to 0.3 V.',
  );
});

describe('a run is refused with a sentence', () => {
  const on = { on: true, step: 0.03, seconds: 3 };
  const situation = { rig: proofRig, devices: [{ id: 'laptop', ceilings: [] }], overRating: on };
  const refusal = (run: Parameters<typeof runRefusal>[0], part: Partial<typeof situation> = {}) =>
    runRefusal(run, { ...situation, ...part });

  it.each<[string, Parameters<typeof runRefusal>[0], string]>([
    ['a search with a device', anOver([[3.25, 3.25, 20]], { attached: 'device' }), 'A real device is attached'],
    [
      'a search whose step was held too long',
      anOver([], { steps: [{ asked: 3.3, amps: 3.3, volts: 20, seconds: 30 }] }),
      'a step over the rating lasts 3 s',
    ],
    [
      'a search that goes down',
      anOver([
        [3.4, 3.4, 20],
        [3.3, 3.3, 20],
      ]),
      'Step 2 does not ask for more',
    ],
    ['held to the end, too short', aHold({ held: 600 }), 'How did it end?'],
    ['ended after the end', aHold({ end: 'cut off' }), 'then it was held to the end'],
    ['a port loaded beside itself', aHold({ others: [{ port: 'C1', volts: 9, amps: 3 }] }), 'C1 is named twice'],
    ['amps without volts', aHold({ volts: 0 }), 'Amps without volts'],
    ['°F in a °C field', aHold({ ambient: celsius(76) }), 'If the meter shows °F, that is 24.4 °C'],
    ['a device nobody knows', aDeviceRun({ deviceId: 'gone' }), 'not on the bench any more'],
    ['watts at the port without their volts', aDeviceRun({ volts: null }), 'has its voltage beside it'],
    ['not charging, with watts', aDeviceRun({ outcome: 'not charging' }), 'Not charging, yet 53 W flows'],
    [
      'a break timed that was not counted',
      { ...aHold(), kind: 'move', fromVolts: 5, toVolts: 9, amps: 2, breaks: 0, longest: 0.2, lowest: null },
      'How many were there?',
    ],
  ])('%s', (_what, run, sentence) => expect(refusal(run)).toContain(sentence));

  it('searches are off until the rules turn them on', () => {
    expect(refusal(anOver([[3.25, 3.25, 20]]), { overRating: { ...on, on: false } })).toContain('are off');
    expect(refusal(anOver([[3.25, 3.25, 20]]))).toBeNull();
  });

  it('beyond the line it is run over', () => {
    const thin = {
      ...proofRig,
      elements: [{ kind: 'cable' as const, name: 'thin', amps: 3, volts: 20, basis: 'certified' as const }],
    };
    expect(refusal(aHold(), { rig: thin })).toContain('by its certified rating');
    expect(refusal(aHold({ amps: 2, others: [{ port: 'C2', volts: 20, amps: 3.5 }] }), { rig: thin })).toContain(
      '3.5 A',
    );
  });

  it('but never when it is taken back', () => expect(refusal(aHold({ held: 1, withdrawn: true }))).toBeNull());
});

it('a run takes its uncertainty from the rig: the wattmeter at the socket, volts and amps at the port', () => {
  expect(runUncertainty(aDeviceRun({ place: 'mains', watts: 71.62 }), proofRig, METERS)).toBeCloseTo(0.11976, 5);
  // 20.043 V and 3.248 A by these meters: u of their product 0.07693 W
  expect(runUncertainty(aHold({ volts: 20.043, amps: 3.248 }), proofRig, METERS)).toBeCloseTo(0.07693, 5);
  expect(runUncertainty(anOver([[3, 3, 20]]), proofRig, METERS)).toBe(0);
});

describe('what ends holds', () => {
  const cause = (...holds: Parameters<typeof aHold>[0][]) =>
    holdSummaries(
      holds.map((part) => aHold({ end: 'cut off', planned: 7200, hottest: null, ambient: null, ...part })),
    )[0]?.cause;
  it('at the same time at two powers within 5 % and a second is a timer; further apart it is not told', () => {
    expect(cause({ amps: 3, held: 600 }, { amps: 2.5, held: 630 })).toBe('timer');
    expect(cause({ amps: 3, held: 600 }, { amps: 2.5, held: 640 })).toBe('not told');
    expect(cause({ amps: 3, held: 10 }, { amps: 2.5, held: 11.2 })).toBe('timer');
    expect(cause({ amps: 3, held: 10 }, { amps: 2.5, held: 12 })).toBe('not told');
  });
  it('at one power tell by the room: the same time is a timer, sooner when warmer the heat', () => {
    const room = (ambient: number, held: number) => ({ amps: 3, held, ambient: celsius(ambient) });
    expect(cause(room(21, 600), room(35, 605))).toBe('timer');
    expect(cause(room(21, 900), room(35, 500))).toBe('thermal');
    expect(cause(room(21, 500), room(35, 900))).toBe('not told');
    expect(cause(room(21, 600), room(22, 605))).toBe('not told');
  });
  it('at the room’s own temperature are no thermal trip, however alike the temperatures', () => {
    const at = (amps: number, held: number, hottest: number) => ({
      amps,
      held,
      hottest: celsius(hottest),
      ambient: celsius(24),
    });
    expect(cause(at(3, 600, 92), at(2.5, 1400, 93))).toBe('thermal');
    expect(cause(at(3, 60, 26), at(2.5, 140, 27))).toBe('not told');
    expect(cause(at(3, 60, 26), at(2.5, 61, 27))).toBe('timer');
  });
});
