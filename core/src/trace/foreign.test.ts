// Records as makers of scopes and loggers head them: the same wave, written in many ways, is the same wave.
import { describe, expect, it } from 'vitest';
import { rippleChannel } from '../ripple/index.ts';
import { readTrace } from './index.ts';

const COUNT = 60;
/** 1 µs apart, ±20 mV: V. */
const wave = Array.from({ length: COUNT }, (_, at) => Number((0.02 * Math.sin(at / 3)).toFixed(5)));
const micros = wave.map((_, at) => at);
const lines = (line: (at: number, volts: number) => string): string[] =>
  micros.map((at) => line(at, wave[at] as number));
const german = (text: string): string => text.replaceAll('.', ',');
const volts = lines((_, v) => v.toFixed(6));
const milli = (v: number): string => (v * 1000).toFixed(3);

const FILES: readonly (readonly [string, readonly string[]])[] = [
  ['names, then units', ['Source,CH1', 'Second,Volt', ...lines((at, v) => `${at}E-06,${v}`)]],
  [
    'a step in the line below its name, and a count instead of times',
    ['X,CH1,Start,Increment', 'Sequence,Volt,-3.0e-02,1.0e-06', ...lines((at, v) => `${at},${v.toFixed(5)},`)],
  ],
  [
    'statements beside the first samples',
    lines((at, v) => {
      const beside = [
        'Record Length,60,Points',
        'Sample Interval,1e-06,s',
        'Source,CH1,',
        'Vertical Units,V,',
        'Probe Atten,1,',
      ];
      return `${beside[at] ?? ',,'},${(at * 1e-6 - 3e-5).toExponential(6)},${v.toExponential(5)}`;
    }),
  ],
  [
    'units in brackets over an empty line',
    ['Time,Channel A', '(us),(mV)', '', ...lines((at, v) => `${at},${milli(v)}`)],
  ],
  [
    'the same with decimal commas',
    ['Zeit;Kanal A', '(ms);(mV)', '', ...lines((at, v) => german(`${(at / 1000).toFixed(4)};${milli(v)}`))],
  ],
  ['a unit in another case', ['TIME,CH1', 'uS,mV', ...lines((at, v) => `${at},${milli(v)}`)]],
  ['units written out', ['Milliseconds,Millivolts', ...lines((at, v) => `${at / 1000},${milli(v)}`)]],
  [
    'units stated above',
    ['Horizontal Units,us', 'Vertical Units,mV', 'TIME,CH1', ...lines((at, v) => `${at},${milli(v)}`)],
  ],
  ['an interval with its unit before it', ['Sample Interval (us),1', 'CH1 (mV)', ...lines((_, v) => milli(v))]],
  ['a rate with its unit before it', ['Sampling Rate [MHz];1', 'Kanal 1 [V]', ...volts.map(german)]],
  ['a channel named before its interval', ['CH1 time increment: 1.0E-6', 'Volts', ...volts]],
  ['an interval parted by a comma', ['Memory Length,60', 'Sampling Period,1.000000E-06', 'CH1 (V)', ...volts]],
  ['a rate of which only the prefix is written', ['Rate: 1M', 'CH1 (V)', ...volts]],
  ['a rate with its thousands parted', ['Sample rate: 1,000,000 Hz', 'CH1 (V)', ...volts]],
  [
    'step and unit headed in one line and said in the next',
    ['XIncrement,YUnits', '1.0e-6,mV', '', 'Index,Value', ...lines((at, v) => `${at},${milli(v)}`)],
  ],
  [
    'times whose unit only the interval tells',
    ['Sample Interval,1E-06', 'Time,CH1 (V)', ...lines((at, v) => `${at}.000,${v}`)],
  ],
];

