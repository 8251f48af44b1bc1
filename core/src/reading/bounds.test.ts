import { describe, expect, it } from 'vitest';
import { impossible, unlikely } from './index.ts';

const at = (
  quantity: 'voltage' | 'current' | 'power' | 'energy' | 'duration',
  place: 'mains' | 'port',
  value: number,
) => ({
  quantity,
  place,
  value,
  typed: String(value),
});

describe('a value', () => {
  it.each([
    ['power', 'mains', 1e155],
    ['power', 'port', 5001],
    ['voltage', 'port', 230],
    ['voltage', 'mains', 1001],
    ['current', 'port', 61],
    ['energy', 'mains', 2e9],
    ['duration', 'mains', 1e8],
    ['power', 'mains', 1e-200],
  ] as const)('%s at the %s of %d cannot be', (quantity, place, value) => {
    expect(impossible(at(quantity, place, value))).toMatch(/Check the unit/);
  });

  it.each([
    ['power', 'mains', 0],
    ['power', 'mains', 0.000045],
    ['voltage', 'port', 48],
    ['voltage', 'mains', 230],
    ['current', 'port', 6.5],
    ['duration', 'mains', 172_800],
  ] as const)('%s at the %s of %d needs no question', (quantity, place, value) => {
    expect([impossible(at(quantity, place, value)), unlikely(at(quantity, place, value))]).toEqual([null, null]);
  });

  it.each([
    ['voltage', 'port', 60, '60 V at a port is unlikely: more than 55 V'],
    ['current', 'port', 20, 'more than 12 A'],
    ['power', 'mains', 3250, 'more than 1000 W'],
  ] as const)('%s at the %s of %d is asked about', (quantity, place, value, sentence) => {
    expect(impossible(at(quantity, place, value))).toBeNull();
    expect(unlikely(at(quantity, place, value))).toContain(sentence);
  });

  it('that is struck out or no number is no business of bounds', () => {
    expect(impossible({ quantity: 'power', place: 'mains', value: null, typed: '' })).toBeNull();
    expect(unlikely({ quantity: 'power', place: 'mains', value: null, typed: '' })).toBeNull();
    expect(impossible({ quantity: 'power', place: 'mains', value: Number.NaN, typed: 'NaN' })).toBeNull();
  });
});
