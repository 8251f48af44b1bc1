import { describe, expect, it } from 'vitest';
import { MEASURES, type MeasureValue } from '../measure/index.ts';
import { besideMeasures, besidePictures, measureTitle } from './index.ts';

const value = (measure: MeasureValue['measure'], condition: string, si: number, part: Partial<MeasureValue> = {}) => ({
  measure,
  condition,
  value: si,
  u: 0,
  common: 0,
  meters: '',
  at: null,
  below: false,
  ...part,
});
const two = [
  {
    name: 'Ember',
    values: [
      value('idle', '230 V 50 Hz', 0.042, { u: 0.0009 }),
      value('idle', '115 V 60 Hz', 0.03),
      value('price-per-watt', 'EUR, paid', 0.5),
      value('mass', 'with plug', 0.08),
    ],
  },
  {
    name: 'Trio',
    values: [
      value('idle', '230 V 50 Hz', 0.098, { u: null }),
      value('price-per-watt', 'EUR, paid', 0.6),
      value('mass', 'without plug', 0.1),
    ],
  },
  { name: 'Reef', values: [value('idle', '230 V 50 Hz', 0.02, { below: true })] },
];

describe('samples beside each other', () => {
  it('stand under the one condition most of them share, in the order of the work, money with its currency', () => {
    const rows = besideMeasures(two, 'en');
    expect(rows.map(({ title, condition }) => [title, condition])).toEqual([
      ['Price per watt', 'EUR, paid'],
      ['Idle', '230 V 50 Hz'],
    ]);
    expect(rows.map(({ cells }) => cells.map((cell) => cell?.words ?? null))).toEqual([
      ['EUR 0.5/W', 'EUR 0.6/W', null],
      ['42.0 ± 1.8 mW', '98 ± ? mW', 'below 20 mW'],
    ]);
  });
  it('with and without a plug are not set beside each other', () =>
    expect(besideMeasures(two, 'en').some(({ measure }) => measure === 'mass')).toBe(false));
  it('are said in German, numbers and all', () => {
    const [price, idle] = besideMeasures(two, 'de');
    expect([price?.title, price?.condition, price?.cells[0]?.words]).toEqual([
      'Preis je Watt',
      'EUR, bezahlt',
      'EUR 0,5/W',
    ]);
    expect(idle?.cells[0]?.words).toBe('42,0 ± 1,8 mW');
    for (const { id } of MEASURES) expect(measureTitle(id, 'de')).not.toBe(measureTitle(id, 'en'));
  });
  it('are drawn as bars with U, and what nobody knows has no bar', () => {
    const [price, idle] = besidePictures(two, 'en');
    expect(price?.bars.map((bar) => bar.value)).toEqual([0.5, 0.6, null]);
    expect(idle?.bars[0]).toMatchObject({ name: 'Ember', value: 42 });
    // k = 2, in milliwatts.
    expect(idle?.bars[0]?.whisker).toBeCloseTo(1.8, 9);
    expect(idle?.bars[1]?.whisker).toBeUndefined();
    expect(idle?.table[1]).toEqual(['Ember', 0.042, 0.0009, 'SI', '230 V 50 Hz']);
  });
  it('of one alone there is nothing to tell', () => expect(besideMeasures(two.slice(0, 1), 'en')).toEqual([]));
});