describe('a record', () => {
  it.each(FILES)('with %s', (_, file) => {
    const read = readTrace(`${file.join('\n')}\n`);
    if (!read.ok) throw new Error(read.reason);
    const found = rippleChannel(read.trace);
    if ('reason' in found) throw new Error(found.reason);
    expect(read.trace.interval).toBeCloseTo(1e-6, 12);
    expect(read.trace.times).toBeNull();
    expect([...found.values]).toHaveLength(COUNT);
    for (const [at, value] of wave.entries()) expect(found.values[at]).toBeCloseTo(value, 5);
    expect([...found.remarks, ...read.trace.remarks]).toEqual([]);
  });

  it('takes no number of something else for how far apart its samples are', () => {
    const read = readTrace(`Trigger at 5 V, sampling interval auto\nCH1 (V)\n${volts.join('\n')}\n`);
    expect(read).toMatchObject({ ok: false, reason: expect.stringContaining('Say the sample rate') });
    const stated = readTrace(`20 MHz bandwidth, 1 us sampling interval\nCH1 (V)\n${volts.join('\n')}\n`);
    expect(stated.ok && [stated.trace.interval, stated.trace.facts.bandwidth]).toEqual([1e-6, 20e6]);
  });

  it('takes a letter beside a value for no unit, and a level that rises by one for no count', () => {
    const read = readTrace(`Level,Time,Vbus,Phase\n${lines((at, v) => `${20 + at},${at} s,${v},A`).join('\n')}\n`);
    if (!read.ok) throw new Error(read.reason);
    const found = read.trace.channels.map(({ name, quantity }) => [name, quantity]);
    expect(found).toEqual([
      ['Level', 'level'],
      ['Vbus', 'voltage'],
    ]);
  });

  it('without units says which it was taken in', () => {
    const read = readTrace(`time,vbus,CH2\n${lines((at, v) => `${at},${v},${v}`).join('\n')}\n`);
    expect(read.ok && read.trace.remarks).toEqual(['No unit is stated: "time" in s, "vbus" in V is assumed.']);
    const bare = readTrace(`Sample Interval,1E-06\nCH1\n${volts.join('\n')}\n`);
    if (!bare.ok) throw new Error(bare.reason);
    expect(rippleChannel(bare.trace)).toMatchObject({ remarks: ['No unit is stated: "CH1" in V is assumed.'] });
  });

  it('in numbers of a converter, or in decibels, is none of volts', () => {
    for (const head of ['time [s],ADC counts', 'time [s],u (dBV)']) {
      const read = readTrace(`${head}\n${lines((at, v) => `${at}e-6,${Math.round(v * 1e4)}`).join('\n')}\n`);
      if (!read.ok) throw new Error(read.reason);
      expect(rippleChannel(read.trace), head).toMatchObject({ reason: expect.stringContaining('No column of volts') });
    }
  });

  it('of whole numbers in two columns keeps both', () => {
    const read = readTrace('0,100\n1,120\n2,90\n3,105\n4,101\n');
    expect(read.ok && [...(read.trace.channels[0]?.values ?? [])]).toEqual([100, 120, 90, 105, 101]);
  });
});

