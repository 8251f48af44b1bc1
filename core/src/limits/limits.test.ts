import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measured } from '../uncertainty/index.ts';
import {
  judgeAgainstSets,
  LIMIT_SETS,
  type LimitedQuantity,
  limitAt,
  type NameplateClass,
  suggestClass,
} from './index.ts';

const set = (id: string) => {
  const found = LIMIT_SETS.find((candidate) => candidate.id === id);
  if (!found) throw new Error(id);
  return found;
};

describe('limits at a nameplate power', () => {
  it.each([
    ['us-level-6', 'average-efficiency', 'basic', 10, 0.81948],
    ['us-level-6', 'average-efficiency', 'basic', 27, 0.8662],
    ['eu-2019-1782', 'average-efficiency', 'basic', 45, 0.87727],
    ['us-level-6', 'average-efficiency', 'basic', 65, 0.88],
    ['us-level-6', 'average-efficiency', 'basic', 300, 0.875],
    ['us-level-6', 'average-efficiency', 'basic', 1, 0.66],
    ['us-level-6', 'average-efficiency', 'low-voltage', 18, 0.82486],
    ['us-level-6', 'average-efficiency', 'low-voltage', 10, 0.78704],
    ['eu-2019-1782', 'average-efficiency', 'low-voltage', 15, 0.81385],
    ['us-level-6', 'average-efficiency', 'multiple-voltage', 10, 0.73369],
    ['eu-coc-5-tier-2', 'average-efficiency', 'basic', 27, 0.87295],
    ['eu-coc-5-tier-2', 'light-load-efficiency', 'basic', 27, 0.77295],
    ['eu-coc-5-tier-2', 'average-efficiency', 'basic', 45, 0.88852],
    ['eu-coc-5-tier-2', 'light-load-efficiency', 'basic', 45, 0.78852],
    ['eu-coc-5-tier-2', 'average-efficiency', 'low-voltage', 10, 0.79004],
    ['eu-coc-5-tier-2', 'light-load-efficiency', 'low-voltage', 10, 0.69734],
    ['us-level-6', 'no-load-power', 'basic', 49, 0.1],
    ['us-level-6', 'no-load-power', 'basic', 49.1, 0.21],
    ['us-level-6', 'no-load-power', 'basic', 251, 0.5],
    ['us-level-6', 'no-load-power', 'multiple-voltage', 100, 0.3],
    ['eu-coc-5-tier-2', 'no-load-power', 'basic', 48.9, 0.075],
    ['eu-coc-5-tier-2', 'no-load-power', 'basic', 49, 0.15],
  ] as const)('%s %s, %s, %d W is %d', (id, quantity, nameplateClass, watts, limit) => {
    expect(limitAt(set(id), quantity, nameplateClass, watts)).toBeCloseTo(limit, 5);
  });

  it.each([
    ['eu-2019-1782', 'average-efficiency', 'basic', 251],
    ['eu-coc-5-tier-2', 'no-load-power', 'basic', 251],
    ['eu-coc-5-tier-2', 'average-efficiency', 'multiple-voltage', 65],
    ['us-level-6', 'light-load-efficiency', 'basic', 65],
  ] as const)('%s says nothing about %s, %s at %d W', (id, quantity, nameplateClass, watts) => {
    expect(limitAt(set(id), quantity, nameplateClass, watts)).toBeNull();
  });

  it('refuses a nameplate that is no power', () => {
    for (const watts of [0, -5, Number.NaN, Number.POSITIVE_INFINITY]) {
      expect(() => limitAt(set('us-level-6'), 'no-load-power', 'basic', watts)).toThrow(RangeError);
    }
  });

  it('is always an efficiency between 0 and 1 or a power between 0 and 1 W', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LIMIT_SETS),
        fc.constantFrom<LimitedQuantity>('average-efficiency', 'light-load-efficiency', 'no-load-power'),
        fc.constantFrom<NameplateClass>('basic', 'low-voltage', 'multiple-voltage'),
        fc.double({ noNaN: true, min: 0.01, max: 1000 }),
        (limitSet, quantity, nameplateClass, watts) => {
          const limit = limitAt(limitSet, quantity, nameplateClass, watts);
          if (limit !== null) expect(limit > 0 && limit < 1).toBe(true);
        },
      ),
    );
  });
});

describe('the suggested class', () => {
  it.each([
    [[{ port: 'C1', volts: 20, amps: 3.25 }], 'basic'],
    [[{ port: 'C1', volts: 5, amps: 3 }], 'low-voltage'],
    [[{ port: 'C1', volts: 5, amps: 0.5 }], 'basic'],
    [
      [
        { port: 'C1', volts: 20, amps: 3.25 },
        { port: 'A1', volts: 5, amps: 2 },
      ],
      'multiple-voltage',
    ],
    [[], 'basic'],
  ] as const)('of %j is %s', (outputs, nameplateClass) => expect(suggestClass(outputs)).toBe(nameplateClass));
});

describe('judging', () => {
  const judge = (volts: number, hertz: number, value: number) =>
    judgeAgainstSets(
      LIMIT_SETS,
      'average-efficiency',
      'basic',
      65,
      { kind: 'ac', volts, hertz },
      measured(value, 0.001),
      'guarded',
    );

  it('gives a verdict at the set’s own mains and an indication elsewhere', () => {
    const lines = judge(115, 60, 0.9);
    expect(lines.map((line) => [line.setId, line.standing])).toEqual([
      ['us-level-6', 'verdict'],
      ['eu-2019-1782', 'indicative'],
      ['eu-coc-5-tier-2', 'indicative'],
    ]);
    expect(lines[1]?.why).toContain('the set asks for 230 V 50 Hz');
  });

  it('decides with the guard band', () => {
    expect(judge(230, 50, 0.8905).map((line) => line.decision.outcome)).toEqual(['proven', 'proven', 'borderline']);
    expect(judge(230, 50, 0.87).map((line) => line.decision.outcome)).toEqual(['short', 'short', 'short']);
  });
});
