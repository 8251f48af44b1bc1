import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readBinary, readDescribed, readTrace, type Trace, type TraceHints, TraceReader } from './index.ts';

const read = (text: string, hints: TraceHints = {}): Trace => {
  const found = readTrace(text, hints);
  if (!found.ok) throw new Error(`line ${found.line}: ${found.reason}`);
  return found.trace;
};
const columns = (text: string, hints?: TraceHints) =>
  Object.fromEntries(read(text, hints).channels.map(({ name, values }) => [name, [...values]]));

describe('a trace file', () => {
  it.each([
    ['commas and exponents', 'time,v\n0,1\n1e-6,-2.5E-3\n2e-6,3\n', 1e-6, { v: [1, -0.0025, 3] }],
    ['decimal commas', 'time;V\n0,0;1,5\n0,1;-1,1\n0,2;,5\n', 0.1, { V: [1.5, -1.1, 0.5] }],
    ['tabs and units in brackets', 't [ms]\tVout [mV]\n0\t1\n0.5\t2\n1\t3\n', 5e-4, { Vout: [0.001, 0.002, 0.003] }],
    [
      'units in a line of their own',
      'Time,Front,Room\ns,°F,K\n0,77,298.15\n2,104,299.15\n4,212,300.15\n',
      2,
      { Front: [25, 40, 100], Room: [25, 26, 27] },
    ],
    ['quotes and returns', '"t (s)","CH1 (V)"\r\n"0.0","0.001"\r\n"0.1","0.002"\r\n', 0.1, { CH1: [0.001, 0.002] }],
    ['runs of blanks', 'x   volts\n0 1\n 1    2\n2\t3\n', 1, { volts: [1, 2, 3] }],
    ['returns alone', 'time,v\r0,1\r1,2\r2,3\r', 1, { v: [1, 2, 3] }],
    ['units in the cells', 'time,v\n0 s,12mV\n1 s,0.5 V\n2 s,1\n', 1, { v: [0.012, 0.5, 1] }],
    [
      'an index and a stated interval',
      'Instrument;X\nSample Interval;2.0E-7;s\n\nIndex;CH1\n;mV\n0;1,5\n1;2,5\n2;-3,5\n',
      2e-7,
      { CH1: [0.0015, 0.0025, -0.0035] },
    ],
    [
      'a stated rate and nothing but values',
      'Sample rate: 5 MSa/s\n0.1\n0.2\n0.3\n',
      2e-7,
      { samples: [0.1, 0.2, 0.3] },
    ],
    [
      'milliwatt hours and per cent',
      'time,Energy [mWh],Level [%]\n0,0,20\n1,500,21\n',
      1,
      { Energy: [0, 0.5], Level: [0.2, 0.21] },
    ],
    ['clock times past midnight', 'time,W\n23:59:58,1\n23:59:59,2\n00:00:00,3\n', 1, { W: [1, 2, 3] }],
    ['minutes and seconds', 'time,W\n00:58.0,1\n00:59.0,2\n01:00.0,3\n', 1, { W: [1, 2, 3] }],
    [
      'milliseconds since 1970',
      'timestamp,W\n1767607200000,1\n1767607201000,2\n1767607202000,3\n',
      1,
      { W: [1, 2, 3] },
    ],
    [
      'units trailing the names',
      'time_ms,vbus_mV,T_front_C\n0,5000,25\n10,5010,26\n20,5020,27\n',
      0.01,
      { vbus: [5, 5.01, 5.02], T_front: [25, 26, 27] },
    ],
    ['its time named by its unit', 'minutes;watts\n0;1\n1;2\n2;3\n', 60, { watts: [1, 2, 3] }],
    ['a rate among remarks', '# fs=200000\nv\n0.1\n0.2\n0.3\n', 5e-6, { v: [0.1, 0.2, 0.3] }],
    [
      'axes and units as some scopes head them',
      'x-axis,1\nsecond,Volt\n-1.0E-06,+1.0E-03\n+0.0E+00,+2.0E-03\n+1.0E-06,+3.0E-03\n',
      1e-6,
      { 1: [0.001, 0.002, 0.003] },
    ],
    ['remarks and its head once more', '# made today\ntime,v\n0,1\n# pause\n1,2\ntime,v\n2,3\n', 1, { v: [1, 2, 3] }],
  ])('with %s', (_, text, interval, wanted) => {
    const trace = read(text);
    expect(trace.interval).toBeCloseTo(interval, 12);
    expect(trace.times).toBeNull();
    for (const [name, values] of Object.entries(wanted)) {
      const found = trace.channels.find((one) => one.name === name);
      expect([...(found?.values ?? [])].map((value) => Number(value.toPrecision(9)))).toEqual(values);
    }
  });

  it('in UTF-16 and with a mark is read as any other', () => {
    const text = 'time;V\n0;1\n1;2\n';
    const wide = new Uint8Array(2 * text.length + 2);
    wide.set([0xff, 0xfe]);
    for (let at = 0; at < text.length; at += 1) wide[2 + 2 * at] = text.charCodeAt(at);
    for (const bytes of [wide, new TextEncoder().encode(`\ufeff${text}`)]) {
      const found = readTrace(bytes);
      expect(found.ok && [...(found.trace.channels[0]?.values ?? [])]).toEqual([1, 2]);
    }
  });

  it('with dates says when it began, and keeps the times of uneven ones', () => {
    const trace = read('2026-01-05T10:00:00Z,20.0\n2026-01-05T10:00:01Z,20.1\n2026-01-05T10:00:09Z,20.2\n');
    expect(trace.began).toBe(Date.UTC(2026, 0, 5, 10) / 1000);
    expect([...(trace.times ?? [])]).toEqual([0, 1, 9]);
  });

  it('whose times have too few digits for its rate is even all the same', () => {
    const lines = Array.from({ length: 50 }, (_, at) => `${(at * 2e-7).toFixed(6)},${at}`);
    const trace = read(`time,v\n${lines.join('\n')}\n`);
    expect(trace.times).toBeNull();
    expect(trace.interval).toBeCloseTo(2e-7, 8);
  });

  it('out of range and empty are no numbers, and counted', () => {
    const trace = read('time,v\n0,1\n1,OL\n2,9.9E37\n3,\n4,2\n');
    expect([...(trace.channels[0]?.values ?? [])]).toEqual([1, NaN, NaN, NaN, 2]);
    expect(trace.remarks).toEqual([
      'No unit is stated: "time" in s is assumed.',
      '2 values are out of range and no number.',
      '1 cell is empty.',
    ]);
  });

  it('cut off in its last line loses that line and says so', () => {
    const trace = read('time,v\n0,1\n1,2\n2,4\n3');
    expect(trace.samples).toBe(3);
    expect(trace.remarks.join()).toMatch(/cut off/);
  });

  it('says what its preamble says: bandwidth, envelopes', () => {
    expect(read('Bandwidth: 20 MHz\nAcquisition: Peak Detect\ntime,v\n0,1\n1,2\n').facts).toEqual({
      bandwidth: 20e6,
      envelope: true,
      coupling: null,
    });
    expect(read('time,Min,Max\n0,1,2\n1,1,3\n').facts.envelope).toBe(true);
  });

  it.each([
    ['a word', 'time,v\n0,1\n1,2\n2,x\n', 4, '"x" under "v" is no number'],
    [
      'a word where a time should be, right behind the first sample',
      'time,v\n0,1\nx,2\n2,3\n3,4\n',
      3,
      '"x" is no time',
    ],
    ['times that go back', 'time,v\n0,1\n1,2\n0.5,3\n', 4, 'before that of the line above'],
    ['a line too short in the middle', 'time,v\n0,1\n1\n2,3\n', 3, '1 of 2 columns'],
    ['no time and no interval', 'v\n1\n2\n3\n', null, 'no column of time'],
    ['times that stand still', 'time,v\n1,1\n1,2\n1,3\n', null, 'do not rise'],
    ['words only', 'hello\nworld\n', null, 'No table of numbers'],
    ['nothing', '', null, 'empty'],
    ['one sample', 'time,v\n0,1\n', null, 'fewer than two'],
  ])('with %s says what, and where', (_, text, line, says) => {
    const found = readTrace(text);
    expect(found).toMatchObject({ ok: false, line, reason: expect.stringContaining(says) });
  });

  it('a rate may be said for it', () => {
    expect(read('v\n1\n2\n3\n', { rate: 1000 }).interval).toBe(0.001);
  });

  it('reads the same however it is cut into pieces', () => {
    const text = `time [s],v [mV],w\n${Array.from({ length: 300 }, (_, at) => `${at / 10},${at % 7}.${at},"${at}"`).join('\r\n')}\r\n`;
    const whole = columns(text);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 997 }), (size) => {
        const bytes = new TextEncoder().encode(text);
        const reader = new TraceReader();
        for (let at = 0; at < bytes.length; at += size) reader.push(bytes.subarray(at, at + size));
        const found = reader.result();
        expect(
          found.ok && Object.fromEntries(found.trace.channels.map(({ name, values }) => [name, [...values]])),
        ).toEqual(whole);
      }),
      { numRuns: 25 },
    );
  });

  it('numbers are the doubles nearest to what is written', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e12, max: 1e12 }), {
          minLength: 3,
          maxLength: 30,
        }),
        (values) => {
          const text = `time,v\n${values.map((value, at) => `${at},${value}`).join('\n')}\n`;
          expect(columns(text).v).toEqual(values.map((value) => value + 0));
        },
      ),
    );
  });
});