describe('a log of temperatures', () => {
  const celsius = Array.from({ length: 30 }, (_, at) => 25 + at / 2);
  const clock = (at: number, ends = '') =>
    `10:${String(Math.floor(at / 6)).padStart(2, '0')}:${(at % 6) * 10 || '00'}${ends}`;
  const log = (line: (at: number, front: number) => string) => celsius.map((front, at) => line(at, front));
  const fahrenheit = (value: number) => (value * 1.8 + 32).toFixed(1);

  it.each<readonly [string, readonly string[]]>([
    ['units behind a blank', ['time,front °F,room °F', ...log((at, c) => `${clock(at)},${fahrenheit(c)},77.0`)]],
    [
      'milliseconds behind a colon, and a number a scan',
      [
        'Scan,Time,101 <Front> (C),102 <Room> (C)',
        ...log((at, c) => `${at + 1},2026-03-02 ${clock(at, ':000')},${c},25`),
      ],
    ],
    [
      'a date beside a clock, and units in columns of their own',
      [
        'Place,Date,Time,Value,Unit,Value,Unit',
        ...log((at, c) => `${at + 1},2026/03/02,${clock(at)},${c},degC,25,degC`),
      ],
    ],
    [
      'dates before AM, and units in the cells',
      ['Timestamp,TC1,TC2', ...log((at, c) => `03/14/2026 ${clock(at, ' AM')},${c} C,25 C`)],
    ],
    ['months by name', ['When;T1 [°C];T2 [°C]', ...log((at, c) => `14-Mar-2026 ${clock(at)};${c};25`)]],
    ['years of two digits', ['When;T1 [°C];T2 [°C]', ...log((at, c) => `14.03.26 ${clock(at)};${c};25`)]],
  ])('with %s', (_, file) => {
    const read = readTrace(`${file.join('\n')}\n`);
    if (!read.ok) throw new Error(`${read.line}: ${read.reason}`);
    const { channels, interval, times, remarks } = read.trace;
    expect(interval).toBeCloseTo(10, 6);
    expect(times).toBeNull();
    expect(new Set(channels.map(({ name }) => name)).size).toBe(channels.length);
    const [front, room] = channels.slice(-2);
    for (const [at, value] of celsius.entries()) expect(front?.values[at]).toBeCloseTo(value, 1);
    expect(room?.values[5]).toBeCloseTo(25, 2);
    expect(remarks).toEqual([]);
  });

  const read = (content: string | Uint8Array) => {
    const reading = readTrace(content);
    if (!reading.ok) throw new Error(`${reading.line}: ${reading.reason}`);
    return reading.trace;
  };
  const western = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0));
  const wide = (text: string) =>
    Uint8Array.from([0xff, 0xfe, ...[...text].flatMap((sign) => [sign.charCodeAt(0) & 255, sign.charCodeAt(0) >> 8])]);
  const inCells = (unit: string, value: (c: number) => number) =>
    ['Time;Front', ...log((at, c) => `${at * 10};${value(c).toFixed(2)} ${unit}`), ''].join('\n');

  it.each<readonly [string, string | Uint8Array]>([
    ['°C', inCells('°C', (c) => c)],
    ['°C, as the old Western code page has it', western(inCells('°C', (c) => c))],
    ['°C, in UTF-16', wide(inCells('°C', (c) => c))],
    ['one sign for degree and C', inCells('℃', (c) => c)],
    ['deg C', inCells('deg C', (c) => c)],
    ['°F', inCells('°F', (c) => c * 1.8 + 32)],
    ['K', inCells('K', (c) => c + 273.15)],
  ])('with units in the cells of a column named after a place: %s', (_, file) => {
    const { channels } = read(file);
    expect(channels.map(({ quantity }) => quantity)).toEqual(['temperature']);
    for (const [at, value] of celsius.entries()) expect(channels[0]?.values[at]).toBeCloseTo(value, 2);
  });

  it('with a column of units takes the unit of each line, as meters that choose their range write it', () => {
    const volts = (at: number) => 0.9 + at / 100;
    const value = (at: number) => (volts(at) < 1 ? `${(volts(at) * 1000).toFixed(1)};mV` : `${volts(at).toFixed(4)};V`);
    const lines = Array.from({ length: 900 }, (_, at) => `${at};${at === 20 ? 'OL;V' : value(at)}`);
    const { channels, samples, remarks } = read(`Time [s];DMM;Unit\n${lines.join('\n')}\n`);
    expect([channels.length, samples, remarks]).toEqual([1, 900, ['1 value is out of range and no number.']]);
    for (const at of [0, 9, 10, 899]) expect(channels[0]?.values[at]).toBeCloseTo(volts(at), 6);
  });

  it('with a column of units believes it rather than the name', () => {
    const { channels } = read(`Time [s];Watt;Unit\n${log((at) => `${at};${15_000 + at};mW`).join('\n')}\n`);
    expect(channels[0]?.values[3]).toBeCloseTo(15.003, 6);
  });

  it('with decimal commas between strokes is not parted at the commas', () => {
    const { channels, interval } = read(
      `t [s]|T1\n${log((at, c) => `${at / 2}|${c}`.replaceAll('.', ',')).join('\n')}\n`,
    );
    expect([interval, channels.length, channels[0]?.values[5]]).toEqual([0.5, 1, 27.5]);
  });

  it('with units nothing is kept in among those of the line below the names', () => {
    const lines = log((at, c) => `${at * 1000};5.1;${at};12.1;${c}`);
    const { channels, interval } = read(['epoch_ms;U;Charge;R load;T1', ';V;mAh;Ω;°C', ...lines, ''].join('\n'));
    expect(interval).toBeCloseTo(1, 9);
    expect(channels.map(({ name, unit }) => `${name} ${unit}`)).toEqual(['U V', 'Charge mAh', 'R load Ω', 'T1 °C']);
  });

  it('with lines of delimiters alone, and its head once more, passes both over', () => {
    const head = '"Time [s]","Front [°C]"';
    const lines = log((at, c) => `"${at}","${c}"`);
    const { samples } = read([head, ...lines.slice(0, 9), ',', '"",""', head, ...lines.slice(9), ',,', ''].join('\n'));
    expect(samples).toBe(30);
  });

  it('with lines of delimiters alone, and no time, keeps them as samples nothing was told of', () => {
    const reading = readTrace('CH1 [V],CH2 [V]\n1,2\n3,4\n,\n5,6\n,\n,\n', { rate: 10 });
    expect(reading.ok && [...(reading.trace.channels[1]?.values ?? [])]).toEqual([2, 4, Number.NaN, 6]);
    expect(reading.ok && [reading.trace.samples, reading.trace.remarks]).toEqual([4, ['2 cells are empty.']]);
  });

  it.each<readonly [string, readonly string[], string]>([
    ['a word', ['# end', 'End of data'], 'Behind the table a line was left out: "End of data".'],
    ['sums', ['', 'Mean,31.2', 'Max,40'], 'Behind the table 2 lines were left out: "Mean,31.2" ….'],
    ['a rule and a count', ['---', 'Total: 30'], 'Behind the table 2 lines were left out: "---" ….'],
  ])('ends with %s, which is told and counts for nothing', (_, footer, says) => {
    for (const head of ['Time [s],Front [°C]', 'No.,Front [°C]']) {
      const text = [head, ...log((at, c) => `${at},${c}`), ...footer, ''].join('\n');
      const reading = readTrace(text, { rate: 1 });
      expect(reading.ok && [reading.trace.samples, reading.trace.remarks]).toEqual([30, [says]]);
    }
  });

  it.each<readonly [string, (day: number) => string, (seconds: number) => string]>([
    ['clocks of 24 hours', (day) => `2026/03/0${day}`, (s) => new Date(s * 1000).toISOString().slice(11, 19)],
    [
      'day first, and hours and minutes alone',
      (day) => `0${day}.03.2026`,
      (s) => new Date(s * 1000).toISOString().slice(11, 16),
    ],
    [
      'months by name, and clocks of 12 hours',
      (day) => `${day}-Mar-2026`,
      (s) =>
        `${((Math.floor(s / 3600) + 11) % 12) + 1}:${new Date(s * 1000).toISOString().slice(14, 19)} ${s < 43_200 ? 'AM' : 'PM'}`,
    ],
  ])('over midnight with its day in a column of its own: %s', (_, day, time) => {
    for (const heads of ['Date;Time', 'Time;Date']) {
      const lines = celsius.map((c, at) => {
        const seconds = 86_400 - 600 + at * 60;
        const [d, t] = [day(8 + Math.floor(seconds / 86_400)), time(seconds % 86_400)];
        return `${heads === 'Date;Time' ? `${d};${t}` : `${t};${d}`};${c}`;
      });
      const { interval, times, began, channels } = read(`${heads};T1 [°C]\n${lines.join('\n')}\n`);
      expect([interval, times, channels.length]).toEqual([60, null, 1]);
      expect(began).toBe(Date.parse('2026-03-08T23:50:00Z') / 1000);
    }
  });

  it('that goes on behind a line of words is wrong there', () => {
    const text = ['Time [s],Front [°C]', ...log((at, c) => `${at},${c}`), 'Pause', '40,41', ''].join('\n');
    expect(readTrace(text)).toMatchObject({ ok: false, line: 32, reason: expect.stringContaining('"Pause"') });
  });

  it('over midnight tells that its month comes first', () => {
    const lines = ['03/04/2026 23:59:40', '03/04/2026 23:59:50', '03/05/2026 00:00:00', '03/05/2026 00:00:10'];
    const read = readTrace(`When,T1 [°C]\n${lines.map((line, at) => `${line},${25 + at}`).join('\n')}\n`);
    expect(read.ok && [read.trace.interval, read.trace.times]).toEqual([10, null]);
    // The fourth of March and of April are a month apart, whatever else the file is.
    const months = readTrace('When,T1 [°C]\n04/03/2026 10:00,25\n04/04/2026 10:00,26\n04/05/2026 10:00,27\n');
    expect(months.ok && months.trace.times?.[1]).toBe(31 * 86_400);
  });
});

