import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../random/index.ts';
import {
  analyseBlocks,
  analyseMatrix,
  type BlockTrial,
  type MatrixTrial,
  nextSlot,
  signChance,
  type Trial,
  type TrialRun,
  trialOrder,
  trialRunRefusal,
} from './index.ts';

const arm = (name: string) => ({ name, sampleId: null });
const held = [{ name: 'Port', value: 'C1' }];
const pairs: BlockTrial = {
  kind: 'blocks',
  question: 'Does the braided cable charge quicker?',
  factor: 'cable',
  arms: [arm('plain'), arm('braided')],
  measure: { name: 'time to 50 %', quantity: 'duration', better: 'lower' },
  held,
  blocks: 5,
  seed: 7,
  matters: 60,
  expected: 20,
  blind: false,
};

let made = 0;
const run = (
  trial: Trial,
  block: number,
  cell: readonly number[],
  value: number,
  more: Partial<TrialRun> = {},
): TrialRun => {
  made += 1;
  return {
    id: `r${made}`,
    block,
    cell,
    value,
    held: trial.held,
    note: '',
    takenAt: new Date(made * 1000).toISOString(),
    supersedes: null,
    withdrawn: false,
    ...more,
  };
};
/** Runs in the order planned. */
const carriedOut = (trial: Trial, value: (cell: readonly number[], at: number, block: number) => number) =>
  trialOrder(trial).map(({ block, cell }, at) => run(trial, block, cell, value(cell, at, block)));

describe('the order', () => {
  it('is the same for one seed, and each arm of two goes first as often', () => {
    const order = trialOrder({ ...pairs, blocks: 10 });
    expect(trialOrder({ ...pairs, blocks: 10 })).toEqual(order);
    expect(order).toHaveLength(20);
    expect(order.filter((_, at) => at % 2 === 0).filter(({ cell }) => cell[0] === 0)).toHaveLength(5);
    expect(trialOrder({ ...pairs, blocks: 10, seed: 8 })).not.toEqual(order);
  });
  it('of more arms and of a table runs each once a block', () => {
    const three = trialOrder({ ...pairs, arms: [arm('a'), arm('b'), arm('c')], blocks: 4 });
    for (const block of [0, 1, 2, 3])
      expect(
        three
          .filter((one) => one.block === block)
          .map(({ cell }) => cell[0])
          .sort(),
      ).toEqual([0, 1, 2]);
    expect(trialOrder(table(2, 3, 2))).toHaveLength(12);
    expect(new Set(trialOrder(table(2, 3, 2)).map(({ cell, block }) => `${cell} ${block}`)).size).toBe(12);
  });
  it('goes on where runs are missing', () => {
    const order = trialOrder(pairs);
    const [first, second] = order;
    const one = run(pairs, first?.block ?? 0, first?.cell ?? [], 3000);
    expect(nextSlot(pairs, [])).toEqual(first);
    expect(nextSlot(pairs, [one])).toEqual(second);
    expect(nextSlot(pairs, [one, run(pairs, 0, [0], 0, { supersedes: one.id, withdrawn: true })])).toEqual(first);
    expect(
      nextSlot(
        pairs,
        carriedOut(pairs, () => 1),
      ),
    ).toBeNull();
  });
});

describe('what is no run of it', () => {
  const refusal = (more: Partial<TrialRun>, runs: readonly TrialRun[] = []) =>
    trialRunRefusal(pairs, runs, run(pairs, 0, [0], 3000, more));
  it('is one in which a second thing was changed', () => {
    expect(refusal({})).toBeNull();
    expect(refusal({ held: [{ name: 'port ', value: ' c1' }] })).toBeNull();
    expect(refusal({ held: [{ name: 'Port', value: 'C2' }] })).toMatch(
      /“Port” was C2.*holds it at C1.*two things changed/,
    );
    expect(refusal({ held: [] })).toContain('does not say how “Port” was');
  });
  it('is one that is not planned, is no number or is there already', () => {
    expect(refusal({ block: 9 })).toContain('no such run');
    expect(refusal({ cell: [2] })).toContain('no such run');
    expect(refusal({ value: Number.NaN })).toContain('Type what was measured');
    const there = run(pairs, 0, [0], 3000);
    expect(refusal({}, [there])).toContain('there already');
    expect(refusal({ supersedes: there.id }, [there])).toBeNull();
  });
});

