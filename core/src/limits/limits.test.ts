import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measured } from '../uncertainty/index.ts';
import {
  deriveClass,
  judgeAgainstSets,
  LIMIT_SETS,
  type LimitedQuantity,
  type LimitSet,
  limitAt,
  limitSetProblems,
  limitSteps,
  limitTests,
  type NameplateClass,
  type Piece,
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

describe('the class of a loading', () => {
  const pd = [
    { port: 'C1', volts: 5, amps: 3 },
    { port: 'C1', volts: 9, amps: 3 },
    { port: 'C1', volts: 20, amps: 3.25 },
  ];

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
  ] as const)('of %j is %s', (outputs, nameplateClass) =>
    expect(deriveClass(outputs, []).nameplateClass).toBe(nameplateClass),
  );

  it('tells an adaptive port by its levels, and where the loaded one stands', () => {
    expect(deriveClass([{ port: 'C1', volts: 5, amps: 2 }], pd)).toMatchObject({
      nameplateClass: 'low-voltage',
      adaptive: true,
      level: 'lowest',
      nameplateAmps: 3,
    });
    expect(deriveClass([{ port: 'C1', volts: 9, amps: 3 }], pd).level).toBe('between');
    expect(deriveClass([{ port: 'C1', volts: 20, amps: 3.25 }], pd)).toMatchObject({
      level: 'highest',
      adaptive: true,
    });
    expect(deriveClass([{ port: 'A1', volts: 5, amps: 2.4 }], pd).adaptive).toBe(false);
    expect(deriveClass([{ port: 'C1', volts: 20, amps: 3.25 }], pd).why).toBe(
      'C1 agrees on 5 V to 20 V: adaptive. At 20 V it is basic, 20 V, 3.25 A.',
    );
  });
});

describe('judging', () => {
  const pd = [
    { port: 'C1', volts: 5, amps: 3 },
    { port: 'C1', volts: 9, amps: 3 },
    { port: 'C1', volts: 20, amps: 3.25 },
  ];
  const judge = (
    volts: number,
    hertz: number,
    value: number,
    more: Partial<{ day: string; says: string[]; at: number; amps: number }> = {},
  ) => {
    const only = { port: 'C1', volts: more.at ?? 20, amps: more.amps ?? 3.25 };
    const derived = deriveClass([only], pd);
    return judgeAgainstSets(
      LIMIT_SETS,
      'average-efficiency',
      { class: derived, nameplateClass: derived.nameplateClass, watts: only.volts * only.amps, only },
      {
        mains: { kind: 'ac', volts, hertz },
        result: measured(value, 0.001),
        day: more.day ?? '2026-11-01',
        deviations: () => more.says ?? [],
      },
      'guarded',
    );
  };

  it('gives a verdict at the set’s own mains and an indication elsewhere', () => {
    const lines = judge(115, 60, 0.9);
    expect(lines.map((line) => [line.setId, line.standing])).toEqual([
      ['us-level-6', 'verdict'],
      ['eu-2019-1782', 'indicative'],
      ['eu-coc-5-tier-2', 'indicative'],
    ]);
    expect(lines[1]?.reasons[0]).toContain('the set asks for 230 V 50 Hz');
  });

  it('decides with the guard band', () => {
    expect(judge(230, 50, 0.8905).map((line) => line.decision.outcome)).toEqual(['proven', 'proven', 'borderline']);
    expect(judge(230, 50, 0.87).map((line) => line.decision.outcome)).toEqual(['short', 'short', 'short']);
  });

  it('every deviation from the procedure turns a verdict into an indication', () => {
    const [us] = judge(115, 60, 0.9, { says: ['Warm-up is not recorded.'] });
    expect(us).toMatchObject({ standing: 'indicative', reasons: ['Warm-up is not recorded.'] });
  });

  it('speaks no verdict before a set is in force', () => {
    expect(judge(115, 60, 0.9, { day: '2016-02-09' })[0]).toMatchObject({
      standing: 'indicative',
      reasons: ['In force from 2016-02-10; measured 2016-02-09.'],
    });
  });

  it('judges an adaptive supply at its ends, and at 5 V with the current each text asks for', () => {
    expect(judge(115, 60, 0.9, { at: 9, amps: 3 })[0]?.reasons).toEqual([
      'An adaptive supply is judged at its lowest and highest level.',
    ]);
    const [us] = judge(115, 60, 0.85, { at: 5, amps: 2 });
    expect(us).toMatchObject({ standing: 'verdict', limit: { kind: 'at-least', low: expect.closeTo(0.78704, 5) } });
    expect(judge(115, 60, 0.85, { at: 5, amps: 3 })[0]?.reasons).toEqual([
      'At 5 V 100 % is 2 A here; loaded with 3 A.',
    ]);
    expect(judge(230, 50, 0.85, { at: 5, amps: 3 })[1]).toMatchObject({
      standing: 'verdict',
      limit: { low: expect.closeTo(0.81385, 5) },
    });
    expect(judge(230, 50, 0.85, { at: 5, amps: 2 })[1]?.reasons).toEqual([
      'At 5 V 100 % is 3 A here; loaded with 2 A.',
    ]);
  });
});

