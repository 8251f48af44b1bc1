import { describe, expect, it } from 'vitest';
import { decodeText, headedRows, headerParts, headUnit, quantityHeads } from './index.ts';

describe('a head', () => {
  it.each([
    ['Vin [V]', 'Vin', 'V'],
    ['P_in (mW)', 'P_in', 'mW'],
    ['Iout / A', 'Iout', 'A'],
    ['vin_mV', 'vin', 'mV'],
    ['PF', 'PF', ''],
  ])('%s is a name and a unit', (cell, name, unit) => expect(headerParts(cell)).toEqual({ name, unit }));
});

describe('the unit of a head', () => {
  const volts = (unit: string) => /^m?V$/.test(unit);
  it.each([
    ['drop_mV', 'mV', null],
    ['drop (V)', 'V', null],
    ['drop / mV', 'mV', null],
    ['mV', 'mV', null],
    ['mV, both ends', 'mV', null],
    ['drop', null, null],
    ['drop of plugs', null, null],
    ['drop (%)', null, '%'],
    ['drop %', null, '%'],
    ['drop [furlong]', null, 'furlong'],
  ])('%s', (head, unit, strange) => expect(headUnit(head, volts)).toEqual({ unit, strange }));
});

describe('heads of names and quantities', () => {
  const read = (head: string, names: readonly string[] = ['C1', 'mains', 'Bunk room']) => {
    const heads = quantityHeads(names);
    const key = heads.asHead(head);
    return [key, heads.unitOf(key), ...heads.wrong];
  };
  it.each([
    ['C1_V', 'c1_v', 'V'],
    ['c1_v', 'c1_v', 'V'],
    ['C1 [mV]', 'c1_v', 'mV'],
    ['C1_mA', 'c1_a', 'mA'],
    ['c1_ma', 'c1_a', 'mA'],
    ['Mains (mW)', 'mains_w', 'mW'],
    ['Bunk room_A', 'bunk_room_a', 'A'],
    ['Bunk room / mA', 'bunk_room_a', 'mA'],
  ])('%s is %s in %s', (head, key, unit) => expect(read(head)).toEqual([key, unit]));

  it('leave alone what is no quantity, and tell what begins like one', () => {
    expect(read('Order')).toEqual(['order', undefined]);
    expect(read('C1')).toEqual(['c1', undefined]);
    expect(read('C2_V')).toEqual(['c2_v', undefined]);
    expect(read('C1_furlong')).toEqual([
      'c1_furlong',
      undefined,
      'the unit of the column C1_furlong is not known; write it as V, mV, A, mA, W or mW.',
    ]);
  });

  it('of one name and quantity come once', () => {
    const heads = quantityHeads(['C1']);
    headedRows('C1_V;C1 [mV]\n1;2', heads.asHead);
    expect(heads.wrong).toEqual(['the column C1 [mV] comes twice.']);
  });

  it('with a port whose name begins as another does go to the longer', () =>
    expect(read('C1_rear_A', ['C1', 'C1 rear'])[0]).toBe('c1_rear_a'));
});

it('a file is read in the letters its program wrote, whatever it holds', () => {
  const utf16 = new Uint8Array([0xff, 0xfe, ...[...'C1 [µA]'].flatMap((sign) => [sign.charCodeAt(0), 0])]);
  expect(decodeText(utf16)).toBe('C1 [µA]');
  expect(decodeText(new Uint8Array([0x5b, 0xb5, 0x41, 0x5d]))).toBe('[µA]');
});
