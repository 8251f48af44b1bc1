import { describe, expect, it } from 'vitest';
import { LOAD_POINTS } from '../efficiency/index.ts';
import { type Mains, REGULATORY_PAIR } from '../reading/index.ts';
import { type FileContext, readMeterFile, sniffFile } from './index.ts';

const ac = (volts: number, hertz: number): Mains => ({ kind: 'ac', volts, hertz });
const context: FileContext = {
  outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
  mains: REGULATORY_PAIR,
  wholeFileMains: ac(230, 50),
  loads: LOAD_POINTS,
};
const ALL = [1, 0.75, 0.5, 0.25, 0.1, 0];

/** A file of six load points whose truth is known: 45 W at full load, 90 % and 0.05 W for itself. */
function file(heads: string, extra: (load: number) => readonly string[], sign = ';'): string {
  const line = (load: number) =>
    [...extra(load), (load * 50 + 0.05).toFixed(3), '20.01', (load * 2.25).toFixed(4)].join(sign);
  return `${heads}${sign}Pin [W]${sign}Vout [V]${sign}Iout [A]\n${ALL.map(line).join('\n')}\n`;
}

function read(text: string, over: Partial<FileContext> = {}) {
  const plan = sniffFile(text, ['C1']);
  if ('reason' in plan) throw new Error(plan.reason);
  const { points, badLines } = readMeterFile(text, plan, { ...context, ...over });
  return {
    points: points.map(({ mains, load, values }) => [
      mains.volts,
      mains.kind === 'ac' ? mains.hertz : 0,
      load,
      values.find(({ role }) => role === 'input-watts')?.mean,
    ]),
    bad: badLines.map(({ reason }) => reason),
  };
}
const truth = (volts = 230, hertz = 50) => ALL.map((load) => [volts, hertz, load, expect.closeTo(load * 50 + 0.05, 6)]);

describe('the load of a line', () => {
  it.each([
    ['in per cent', 'Load', (load: number) => `${load * 100}`],
    ['as a ratio', 'Load', (load: number) => `${load}`],
    ['with its sign in the cell', 'Load', (load: number) => `${load * 100}%`],
    ['with its sign in the head', 'Load [%]', (load: number) => `${load * 100}`],
    ['in amps that were set', 'Load [A]', (load: number) => `${2.25 * load}`],
    ['in watts that were set', 'Load (W)', (load: number) => `${45 * load}`],
  ])('is understood %s', (_how, head, cell) =>
    expect(read(file(head, (load) => [cell(load)]))).toEqual({ points: truth(), bad: [] }),
  );

  it('is no load only while nothing flows: a ratio read as per cent is told, not kept as idle', () => {
    const text = file('Load', (load) => [`${load}`]).replace('1;50.050', '25;50.050');
    const { points, bad } = read(text);
    expect(points).toEqual([[230, 50, 0, expect.closeTo(0.05, 6)]]);
    expect(bad[0]).toBe(
      'Load 25 %, yet C1 carried 2.25 A, which is 100 %: is the load in another unit, or another column?',
    );
    expect(bad[1]).toBe('Load 0.75 %, yet C1 carried 1.688 A: is the load in another unit, or another column?');
    expect(bad).toHaveLength(5);
  });

  it('in watts that do not say so is told where it means another point', () => {
    // 11.25 W is a quarter of 45 W, and within two points of 10.
    expect(read(file('Load', (load) => [`${45 * load}`])).bad).toContain(
      'Load 11.3 %, yet C1 carried 0.5625 A, which is 25 %: is the load in another unit, or another column?',
    );
  });

  it('of several ports that share what they have is what its column says', () => {
    const text = 'Load;Pin;C1 Vout;C1 Iout;C2 Vout;C2 Iout\n100;50;20;1.125;20;1.125\n0;20;5;0;5;0.9\n';
    const plan = sniffFile(text, ['C1', 'C2']);
    if ('reason' in plan) throw new Error(plan.reason);
    const outputs = ['C1', 'C2'].map((port) => ({ port, volts: 20, amps: 2.25 }));
    const { points, badLines } = readMeterFile(text, plan, { ...context, outputs });
    expect(points.map(({ load }) => load)).toEqual([1]);
    expect(badLines[0]?.reason).toContain('Load 0 %, yet C2 carried 0.9 A');
  });
});

