import { describe, expect, it } from 'vitest';
import { parseTableRow, readSplitList } from './index.ts';

describe('a list of combinations', () => {
  it('is read line by line, units and either decimal sign allowed', () => {
    const list = readSplitList('order;mains_W;C1_V;C1_A;A1_V;A1_A\nC1+A1;66,2;20,05;2,5;5,1;1,2\nA1;;;;5 V;2400 mA\n', [
      'C1',
      'A1',
    ]);
    expect(list.bad).toEqual([]);
    expect(list.splits[0]).toMatchObject({ order: ['C1', 'A1'], mainsWatts: 66.2 });
    expect(list.splits[1]?.shares[0]).toEqual({ port: 'A1', volts: 5, amps: 2.4, light: false });
  });
  it('takes the unit of a column from its head, and tells one it does not know', () => {
    const list = readSplitList('order,Mains [mW],C1_V,C1_mA,A1 (mV),A1_foo\nC1+A1,66200,20.05,2500,5100,1\n', [
      'C1',
      'A1',
    ]);
    expect(list.splits[0]).toMatchObject({
      mainsWatts: expect.closeTo(66.2, 9),
      shares: [
        { port: 'C1', volts: 20.05, amps: 2.5 },
        { port: 'A1', volts: expect.closeTo(5.1, 9), amps: null },
      ],
    });
    expect(list.bad.map(({ reason }) => reason)).toEqual([expect.stringContaining('A1_foo')]);
  });

  it('tells what it does not read about a port or the mains', () => {
    const list = readSplitList('order;mains_W;C1_V;C1_W;I_C1;Remark;PF of mains\nC1;45;20;40;2;warm;230', ['C1']);
    expect(list.splits).toHaveLength(1);
    expect([list.bad, list.unread]).toEqual([[], ['C1_W', 'I_C1', 'PF of mains']]);
  });

  it('names each bad line and goes on', () => {
    const list = readSplitList('order,mains_W,C1_V,C1_A\nC9,1,2,3\nC1,,,\nC1,1,twenty,3\nC1,50,20,2\n', ['C1']);
    expect(list.bad.map(({ line }) => line)).toEqual([2, 3, 4]);
    expect(list.splits).toHaveLength(1);
    expect(readSplitList('a,b\n1,2\n', ['C1']).bad[0]?.reason).toContain('order is missing');
    expect(readSplitList('order,C1_V,C1_A\nC1+C1,20,2\n', ['C1']).bad).toEqual([
      { line: 2, reason: 'order names C1 twice.' },
    ]);
    expect(parseTableRow('C1+C1: 30+20', ['C1'])).toEqual({ reason: 'C1 stands there twice: name each port once.' });
    expect(readSplitList('', ['C1']).splits).toEqual([]);
  });
});
