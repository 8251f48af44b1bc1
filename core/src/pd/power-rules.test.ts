import { describe, expect, it } from 'vitest';
import {
  checkOffers,
  checkPowerRules,
  edgeOf,
  encodeSource,
  mostWatts,
  parseOffer,
  powerRule,
  type SourceObject,
  usableAmps,
} from './index.ts';

const offer = (text: string): SourceObject => {
  const parsed = parseOffer(text);
  if (!parsed.ok) throw new Error(parsed.reason);
  return parsed.object;
};
const offers = (...texts: string[]) => texts.map(offer);
const conditions = { watts: 65, declared: null, fiveAmpCable: true, invisible: [] } as const;
const kinds = (objects: readonly SourceObject[], part: Partial<Parameters<typeof checkPowerRules>[1]> = {}) =>
  checkPowerRules(objects, { ...conditions, ...part }).map(({ kind }) => kind);
const order = (...texts: string[]) =>
  checkOffers(
    texts.map((text) => (text === '0' ? 0 : encodeSource(offer(text)))),
    false,
  ).map(({ kind }) => kind);

describe('the power rules', () => {
  it.each<[number, string]>([
    [7.5, '5 V 1.5 A'],
    [15, '5 V 3 A'],
    [18, '5 V 3 A, 9 V 2 A'],
    [27, '5 V 3 A, 9 V 3 A'],
    [30, '5 V 3 A, 9 V 3 A, 15 V 2 A'],
    [45, '5 V 3 A, 9 V 3 A, 15 V 3 A'],
    [60, '5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 3 A'],
    [65, '5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 3.25 A'],
    [100, '5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 5 A'],
    [140, '5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 5 A, 28 V 5 A'],
    [180, '5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 5 A, 28 V 5 A, 36 V 5 A'],
    [240, '5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 5 A, 28 V 5 A, 36 V 5 A, 48 V 5 A'],
  ])('want of %d W: %s', (watts, wanted) => {
    expect(
      powerRule(watts)
        .levels.map(({ volts, amps }) => `${volts} V ${Number(amps.toFixed(2))} A`)
        .join(', '),
    ).toBe(wanted);
  });

  it('want an EPR range above 100 W', () => {
    expect(powerRule(100).avs).toBeNull();
    expect(powerRule(120).avs).toEqual({ low: 15, high: 28 });
    expect(powerRule(240).avs).toEqual({ low: 15, high: 48 });
  });

  it('cover nothing beyond 240 W or at zero', () => {
    expect(() => powerRule(0)).toThrow(RangeError);
    expect(() => powerRule(300)).toThrow(RangeError);
    expect(kinds(offers('5 V 3 A'), { watts: 300 })).toEqual(['outside']);
  });
});