it('what is lettered is no unit: "sensor A" is no current', () => {
  const trace = read('time_s,Sensor A,Sensor B\n0,25,26\n1,25,26\n2,26,27\n');
  expect(trace.channels.map(({ name, quantity }) => [name, quantity])).toEqual([
    ['Sensor A', null],
    ['Sensor B', null],
  ]);
});

describe('binary samples', () => {
  const of = (bytes: Uint8Array, description: object) => readBinary(bytes, description as never);

  it('are read by their description', () => {
    const int16 = new Uint8Array(new Int16Array([1, -1, 300]).buffer);
    expect(
      of(int16, { format: 'int16', rate: 1000, channels: [{ name: 'out', unit: 'mV', scale: 2, offset: 1 }] }),
    ).toMatchObject({
      ok: true,
      trace: {
        samples: 3,
        interval: 0.001,
        channels: [{ name: 'out', quantity: 'voltage', values: Float64Array.of(0.003, -0.001, 0.601) }],
      },
    });
    const big = Uint8Array.of(9, 9, 0x01, 0x00, 0xff, 0xff, 0x00, 0x02, 0x00, 0x03, 7);
    const two = of(big, {
      format: 'int16',
      endian: 'big',
      interval: 1e-6,
      skip: 2,
      channels: [{ unit: 'V' }, { unit: 'A' }],
    });
    expect(two).toMatchObject({
      ok: true,
      trace: {
        samples: 2,
        channels: [{ values: Float64Array.of(256, 2) }, { quantity: 'current', values: Float64Array.of(-1, 3) }],
      },
    });
    expect(two.ok && two.trace.remarks).toEqual(['The file ends amid a sample: 1 of its bytes left out.']);
  });

  it('temperatures are kept in °C, whatever they were written in', () => {
    const kelvin = new Uint8Array(new Float32Array([300, 310]).buffer);
    const read = readDescribed(kelvin, '{"format":"float32","interval":5,"channels":[{"name":"front","unit":"K"}]}');
    expect(read).toMatchObject({ ok: true, trace: { channels: [{ name: 'front', quantity: 'temperature' }] } });
    expect(read.ok && [...(read.trace.channels[0]?.values ?? [])].map((one) => Math.round(one * 100) / 100)).toEqual([
      26.85, 36.85,
    ]);
    expect(readDescribed(kelvin, 'format: float32')).toMatchObject({
      ok: false,
      reason: 'The description is no JSON.',
    });
  });

  it('without a description they say what to choose', () => {
    expect(readTrace(new Uint8Array(new Int16Array([1, -1, 300, 0, 0, 5]).buffer))).toMatchObject({
      ok: false,
      reason: expect.stringContaining('JSON that describes them'),
    });
  });

  it.each([
    [{}, '"format" is one of'],
    [{ format: 'int16' }, 'Give "rate"'],
    [{ format: 'int16', rate: -1 }, 'Give "rate"'],
    [{ format: 'float32', rate: 1, channels: [] }, '"channels" is a list'],
    [{ format: 'float32', rate: 1, channels: [{ scale: 'two' }] }, '"scale" is a number'],
    [{ format: 'float32', rate: 1, channels: [{ name: 5 }] }, '"name" is a text'],
    [null, 'no JSON object'],
  ])('%j says what is wrong', (description, says) => {
    expect(of(new Uint8Array(8), description as object)).toMatchObject({
      ok: false,
      reason: expect.stringContaining(says),
    });
  });
});
