import { describe, expect, it } from 'vitest';
import { readDrops } from './index.ts';

const read = (text: string) => {
  const table = readDrops(text);
  if (!table.ok) throw new Error(`line ${table.line}: ${table.reason}`);
  return table;
};
const why = (text: string) => {
  const table = readDrops(text);
  return table.ok ? 'read' : `line ${table.line}: ${table.reason}`;
};

describe('a table of drops', () => {
  it('has a drop, with the unit of its head', () => {
    const { readings, resolution } = read('current_A,drop_mV,temp_C\n1,244.0,31\n3,732.1,31\n');
    expect(readings.map(({ amps }) => amps)).toEqual([1, 3]);
    expect(readings[0]?.drop).toBeCloseTo(0.244, 12);
    expect(readings[1]?.drop).toBeCloseTo(0.7321, 12);
    expect(readings[0]?.celsius).toBeCloseTo(31, 9);
    expect(resolution).toBeCloseTo(1e-4, 12);
  });

  it.each([
    ['V_in and V_out', 'I (A);V_in (V);V_out (V);T (°C)\n3,000;20,043;19,311;31'],
    ['near and far', 'amps\tnear V\tfar V\tcelsius\n3.000\t20.043\t19.311\t31'],
    ['source and load', 'Current [A],Source voltage [V],Load voltage [V],Temperature [degC]\n3.000,20.043,19.311,31'],
    ['units in the cells', 'current;vin;vout;temperature\n3000 mA;20.043 V;19311 mV;304.15 K'],
    ['a line of units', 'i,u1,u2,t\nA,V,V,°C\n3,20.043,19.311,31'],
    ['a line of smaller units', 'current,near,far,temp\n[mA],[mV],[V],[°F]\n3000,20043,19.311,87.8'],
    ['units that are heads', 'No,Load A,U1_V,U2_mV,Temp K\n1,3,20.043,19311,304.15'],
    ['other words', 'Strom mA;Spannung vorher V;Spannung nachher V;Temp °C\n3000;20,043;19,311;31'],
    ['no heads', '3 20.043 19.311 31'],
    ['what was set beside it', 'I set (A);I meas (A);V source;V load;T room;T cable\n2.9;3;20.043;19.311;20;31'],
    ['the load first', 'I_load;V_load;V_source;T\n3;19.311;20.043;31'],
    ['when it began and ended', 'Start time;End time;Report;A;V1;V2;°C\n10:00;10:05;7;3;20.043;19.311;31'],
    ['begin and end', 'mA;U begin (V);U end (V);°C\n3000;20,043;19,311;31'],
    ['a table with strokes', '| I/A | U1/V | U2/V | T/°C |\n|---|---|---|---|\n| 3 | 20.043 | 19.311 | 31 |'],
    ['thousands', "I_mA;near_mV;far_mV;T\n3'000;20 043;19 311;31"],
    ['words above', 'Cable: Fern 2 m, four wires\nDate;2026-03-08\n\nI (A);V in;V out;T\n3;20.043;19.311;31'],
    ['heads in a remark', '# current_A, near_V, far_V, temp_C\n3, 20.043, 19.311, 31'],
    ['a first column called #', '#;Load current (A);V in (V);V out (V);T (°C)\n1;3;20,043;19,311;31'],
    ['numbers below a title', 'Cable of the hut\n3,20.043,19.311,31'],
    ['lines that sum it up', 'I;Vin;Vout;T\n3;20,043;19,311;31\n\nMean;;;31\nmeasured twice;;;'],
    ['rows of nothing', 'I;Vin;Vout;T\n;;;\n3;20,043;19,311;31\n;;;'],
    ['remarks above', '# four wires, bench 2\n\ncurrent,near,far,temp\n3,20.043,19.311,31'],
  ])('says the volts at both ends: %s', (_name, text) => {
    const [one] = read(text).readings;
    expect(one?.amps).toBeCloseTo(3, 9);
    expect(one?.drop).toBeCloseTo(0.732, 9);
    expect(one?.near).toBeCloseTo(20.043, 9);
    expect(one?.celsius).toBeCloseTo(31, 6);
  });

  it('knows temperatures in °F, pluggings and lengths', () => {
    const [one] = read('current_A,drop_V,temp_F,plugging,length_m\n3,0.3,68,2,1.5').readings;
    expect(one).toMatchObject({ plugging: '2', length: 1.5 });
    expect(one?.celsius).toBeCloseTo(20, 6);
    expect(read('current,drop\n1,0.1').readings[0]).toMatchObject({ celsius: null, length: null });
  });

  it('says which lines were no part of it', () => {
    expect(read('Cable: Fern 2 m\nBench 2\ncurrent_A,drop_V\n3,0.7\nMean,0.7').left).toEqual([
      'Above the table 2 lines were left out, from “Cable: Fern 2 m” on.',
      'Behind the table a line was left out: “Mean 0.7”.',
    ]);
    expect(read('# bench 2\ncurrent_A,drop_V\n3,0.7\n').left).toEqual([]);
  });

  it('a row without a current that is no summing up is wrong where it stands', () => {
    expect(why('current_A,drop_V\n3,0.7\n,0.9')).toBe('line 3: its current is missing.');
    expect(why('current_A,drop_V\n3,0.7\nMean,0.7\n5,1.2')).toBe('line 3: its current is no number.');
    expect(why('Cable: Fern 2 m\nx;y\n3;0,7')).toMatch(/^line 2: the heads name no current/);
    expect(why('u1;u2\n20;19')).toBe(why('x;y\n20;19'));
    expect(why('a title\nx,y\n3,0.7')).toContain('the heads name no');
    expect(why(`current_A,drop_V\n3,0.7\n${'remark,\n'.repeat(13)}`)).toBe('line 3: its current is no number.');
    expect(why('current_A,drop_V\nMean,0.7')).toBe('line 2: its current is no number.');
  });

  it('says what was taken for granted, and how finely it was written', () => {
    expect(read('current;drop\n3;0.732').assumed).toEqual([
      'No unit is stated: "current" in A, "drop" in V is assumed.',
    ]);
    expect(read('current;drop\n3 A;732 mV')).toMatchObject({ assumed: [], ends: false });
    expect(read('current;drop\n3 A;732 mV').resolution).toBeCloseTo(0.001, 12);
    expect(read('I_A;drop_mV\n3;7.32e2').resolution).toBeCloseTo(0.001, 12);
    // Of two ends the coarser does not hide behind the finer; a nought that a spreadsheet left out makes none coarser.
    expect(read('I_A;near_V;far_V\n3;20.0431;19.31')).toMatchObject({ ends: true });
    expect(read('I_A;near_V;far_V\n3;20.0431;19.31').resolution).toBeCloseTo(Math.hypot(1e-4, 1e-2), 12);
    expect(read('I_A;near_V;far_V\n3;20.043;19.3\n4;20.04;19.311').resolution).toBeCloseTo(1e-3 * Math.SQRT2, 12);
    // What the port, the charger or the device is called is no voltage.
    expect(read('charger;port;I_A;drop_mV;device\nQuad;C1;3;732;laptop').readings[0]).toMatchObject({ near: null });
    expect(read('I_A;near_mV;far_V\n3;20043;19.311').resolution).toBeCloseTo(0.001 * Math.SQRT2, 12);
  });

  it.each([
    ['I (A);drop (%)\n3;3.6', 'line 1: “drop (%)”: % is no unit it can be in. Write V or mV.'],
    ['I;drop\n3;732', 'line 2: “732” of what? Name the unit in the head, as “drop, mV”.'],
    ['I;drop_mV\n3 000;732', 'line 2: “3 000” of what? Name the unit in the head, as “I, mA”.'],
    ['3 732', 'line 1: “732” of what? Write 732 mV.'],
    ['3 19.3 20.1', 'line 1: without heads the volts of the near end come before those of the far end.'],
    [
      'I (A);VBUS drop (mV);GND drop (mV)\n3;366;300',
      'line 1: “VBUS drop (mV)” and “GND drop (mV)” both tell the drop.',
    ],
    ['I_A;V1;V2;V source\n3;20.1;19.4;20.1', 'line 1: “V1” and “V source” both tell the volts at the near end.'],
  ])('%j is no guess', (text, reason) => expect(why(text)).toContain(reason));

  it('that cannot be read names the line and what is wrong', () => {
    expect(why('')).toContain('nothing in it');
    expect(why('x,y\n1,2')).toMatch(/^line 1: the heads name no current/);
    expect(why('current,volts\n1,2')).toContain('nor the volts at both ends');
    expect(why('# x\ncurrent,drop\n1,0.1\n2,oops')).toBe('line 4: its drop is no number.');
    expect(why('current,drop\n1,')).toBe('line 2: its drop is missing.');
    expect(why('current,drop\n')).toContain('no reading');
    expect(why('1\n2')).toContain('without heads');
  });
});
