import { describe, expect, it } from 'vitest';
import { bendPlan, USUAL_BENDS } from '../bends/index.ts';
import {
  currentsUpTo,
  type LineSource,
  loadedPlaces,
  type Method,
  makeLineSheet,
  methodOf,
  methodsFor,
  mostAmps,
  ofKind,
  orderFindings,
  sheetSeconds,
} from './index.ts';

const method = (id: string) => methodOf(id) as Method;
const source = (part: Partial<LineSource> = {}): LineSource => ({
  marked: null,
  printed: null,
  plan: bendPlan(USUAL_BENDS, 10_000),
  bending: USUAL_BENDS,
  bent: 0,
  ...part,
});

describe('the sheet of what sits in the line', () => {
  it('reads its marker, then its resistance in three pluggings', () => {
    const steps = makeLineSheet(method('line'), source());
    expect(steps.map(({ id, kind }) => `${id} ${kind}`)).toEqual([
      's1 rig',
      's2 read-out',
      's3 resistance',
      's4 resistance',
      's5 resistance',
    ]);
    expect(ofKind(steps, 'resistance').map(({ replug, attended }) => [replug, attended])).toEqual([
      [false, false],
      [true, true],
      [true, true],
    ]);
    expect(orderFindings(steps)).toEqual([]);
  });

  it('is bent to every look that is due, and read at each', () => {
    // 10 000 claimed and a quarter more, in five looks; 30 a minute.
    const steps = makeLineSheet(method('bends'), source({ bent: 2500 }));
    const bends = ofKind(steps, 'bend');
    expect(bends.map(({ count }) => count)).toEqual([5000, 7500, 10_000, 12_500]);
    expect(bends.map(({ dwell }) => dwell)).toEqual([5000, 5000, 5000, 5000]);
    expect(steps.slice(5).map(({ kind }) => kind)).toEqual(Array(4).fill(['bend', 'resistance']).flat());
    // The bender's time stands in the length of the sheet.
    expect(sheetSeconds(steps)).toBeGreaterThan(20_000);
    expect(ofKind(makeLineSheet(method('bends'), source({ bent: 12_500 })), 'bend')).toEqual([]);
    expect(makeLineSheet(method('car'), source())).toEqual([]);
  });

  it.each([
    [{ marked: null, printed: null }, 3],
    [{ marked: 5, printed: null }, 5],
    [{ marked: 3, printed: 5 }, 3],
    [{ marked: 5, printed: 3 }, 3],
    [{ marked: null, printed: 5 }, 3],
    [{ marked: null, printed: 2.4 }, 2.4],
  ])('%j may carry %s A', (part, most) => expect(mostAmps(source(part))).toBe(most));

  it('asks for 20 V only where 5 A flow', () => {
    const level = (marked: number) => ofKind(makeLineSheet(method('line'), source({ marked })), 'resistance')[0];
    expect(level(3)).toMatchObject({ outputs: [{ volts: 5, amps: 3 }], currents: [0, 1, 2, 3], dwell: 60 });
    expect(level(5)).toMatchObject({ outputs: [{ volts: 20, amps: 5 }], currents: [0, 1, 2, 3, 4, 5] });
  });

  it.each([
    [3, [0, 1, 2, 3]],
    [2.4, [0, 1, 2, 2.4]],
    [0.5, [0, 0.5]],
    [0, []],
    [Number.NaN, []],
    [Number.POSITIVE_INFINITY, []],
  ])('goes up to %s A as %j', (most, currents) => expect(currentsUpTo(most)).toEqual(currents));

  it('is made of methods of its own, and loaded at its near end', () => {
    expect(methodsFor('cable').map(({ id }) => id)).toEqual(['line', 'bends']);
    expect(methodsFor('wall').some(({ line }) => line !== null)).toBe(false);
    expect(loadedPlaces({ kind: 'cable', ports: [] })).toEqual(['near']);
    expect(loadedPlaces({ kind: 'car', ports: [{ label: 'C1' }] })).toEqual(['C1']);
  });
});