describe('a log of a charge', () => {
  it.each<readonly [string, string, (at: number) => string]>([
    [
      'a time called ts and units behind the names',
      'ts,bus_voltage_v,bus_current_ma,level_pct',
      (at) => `${1772445600 + at * 10},20.01,2500,${20 + at}`,
    ],
    ['columns called by their units', 'Seconds,Volts,Amps,Level (0-100)', (at) => `${at * 10},20.01,2.5,${20 + at}`],
    ['units in the cells', 'Time,Vbus,Ibus,Battery (%)', (at) => `${at * 10} s,20.01V,2500mA,${20 + at}`],
    [
      'its level as a part of the whole',
      'Time (s),Voltage (V),Current (A),SoC',
      (at) => `${at * 10},20.01,2.5,${(0.2 + at / 100).toFixed(3)}`,
    ],
    [
      'a range for a unit',
      'Time (s),Voltage (V),Current (A),Level (0-1)',
      (at) => `${at * 10},20.01,2.5,${(0.2 + at / 100).toFixed(2)}`,
    ],
  ])('with %s', (_, head, line) => {
    const read = readTrace(`${[head, ...Array.from({ length: 30 }, (_unused, at) => line(at))].join('\n')}\n`);
    if (!read.ok) throw new Error(read.reason);
    const last = (quantity: string) => read.trace.channels.find((one) => one.quantity === quantity)?.values[29];
    expect(read.trace.interval).toBeCloseTo(10, 6);
    expect(last('voltage')).toBeCloseTo(20.01, 3);
    expect(last('current')).toBeCloseTo(2.5, 4);
    expect(last('level')).toBeCloseTo(0.49, 4);
    expect(read.trace.remarks).toEqual([]);
  });
});
