// Which column of a log is what a port gives.
import { describe, expect, it } from 'vitest';
import { rippleChannel } from '../ripple/index.ts';
import { chosenOf, onlyChannels, outputColumns, readTrace } from './index.ts';

/** A log whose columns hold one value each. */
function channels(columns: Readonly<Record<string, number>>) {
  const line = Object.values(columns).join(';');
  const reading = readTrace(
    `${['t [s]', ...Object.keys(columns)].join(';')}\n0;${line}\n1;${line}\n2;${line}\n3;${line}\n`,
  );
  if (!reading.ok) throw new Error(reading.reason);
  return reading.trace.channels;
}
const volts = (columns: Readonly<Record<string, number>>) =>
  chosenOf(channels(columns), 'voltage')?.channel.name ?? null;

describe('the volts of a port', () => {
  it.each<readonly [string, Readonly<Record<string, number>>, string]>([
    ['data lines', { 'D+ [V]': 0.6, 'D- [V]': 0.6, 'Vbus [V]': 20 }, 'Vbus'],
    ['configuration lines', { 'CC1 [V]': 1.7, 'Vconn [V]': 3.3, 'U [V]': 9 }, 'U'],
    ['what was set', { 'V set [V]': 21, 'Voltage [V]': 20 }, 'Voltage'],
    ['the least of an interval', { 'V_min [V]': 19, 'V_avg [V]': 20 }, 'V_avg'],
    ['the mains', { 'Vin [V]': 230, 'U [V]': 20 }, 'U'],
    ['what comes out', { 'V1 [V]': 230, 'Vout [V]': 20 }, 'Vout'],
  ])('are not %s', (_, columns, name) => {
    expect(volts(columns)).toBe(name);
  });

  it('are nobody’s where only data lines were logged', () => {
    expect(volts({ 'DP [V]': 0.6, 'DM [V]': 0.6 })).toBeNull();
  });

  it('are of the first of several, which is said', () => {
    const { several } = outputColumns(channels({ 'C1 [V]': 20, 'C2 [V]': 9, 'C1 I [A]': 3 }));
    expect(several).toEqual(['Several columns of volts: “C1” is used, not “C2”.']);
  });
});

describe('watts', () => {
  it('that go in are none of the port’s where its volts and amps are there', () => {
    expect(outputColumns(channels({ 'U [V]': 20, 'I [A]': 3, 'Input power [W]': 66 })).power).toBeNull();
  });

  it('that are the product of volts and amps are the port’s, whatever they are called', () => {
    expect(outputColumns(channels({ 'U [V]': 20, 'I [A]': 3, 'Input power [W]': 60 })).power?.name).toBe('Input power');
  });

  it('at the wall are all there is, where nothing else is', () => {
    expect(outputColumns(channels({ 'Wall [W]': 66 })).power?.name).toBe('Wall');
  });
});

describe('volts and amps of different sides', () => {
  it('make no power: what goes in is left out, and that is said', () => {
    const mixed = outputColumns(channels({ 'Vout [V]': 20, 'Iin [A]': 0.22, 'Pout [W]': 45 }));
    expect([mixed.volts?.name, mixed.amps, mixed.power?.name]).toEqual(['Vout', null, 'Pout']);
    expect(mixed.several).toEqual([
      '“Vout” and “Iin” are of different sides of the charger: no power is made of them.',
    ]);
    const other = outputColumns(channels({ 'Mains voltage [V]': 230, 'Load current [A]': 2.25 }));
    expect([other.volts, other.amps?.name]).toEqual([null, 'Load current']);
  });

  it('of one side, or of none that is named, do', () => {
    for (const names of [
      ['Vin [V]', 'Iin [A]'],
      ['Vin [V]', 'Current [A]'],
      ['Voltage [V]', 'Iout [A]'],
    ]) {
      const { volts, amps, several } = outputColumns(channels(Object.fromEntries(names.map((name) => [name, 1]))));
      expect([volts?.name, amps?.name, several].flat()).toHaveLength(2);
      expect([volts, amps]).not.toContain(null);
    }
  });
});

describe('numbers without a unit', () => {
  it('that no output reaches are asked about', () => {
    const thousandths = { U: 20_000, I: 2250, Power: 45_000 };
    expect(outputColumns(channels(thousandths)).doubts).toEqual([
      '“U” reaches 20000: is that mV? Write the unit behind its name, as in “U [mV]”.',
      '“I” reaches 2250: is that mA? Write the unit behind its name, as in “I [mA]”.',
      '“Power” reaches 45000: is that mW? Write the unit behind its name, as in “Power [mW]”.',
    ]);
    expect(outputColumns(channels({ U: 20, I: 2.25, Power: 45 })).doubts).toEqual([]);
    expect(outputColumns(channels({ 'U [mV]': 20_000, 'I [mA]': 2250, 'Power [mW]': 45_000 })).doubts).toEqual([]);
  });

  it('are asked about as ripple where they move by more than any output does', () => {
    const ripple = (head: string, move: number) => {
      const lines = Array.from({ length: 9 }, (_, at) => `${at},${5 + (at % 2) * move}`);
      const reading = readTrace(`t [s],${head}\n${lines.join('\n')}\n`);
      const found = reading.ok ? rippleChannel(reading.trace) : reading;
      return 'reason' in found ? [found.reason] : found.remarks;
    };
    expect(ripple('CH1', 40)).toContain(
      '“CH1” moves by 40: is that mV? Write the unit behind its name, as in “CH1 [mV]”.',
    );
    expect(ripple('CH1', 0.04)).toEqual(['No unit is stated: "CH1" in V is assumed.']);
    expect(ripple('CH1 [mV]', 40)).toEqual([]);
  });
});

describe('a file of several channels', () => {
  const reading = readTrace(
    `t [s],CH1 [V],CH2 [mV],Ripple C1 [mV]\n${Array.from({ length: 9 }, (_, at) => `${at},325,${at},${at * 2}`).join('\n')}\n`,
  );
  const volts = (names: readonly string[]) => {
    const left = onlyChannels(reading, names);
    if (!left.ok) return left.reason;
    const found = rippleChannel(left.trace);
    return 'reason' in found ? found.reason : [found.values[4], found.remarks];
  };

  it('is read by the columns that count', () => {
    expect(volts(['CH2'])).toEqual([0.004, []]);
    expect(volts(['CH1', 'CH2'])).toEqual([325, ['Several columns of volts: “CH1” is used, not “CH2”.']]);
    expect(volts(['CH1', 'CH2', 'Ripple C1'])).toEqual([0.008, []]);
    expect(volts([])).toBe('No column is left: choose one.');
  });

  it('that could not be read stays so', () => {
    expect(onlyChannels({ ok: false, line: 3, reason: 'no' }, ['CH1'])).toEqual({ ok: false, line: 3, reason: 'no' });
  });
});
