import { describe, expect, it } from 'vitest';
import {
  branchesOf,
  type Condition,
  conditionProblems,
  conditionWords,
  efficiencyPoint,
  followUp,
  idleStep,
  methodOf,
  mostSeconds,
  NOTHING_FOUND,
  ONE_PERCENT_RULE,
  proofPoint,
  type SheetStep,
  settleUnder,
  settling,
  splitStep,
  USUAL_CONDITIONS,
  withFollowUp,
} from './index.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const US = { kind: 'ac', volts: 115, hertz: 60 } as const;
const method = methodOf('regulatory-pair');
if (!method) throw new Error('the method is there');
const C1 = (volts: number) => [{ port: 'C1', volts, amps: 3 }];
const numbered = (steps: readonly object[]) =>
  steps.map((step, index) => ({ ...step, id: `s${index + 1}` })) as unknown as readonly SheetStep[];
const series = numbered([
  efficiencyPoint(method, EU, C1(20), 1),
  efficiencyPoint(method, EU, C1(20), 0.5),
  efficiencyPoint(method, EU, C1(9), 1),
  efficiencyPoint(method, US, C1(20), 1),
  proofPoint('instruments', EU, C1(20), 0),
]);
const [full, half] = series as [SheetStep, SheetStep];
const found = (part: Partial<typeof NOTHING_FOUND>) => ({ ...NOTHING_FOUND, ...part });
const REPEAT: Condition = { kind: 'repeat', within: 0.01, most: 3 };