describe('a list held against the rules', () => {
  const honest = offers('5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A');

  it('that has every level has no fault', () => {
    const found = checkPowerRules(honest, conditions);
    expect(found.filter(({ grade }) => grade === 'fault')).toEqual([]);
    expect(found.map(({ kind }) => kind)).toEqual(['expected-later']);
  });

  it('without a level, or with too little there, is at fault', () => {
    expect(kinds(offers('5 V 3 A', '9 V 3 A', '20 V 3.25 A'))).toContain('missing-level');
    expect(kinds(offers('5 V 3 A', '9 V 2 A', '15 V 3 A', '20 V 3.25 A'))).toContain('low-current');
  });

  it('may miss a current by one step of rounding', () => {
    expect(kinds(offers('5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.24 A'))).not.toContain('low-current');
  });

  it('may add 12 V, which is a note', () => {
    const found = checkPowerRules([...honest, offer('12 V 3 A')], conditions);
    expect(found.find(({ kind }) => kind === 'extra-level')).toMatchObject({ grade: 'note', positions: [5] });
  });

  it('holds to 3 A without a marked cable, and is at fault beyond', () => {
    const held = offers('5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3 A');
    expect(kinds(held, { watts: 100, fiveAmpCable: false })).toContain('cable-held');
    expect(kinds(held, { watts: 100 })).toContain('low-current');
    expect(kinds(offers('5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 5 A'), { watts: 100, fiveAmpCable: false })).toContain(
      'unmarked-current',
    );
  });

  it('is expected to have SPR AVS only of a source that declares R3.2, and only where it can be seen', () => {
    expect(kinds(honest, { declared: '3.2' })).toContain('missing-avs');
    expect(kinds(honest, { declared: '3.1' })).toContain('expected-later');
    expect(kinds(honest, { declared: '3.2', invisible: ['spr-avs'] })).toContain('not-visible');
    expect(kinds([...honest, offer('SPR AVS 3 A / 3.25 A')], { declared: '3.2' })).not.toContain('missing-avs');
    expect(kinds([...honest, offer('SPR AVS 3 A')], { declared: '3.2' })).toContain('short-avs');
  });

  it('names the span of PPS and says where it is short of its class', () => {
    const found = checkPowerRules([...honest, offer('PPS 3.3–11 V 3 A')], conditions);
    expect(found.map(({ sentence }) => sentence).join()).toContain('the 9 V class from 3.3 V');
    expect(kinds([...honest, offer('PPS 3.3–21 V 2 A')])).toContain('pps-short');
    expect(kinds([...honest, offer('PPS 3.3–21 V 3.25 A')])).not.toContain('pps-short');
  });
});

describe('order in a list', () => {
  it('ascends within a type', () => {
    expect(order('5 V 3 A', '9 V 3 A', '15 V 3 A', 'PPS 3.3–11 V 3 A', 'PPS 3.3–21 V 3 A')).toEqual([]);
    expect(order('5 V 3 A', '15 V 3 A', '9 V 3 A')).toEqual(['order']);
    expect(order('5 V 3 A', 'PPS 3.3–21 V 3 A', 'PPS 3.3–11 V 3 A')).toEqual(['order']);
    expect(order('5 V 3 A', 'PPS 3.3–21 V 3 A', '9 V 3 A')).toEqual(['type-order']);
  });

  it('starts with 5 V, holds no zero and at most seven', () => {
    expect(order('9 V 3 A')).toContain('no-5-volt');
    expect(order('5 V 3 A', '0', '9 V 3 A')).toContain('zero');
    expect(
      order('5 V 3 A', '9 V 3 A', '9.5 V 3 A', '12 V 3 A', '15 V 3 A', '16 V 3 A', '18 V 3 A', '20 V 3 A'),
    ).toContain('too-many');
  });
});

describe('what may be drawn', () => {
  it('from EPR AVS is bound by its power and by 5 A', () => {
    const avs = offer('EPR AVS 15–28 V 140 W');
    expect(usableAmps(avs, 15)).toBe(5);
    expect(usableAmps(avs, 28)).toBeCloseTo(5, 9);
    expect(usableAmps(avs, 28.1)).toBe(0);
    expect(usableAmps(offer('EPR AVS 15–28 V 100 W'), 25)).toBe(4);
  });

  it('from power-limited PPS is bound by the source’s power', () => {
    const pps = offer('PPS 3.3–21 V 5 A limited');
    expect(usableAmps(pps, 9, 65)).toBe(5);
    expect(usableAmps(pps, 20, 65)).toBeCloseTo(3.25, 9);
    expect(usableAmps(pps, 20)).toBe(5);
    expect(mostWatts(pps, 65)).toBeCloseTo(65, 6);
  });

  it('from SPR AVS steps at 15 V', () => {
    const avs = offer('SPR AVS 3 A / 2.25 A');
    expect(usableAmps(avs, 15)).toBe(3);
    expect(usableAmps(avs, 15.1)).toBe(2.25);
    expect(edgeOf(avs).filter(({ volts }) => volts === 15)).toHaveLength(2);
    expect(() => usableAmps(avs, Number.NaN)).toThrow(RangeError);
  });
});