describe('a limit set of one’s own', () => {
  const base = set('us-level-6');
  const pieces = base.formulas[0]?.pieces ?? [];
  const withPieces = (changed: readonly Piece[]): LimitSet => ({
    ...base,
    tests: [],
    formulas: [{ quantity: 'average-efficiency', nameplateClass: 'basic', pieces: changed }],
  });

  it('those that ship are sound and meet their worked values', () => {
    for (const one of LIMIT_SETS) {
      expect(limitSetProblems(one)).toEqual([]);
      expect(one.tests.length).toBeGreaterThan(3);
      expect(limitTests(one).every(({ met }) => met)).toBe(true);
    }
  });

  it('says which worked value a mistyped constant misses', () => {
    const [problem] = limitSetProblems({
      ...base,
      formulas: [
        {
          quantity: 'average-efficiency',
          nameplateClass: 'basic',
          pieces: pieces.map((one) => (one.upTo === 49 ? { ...one, constant: 0.76 } : one)),
        },
        ...base.formulas.slice(1),
      ],
    });
    expect(problem).toContain('at 10 W');
    expect(problem).toContain('0.90948');
    expect(problem).toContain('0.81948');
  });

  it.each([
    ['pieces out of order', [...pieces].reverse(), 'Only the last may be endless'],
    [
      'an end below the one before',
      pieces.map((one) => (one.upTo === 250 ? { ...one, upTo: 20 } : one)),
      'Put the pieces in order',
    ],
    ['no piece', [], 'has no piece'],
    ['an efficiency above 1', [{ upTo: null, inclusive: true, constant: 1.2, perWatt: 0, perLog: 0 }], 'at most 1'],
    [
      'a limit that goes negative',
      [{ upTo: null, inclusive: true, constant: 0.9, perWatt: -0.01, perLog: 0 }],
      'above 0',
    ],
  ] as const)('with %s is refused', (_, changed, says) => {
    expect(limitSetProblems(withPieces(changed)).join(' ')).toContain(says);
  });

  it('refuses a formula given twice, none at all, and an end before the beginning', () => {
    expect(limitSetProblems({ ...base, formulas: [...base.formulas, ...base.formulas] }).join(' ')).toContain(
      'is there twice',
    );
    expect(limitSetProblems({ ...base, formulas: [], tests: [] })).toEqual([
      'The set has no formula. Give at least one.',
    ]);
    expect(limitSetProblems({ ...base, validFrom: '2028-01-01', validTo: '2027-01-01' }).join(' ')).toContain(
      'before it begins',
    );
  });

  it('tells where its pieces do not meet', () => {
    const steps = limitSteps({ quantity: 'average-efficiency', nameplateClass: 'basic', pieces });
    expect(steps.map(({ watts }) => watts)).toEqual([1, 49, 250]);
    expect(steps[1]?.step).toBeCloseTo(0.88 - (0.071 * Math.log(49) - 0.0014 * 49 + 0.67), 12);
  });
});