describe('pairs', () => {
  const differences = [1.2, 0.8, 1.5, 0.9, 1.1].map((minutes) => minutes * 60);
  const analysed = (trial: BlockTrial, runs: readonly TrialRun[], names = trial.arms.map(({ name }) => name)) =>
    analyseBlocks(trial, runs, names);
  const runs = carriedOut(
    pairs,
    ([which], _at, block) => 3000 + 30 * block + (which === 1 ? (differences[block] ?? 0) : 0),
  );

  it('give mean ± t·s/√n, said with its base', () => {
    const { comparisons, finished } = analysed(pairs, runs);
    const [first] = comparisons;
    expect(first?.difference.mean).toBeCloseTo(66, 9);
    expect(((first?.difference.interval?.[1] ?? 0) - 66) / 60).toBeCloseTo(0.34, 3);
    expect(first?.called).toBe(true);
    expect(finished).toBe(true);
    expect(first?.sentence).toBe(
      '“braided” took 1.1 ± 0.4 min more than “plain”, which is worse (2.2 % of its 51 min; 95 %, 5 pairs).',
    );
  });

  it('that differ by chance only are no difference larger than something', () => {
    const none = carriedOut(
      pairs,
      ([which], _at, block) => 3000 + (which === 1 ? ([30, -24, 12, -18, 6][block] ?? 0) : 0),
    );
    const { comparisons, findings } = analysed(pairs, none);
    expect(comparisons[0]?.called).toBe(false);
    expect(comparisons[0]?.sentence).toMatch(
      /^No difference larger than 0.\d+ min between “plain” and “braided” .*no proof of none\.$/,
    );
    expect(findings).toEqual([]);
    expect(analysed({ ...pairs, matters: 6 }, none).findings.join()).toMatch(
      /0\.1 min would matter.*it takes \d+ of them/,
    );
  });

  it('half of which are missing count as far as they are whole', () => {
    const { comparisons, complete, finished } = analysed(pairs, runs.slice(0, 5));
    expect(complete).toBe(2);
    expect(finished).toBe(false);
    expect(comparisons[0]?.pairs).toHaveLength(2);
    expect(analysed(pairs, runs.slice(0, 2)).comparisons[0]?.sentence).toContain('One pair says nothing of chance');
    expect(analysed(pairs, []).comparisons).toEqual([]);
  });

  it('are said by letters while it is blind', () =>
    expect(analysed({ ...pairs, blind: true }, runs, ['A', 'B']).comparisons[0]?.sentence).toMatch(
      /^“B” took .* than “A”/,
    ));

  it('that differ by the same to the digit tell their signs only', () => {
    // Typed in whole minutes: 24 and 25, again and again. Signs of n pairs fall on one side by chance 2 in 2ⁿ times.
    const of = (blocks: number, less = 60) => {
      const trial = { ...pairs, blocks };
      const [found] = analyseBlocks(
        trial,
        carriedOut(trial, ([which]) => (which === 1 ? 1500 - less : 1500)),
        ['A', 'B'],
      ).comparisons;
      return found;
    };
    expect(of(2)).toMatchObject({ called: false, p: 0.5 });
    expect(of(5)?.sentence).toBe(
      '“B” 1 min less than “A” in each of 5 pairs, to the digit: read too coarsely to tell how they scatter. Chance alone puts so many on one side 6.3 times in 100: read finer, or run more pairs.',
    );
    expect(of(6)?.sentence).toBe(
      '“B” 1 min less than “A”, which is better, to the digit in each of 6 pairs: chance alone puts so many on one side 3.1 times in 100.',
    );
    expect(of(8, 0)?.sentence).toBe(
      '“A” and “B” are the same to the digit in 8 pairs: read finer to say how small a difference is. That is no proof of none.',
    );
    // What arithmetic leaves behind the twelfth digit is no scatter.
    const noisy = analyseBlocks(
      pairs,
      carriedOut(pairs, ([which], at) => (which === 1 ? 0.3 : 0.1 + 0.1) + at * 1e-17),
      ['A', 'B'],
    );
    expect(noisy.comparisons[0]).toMatchObject({ alike: true, called: false });
  });
  it('of several arms are called by Holm', () => {
    const three: BlockTrial = { ...pairs, arms: [arm('a'), arm('b'), arm('c')], blocks: 6 };
    const normal = seededNormal(seededRandom(3));
    const { comparisons, findings } = analysed(
      three,
      carriedOut(three, ([which]) => 3000 + (which === 2 ? 300 : 0) + 30 * normal()),
    );
    expect(comparisons.map(({ called }) => called)).toEqual([false, true, true]);
    expect(findings.join()).toContain('3 comparisons at once');
  });

  it('tell drift, what is carried over, and a pair that stands apart', () => {
    const ten = { ...pairs, blocks: 10, matters: null };
    const noise = seededNormal(seededRandom(5));
    const drifting = carriedOut(ten, ([which], at) => 3000 + 20 * at + (which === 1 ? 60 : 0) + 5 * noise());
    expect(analysed(ten, drifting).findings.join()).toContain('It drifted');
    let last = -1;
    const carried = carriedOut(ten, ([which], at) => {
      const second = at % 2 === 1;
      last = which ?? 0;
      return 3000 + (second ? 200 : 0) + 5 * noise();
    });
    expect(last).toBeGreaterThanOrEqual(0);
    expect(analysed(ten, carried).findings.join()).toContain('What comes first matters');
    const apart = carriedOut(
      ten,
      ([which], _at, block) => 3000 + (which === 1 ? 60 + (block === 4 ? 900 : 0) : 0) + 5 * noise(),
    );
    expect(analysed(ten, apart).findings.join()).toContain('Pair 5 stands apart');
    const calm = carriedOut(ten, ([which]) => 3000 + (which === 1 ? 60 : 0) + 5 * noise());
    expect(analysed(ten, calm).findings).toEqual([]);
  });

  it('by signs alone', () => {
    // Of 2⁵ signs only all alike make as much.
    expect(signChance([1.2, 0.8, 1.5, 0.9, 1.1])).toBeCloseTo(2 / 32, 12);
    expect(signChance([1, -1, 1, -1, 1, -1])).toBe(1);
    expect(signChance([1, 2])).toBeNull();
  });
});