describe('conditions', () => {
  it('are sentences', () => {
    expect(Object.values(USUAL_CONDITIONS).map(conditionWords)).toEqual([
      'Until U is at most 0.5 % of what is read, read again, 4 times altogether.',
      'If a load point has not settled by its rule, go on for 30 min at most.',
      'If a port gives less than 95 % of what is asked, leave out the rest of this level.',
      'If a port drops out of a combination, read it with each of the others, two at a time.',
      'If an output goes away under load, prove it again, without load and at its rated current.',
    ]);
  });

  it('that cannot be kept are said, each with what to do', () => {
    expect(conditionProblems(Object.values(USUAL_CONDITIONS))).toEqual([]);
    const wrong: Condition[] = [
      { kind: 'repeat', within: 0, most: 1 },
      { kind: 'repeat', within: 0.01, most: 2.5 },
      { kind: 'folded', share: 1 },
      { kind: 'unsettled', longest: Number.POSITIVE_INFINITY },
    ];
    expect(conditionProblems(wrong).join(' ')).toMatch(
      /stands twice.*U to be reached.*2 to 50.*The share.*four hours/su,
    );
  });

  describe('repeat until U is small enough', () => {
    const after = (relative: number | null, floor: number | null, steps = series) =>
      followUp([REPEAT], steps, full, found({ relative, floor }));
    it('reads the same point again, right behind it', () => {
      const then = after(0.02, 0.004);
      expect(then.add).toHaveLength(1);
      const steps = withFollowUp(series, 's1', then);
      expect(steps.map(({ id }) => id)).toEqual(['s1', 'a1', 's2', 's3', 's4', 's5']);
      expect(steps[1]).toMatchObject({
        kind: 'point',
        load: 1,
        repeats: 's1',
        because: expect.stringContaining('2 %'),
      });
    });
    it('and stops after so many, with what it came to', () => {
      const once = withFollowUp(series, 's1', after(0.02, 0.004));
      const [, second] = once as [SheetStep, SheetStep];
      const twice = followUp([REPEAT], once, second, found({ relative: 0.015, floor: 0.004 }));
      const all = withFollowUp(once, second.id, twice);
      expect(all.map(({ id }) => id).slice(0, 4)).toEqual(['s1', 'a1', 'a2', 's2']);
      expect(all[2]?.repeats).toBe('s1');
      const third = followUp([REPEAT], all, all[2] as SheetStep, found({ relative: 0.012, floor: 0.004 }));
      expect(third).toEqual({ add: [], leave: [], says: 'U 1.2 % after 3 readings, more than 1 %.' });
    });
    it('does nothing once it is small enough', () => {
      expect(after(0.01, 0.004)).toEqual({ add: [], leave: [], says: null });
    });
    it('where the meters alone leave more, says that a finer meter would help and reading again would not', () => {
      expect(after(0.02, 0.015)).toEqual({
        add: [],
        leave: [],
        says: 'U 2 %: the meters alone leave 1.5 %, so reading again would not reach 1 %. A finer meter would.',
      });
    });
    it('where U is not known, says so and repeats nothing', () => {
      expect(after(null, null)).toMatchObject({ add: [], says: 'U is not known, so it is not read again.' });
    });
    it('is for load points of the series and idle, not for proof or combinations', () => {
      const idle = numbered([idleStep(method, EU, 'nothing')]);
      expect(followUp([REPEAT], idle, idle[0] as SheetStep, found({ relative: 0.1, floor: 0 })).add).toHaveLength(1);
      const proof = series[4] as SheetStep;
      expect(followUp([REPEAT], series, proof, found({ relative: 0.1, floor: 0 })).add).toEqual([]);
    });
  });

  describe('fold-back', () => {
    const FOLDED = USUAL_CONDITIONS.folded;
    it('leaves out what is left of this level at this supply, and nothing else', () => {
      const then = followUp([FOLDED], series, full, found({ given: [{ port: 'C1', share: 0.8 }] }));
      expect(then.leave).toEqual([{ id: 's2', because: 'C1 gave 80 % of what was asked.' }]);
      const steps = withFollowUp(series, 's1', then);
      expect(steps.map(({ skip }) => skip !== null)).toEqual([false, true, false, false, false]);
    });
    it('is none at the very share, and of another port', () => {
      expect(followUp([FOLDED], series, full, found({ given: [{ port: 'C1', share: 0.95 }] })).leave).toEqual([]);
      expect(followUp([FOLDED], series, full, found({ given: [{ port: 'C2', share: 0.1 }] })).leave).toEqual([]);
    });
    it('is not read again, however large its U', () => {
      const then = followUp(
        [FOLDED, REPEAT],
        series,
        full,
        found({ given: [{ port: 'C1', share: 0.8 }], relative: 0.5, floor: 0 }),
      );
      expect(then.add).toEqual([]);
    });
    it('keeps the reason a step was left out for before', () => {
      const steps = series.map((step) => (step.id === 's2' ? { ...step, skip: 'Nobody has time.' } : step));
      const then = followUp([FOLDED], steps, full, found({ given: [{ port: 'C1', share: 0.8 }] }));
      expect(then.leave).toEqual([]);
      expect(withFollowUp(steps, 's1', { add: [], leave: [{ id: 's2', because: 'x' }] })[1]?.skip).toBe(
        'Nobody has time.',
      );
    });
  });

  describe('a port that drops out of a combination', () => {
    const sets = numbered([
      splitStep('instruments', EU, ['C1', 'C2', 'A1']),
      splitStep('instruments', EU, ['C1', 'C2']),
      splitStep('instruments', EU, ['C2', 'A1']),
    ]);
    it('is read in those pairs the sheet does not have', () => {
      const then = followUp([USUAL_CONDITIONS.dropped], sets, sets[0] as SheetStep, found({ dropped: ['C1'] }));
      expect(then.add.map(({ step }) => ('order' in step ? step.order : []))).toEqual([['A1', 'C1']]);
      expect(then.add[0]?.because).toBe('C1 dropped out of C1 + C2 + A1.');
    });
    it('adds no pair twice, and none to a pair', () => {
      const none = sets.slice(0, 1);
      const then = followUp([USUAL_CONDITIONS.dropped], none, none[0] as SheetStep, found({ dropped: ['C1', 'C2'] }));
      expect(then.add).toHaveLength(3);
      const pair = sets[1] as SheetStep;
      expect(followUp([USUAL_CONDITIONS.dropped], sets, pair, found({ dropped: ['C1'] })).add).toEqual([]);
    });
  });

  it('prove an output again that went away under load, once', () => {
    const then = followUp([USUAL_CONDITIONS.gone], series, full, found({ gone: ['C1'] }));
    expect(then.add.map(({ step }) => ('load' in step ? [step.kind, step.load] : []))).toEqual([
      ['point', 0],
      ['point', 1],
    ]);
    const steps = withFollowUp(series, 's1', then);
    const proof = steps[2] as SheetStep;
    expect(followUp([USUAL_CONDITIONS.gone], steps, proof, found({ gone: ['C1'] })).add).toEqual([]);
  });

  it('let a point go on that has not settled, and average the last of it in the end', () => {
    const rule = settleUnder(ONE_PERCENT_RULE, [USUAL_CONDITIONS.unsettled]);
    expect(settleUnder(null, [USUAL_CONDITIONS.unsettled])).toBeNull();
    const drifting = (until: number) =>
      Array.from({ length: until / 10 + 1 }, (_, at) => ({ seconds: at * 10, value: 50 + at * 0.1 }));
    expect(settling(drifting(1800), ONE_PERCENT_RULE)).toMatchObject({ done: true, averaged: true });
    expect(settling(drifting(1800), rule)).toMatchObject({ done: false });
    expect(settling(drifting(3600), rule)).toMatchObject({ done: true, averaged: true, from: 1800 });
    const late = [...drifting(1800), ...[1810, 1950, 2110].map((seconds) => ({ seconds, value: 68 }))];
    expect(settling(late, rule)).toMatchObject({ done: true, averaged: false });
  });

  it('stand as branches before the run, with what they may cost', () => {
    const all = Object.values(USUAL_CONDITIONS);
    const branches = branchesOf(all, series, full);
    expect(branches.map(({ when, then }) => `${when}: ${then}`)).toEqual([
      'U is more than 0.5 %: read again, 3 times more at most',
      'it has not settled after 30 min: go on for 30 min at most',
      'it gives less than 95 %: leave out step 2',
      'an output goes away: prove it again',
    ]);
    // A point takes 3 s to set, 10 s of dwell and 300 s to settle; three more of it.
    expect(branches[0]?.seconds).toBe(3 * 313);
    expect(branches[2]?.seconds).toBe(-313);
    expect(branchesOf(all, series, { ...half, skip: 'Not now.' })).toEqual([]);
    expect(branchesOf([], series, full)).toEqual([]);
    expect(mostSeconds([REPEAT], series)).toBe(4 * 2 * 313);
  });
});