describe('what a meter writes about nought', () => {
  it('is no mistake without load, and no reading either', () => {
    const text = file('Load', (load) => [`${load * 100}`]).replace('0.0000\n', '-0.0012\n');
    expect(read(text)).toEqual({ points: truth(), bad: [] });
    expect(read(text.replace('-0.0012', '-0.2')).bad).toEqual(['Iout is negative (-0.2).']);
  });

  it('gives a power factor its sign for leading or lagging', () => {
    const text = file('Load;PF', (load) => [`${load * 100}`, '-0.55']);
    expect(read(text).bad).toEqual([]);
    expect(read(text.replaceAll('-0.55', '-1.55')).bad[0]).toBe('A power factor of 1.55 is above 1.');
  });

  it('is not taken for a load point', () => {
    const gone = file('Load', (load) => [`${load * 100}`]).replace('20.01;2.2500', '0;0');
    expect(read(gone).bad).toEqual(['Nothing came out at 100 % load: had the output gone?']);
  });
});

describe('the supply of a line', () => {
  const mains = [ac(110, 60), ac(115, 60), ac(120, 60), ac(230, 50), ac(230, 60)];
  const at = (volts: string, hertz: string) =>
    read(
      file('Vin;Freq;Load', (load) => [volts, hertz, `${load * 100}`]),
      { wholeFileMains: null, mains },
    );

  it('is the nearest of those within reach', () => {
    expect(at('118.9', '60.0').points).toEqual(truth(120, 60));
    expect(at('112.4', '60.0').points).toEqual(truth(110, 60));
  });

  it('is told by its frequency where there are two of the same volts', () => {
    expect(at('229.8', '60.02').points).toEqual(truth(230, 60));
    expect(at('229.8', '49.98').points).toEqual(truth(230, 50));
    expect(at('229.8', '0').points).toEqual(truth(230, 50));
    expect(at('115.1', '50.0')).toMatchObject({
      points: [],
      bad: expect.arrayContaining([expect.stringMatching(/^Mains 115.1 V 50 Hz is none of 110 V 60 Hz, /)]),
    });
  });

  it('is never turned into the one that was chosen for the whole file', () => {
    const text = file('Vin;Load', (load) => ['115.2', `${load * 100}`]);
    expect(read(text).bad[0]).toBe('Mains 115.2 V, and 230 V 50 Hz was chosen for the whole file.');
    expect(read(text, { wholeFileMains: ac(115, 60) })).toEqual({ points: truth(115, 60), bad: [] });
    const hertz = file('Freq;Load', (load) => ['60', `${load * 100}`]);
    expect(read(hertz).bad[0]).toBe('Mains 60 Hz, and 230 V 50 Hz was chosen for the whole file.');
  });

  it('of a car has no frequency', () => {
    const dc: Mains = { kind: 'dc', volts: 13.8 };
    const text = file('Vin;Load', (load) => ['13.75', `${load * 100}`]);
    expect(read(text, { wholeFileMains: null, mains: [dc, { kind: 'dc', volts: 27.6 }] })).toEqual({
      points: truth(13.8, 0),
      bad: [],
    });
  });
});

describe('units a file does not say', () => {
  it('show where the input would be many times the output', () => {
    const text = file('Load', (load) => [`${load * 100}`])
      .replaceAll(/;(\d+)\.(\d{3});/g, ';$1$2;')
      .replace('[W]', '');
    const { bad, points } = read(text);
    expect(bad[0]).toBe('Input 50050 W is more than 20 times the output of 45.02 W: a wrong unit?');
    expect(points.map(([, , load]) => load)).toEqual([0]);
  });

  it('of an efficiency are told by its size', () => {
    const text = (cell: string) => `Load;Pin;Vout;Iout;Eff\n100;50;20;2.25;${cell}\n`;
    const differs = (cell: string) => {
      const plan = sniffFile(text(cell), ['C1']);
      if ('reason' in plan) throw new Error(plan.reason);
      return readMeterFile(text(cell), plan, context).efficiencyDiffers;
    };
    expect([differs('0.9'), differs('90'), differs('0.93'), differs('93')]).toEqual([0, 0, 1, 1]);
  });

  it('and decimal commas in quotes between commas are read, thousands are not', () => {
    const quoted = file('Load', (load) => [`${load * 100}`], '","')
      .replaceAll('.', ',')
      .replaceAll('\n', '"\n"')
      .replace(/^/, '"')
      .replace(/"$/, '');
    expect(read(quoted)).toEqual({ points: truth(), bad: [] });
    const thousands = 'Load,Pin [mW],Vout [V],Iout [A]\n100,"50,050",20,2.25\n';
    expect(read(thousands).bad).toEqual(['Pin: "50,050" is not a number.']);
  });
});