const table = (cables: number, devices: number, blocks: number): MatrixTrial => ({
  kind: 'matrix',
  question: 'Is blue faster?',
  factors: [
    { name: 'cable', levels: Array.from({ length: cables }, (_, at) => arm(`cable ${at + 1}`)) },
    { name: 'port', levels: Array.from({ length: devices }, (_, at) => arm(`C${at + 1}`)) },
  ],
  measure: { name: 'power', quantity: 'power', better: 'higher' },
  held: [],
  blocks,
  seed: 11,
});

describe('a table', () => {
  const EFFECT = [0, 12, -9];
  it('tells which of its things explains what differs', () => {
    const trial = table(4, 3, 2);
    const normal = seededNormal(seededRandom(6));
    const found = analyseMatrix(
      trial,
      carriedOut(trial, ([, port]) => 30 + (EFFECT[port ?? 0] ?? 0) + 0.6 * normal()),
    );
    const [cable, port] = found?.factors ?? [];
    expect(port?.share).toBeGreaterThan(0.97);
    expect(cable?.share).toBeLessThan(0.02);
    expect([cable?.called, port?.called]).toEqual([false, true]);
    expect(found?.together.map(({ called }) => called)).toEqual([false]);
    expect(found?.sentence).toMatch(/^Port explains 9\d ± \d % of what differs, cable \d ± \d %\.$/);
    expect(port?.effects[1]).toBeCloseTo(11, 0);
    expect(found?.chance).toBeCloseTo(0.6, 0);
  });

  it('as numpy has its sums of squares', () => {
    const values = [10, 12, 15, 11, 13.5, 15.5];
    const trial = table(2, 3, 1);
    const runs = values.map((value, at) => run(trial, 0, [Math.floor(at / 3), at % 3], value));
    const found = analyseMatrix(trial, runs);
    // SS cable 1.5, port 22.58333, left 0.25, whole 24.33333; mean square left 0.125.
    expect(found?.factors[0]?.share).toBeCloseTo((1.5 - 0.125) / (73 / 3 + 0.125), 9);
    expect(found?.factors[1]?.share).toBeCloseTo((271 / 12 - 0.25) / (73 / 3 + 0.125), 9);
    expect(found?.findings.join()).toContain('Each was run once');
  });

  it('shows what two do only together', () => {
    const trial = table(2, 2, 4);
    const normal = seededNormal(seededRandom(4));
    const found = analyseMatrix(
      trial,
      carriedOut(trial, ([cable, port]) => 30 + (cable === 1 && port === 1 ? 10 : 0) + 0.4 * normal()),
    );
    expect(found?.together[0]).toMatchObject({ called: true, names: ['cable', 'port'] });
    expect(found?.findings.join()).toMatch(/cable and port do something only together: .* W (above|below)/);
  });

  it('with runs missing is analysed as far as they tell, and of nothing says nothing', () => {
    const trial = table(3, 3, 1);
    const all = carriedOut(trial, ([cable, port]) => 20 + 5 * (port ?? 0) + 0.1 * (cable ?? 0) * (port ?? 0));
    expect(analyseMatrix(trial, all.slice(0, 7))?.factors[1]?.share ?? 0).toBeGreaterThan(0.8);
    expect(analyseMatrix(trial, all.slice(0, 2))).toBeNull();
    expect(analyseMatrix(trial, [])).toBeNull();
    expect(
      analyseMatrix(
        trial,
        carriedOut(trial, () => 20),
      )?.sentence,
    ).toBe('Nothing differs at all.');
  });
});
