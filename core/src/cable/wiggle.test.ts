import { describe, expect, it } from 'vitest';
import { readWiggle, type WiggleSample, wiggleOf, wiggleWords } from './index.ts';

/** 10 samples a second, whole but for the stretches named: from, to in s. */
const trace = (seconds: number, ...apart: readonly (readonly [number, number])[]): WiggleSample[] =>
  Array.from({ length: seconds * 10 + 1 }, (_, at) => ({
    seconds: at / 10,
    value: apart.some(([from, to]) => at / 10 >= from && at / 10 < to) ? 0.02 : 5.08 - 0.01 * (at % 2),
  }));

describe('a wiggled cable', () => {
  it('is whole where nothing breaks off', () => {
    const found = wiggleOf(trace(20), 'voltage');
    expect(found).toMatchObject({ interruptions: 0, longest: 0, seconds: 20 });
    expect(found?.outline).toHaveLength(100);
    expect(found && wiggleWords(found)).toBe('no interruption in 20 s');
  });

  it('comes apart so often, and for so long', () => {
    const found = wiggleOf(trace(20, [2, 2.4], [7, 7.1], [12, 13.5]), 'voltage');
    expect(found?.interruptions).toBe(3);
    expect(found?.longest).toBeCloseTo(1.5, 6);
    expect(found?.outline.filter(({ least }) => least < 1).length).toBeGreaterThanOrEqual(9);
    expect(found && wiggleWords(found)).toBe('3 interruptions in 20 s, the longest 1.5 s');
  });

  it('falls silent where the meter goes off with it, which is no proof that it held', () => {
    const found = wiggleOf(
      trace(20).filter(({ seconds }) => seconds <= 8 || seconds >= 11.2),
      'voltage',
    );
    expect(found).toMatchObject({ interruptions: 0, silent: expect.closeTo(3.2, 6) });
    expect(found && wiggleWords(found)).toBe(
      'no interruption in 20 s; for 3.2 s on end nothing was logged, as when the meter itself went off',
    );
    // A sample late by half a second, or one dropped by a slow logger, is none.
    expect(
      wiggleOf(
        trace(20).filter((_one, at) => at < 50 || at > 53),
        'voltage',
      )?.silent,
    ).toBeUndefined();
    const slow = Array.from({ length: 20 }, (_one, at) => ({ seconds: at < 9 ? at * 2 : at * 2 + 4, value: 5 }));
    expect(wiggleOf(slow, 'voltage')?.silent).toBeUndefined();
  });

  it('may be apart most of the time, from the start or to the end', () => {
    expect(wiggleOf(trace(20, [0, 18]), 'current')).toMatchObject({ interruptions: 1, longest: 18 });
    expect(wiggleOf(trace(20, [18, 30]), 'current')).toMatchObject({ interruptions: 1, longest: 2 });
  });

  it('shows nothing where nothing flowed, or hardly anything was logged', () => {
    expect(wiggleOf([], 'voltage')).toBeNull();
    expect(
      wiggleOf(
        trace(20, [0, 30]).map((one) => ({ ...one, value: 0 })),
        'voltage',
      ),
    ).toBeNull();
    expect(wiggleOf(trace(20).slice(0, 9), 'voltage')).toBeNull();
    expect(
      wiggleOf(
        trace(20).map((one) => ({ ...one, seconds: 3 })),
        'voltage',
      ),
    ).toBeNull();
    expect(
      wiggleOf(
        trace(2).map((one) => ({ ...one, value: Number.NaN })),
        'voltage',
      ),
    ).toBeNull();
  });

  const text = (head: string, scale: number) =>
    [head, ...trace(2, [1, 1.2]).map(({ seconds, value }) => `${seconds * scale};${value}`)].join('\n');
  it('is read from a table, with its units in the heads, or time and volts', () => {
    for (const table of [
      text('time_s;V', 1),
      text('t [ms];Vbus [V]', 1000),
      text('# bench\n', 1),
      text('Time (s);Current (A)', 1),
    ]) {
      const read = readWiggle(table);
      expect(read.ok && read.wiggle.interruptions, table.slice(0, 20)).toBe(1);
      expect(read.ok && read.wiggle.longest, table.slice(0, 20)).toBeCloseTo(0.2, 6);
    }
    const rows = (of: (second: number, volts: string) => string) =>
      Array.from({ length: 21 }, (_, at) => of(at, at === 10 || at === 11 ? '0.02' : '5.08')).join('\n');
    const two = (second: number) => String(second).padStart(2, '0');
    for (const table of [
      `Logger,bench\nSerial,12\n\nTime [s];Voltage [V]\n${rows((s, volts) => `${s};${volts}`)}`,
      `Time,Vbus (V)\n${rows((s, volts) => `23:59:${two(s + 39)}.5,${volts}`)}`,
      `Timestamp,Voltage(V),Current(A)\n${rows((s, volts) => `2026-11-02 12:03:${two(s)},${volts},1.0`)}`,
      `Zeit [s];Spannung [V]\n${rows((s, volts) => `${s},0;${volts.replace('.', ',')}`)}`,
      `Time,D+ (V),Vbus (V)\n${rows((s, volts) => `${s},0.6,${volts}`)}`,
      `Time,Volts\ns,V\n${rows((s, volts) => `${s},${volts}`)}`,
      `No.,Time(s),VBUS,IBUS\n${rows((s, volts) => `${s},${s},${s === 5 ? '' : volts},0.5`)}`,
    ]) {
      const read = readWiggle(table);
      expect(read, table.slice(0, 30)).toMatchObject({ ok: true, wiggle: { quantity: 'voltage', interruptions: 1 } });
      expect(read.ok && read.wiggle.longest, table.slice(0, 30)).toBeCloseTo(2, 6);
    }
    expect(readWiggle(text('Time (s);Current (A)', 1))).toMatchObject({ wiggle: { quantity: 'current' } });
  });

  it.each([
    ['', 1, 'empty'],
    ['time;note\n0;x', 2, 'No column holds values'],
    ['time;V\n0;5\n1;open', 3, 'is no number'],
    [`time;strain\n${Array.from({ length: 12 }, (_, at) => `${at};5`).join('\n')}`, 1, 'one of volts or amps'],
    ['time;V\n1;5\n0;5', 3, 'before that of the line above'],
    ['time;V\n0;5\n1;5', 1, 'fewer than ten'],
    [`time;V\n${Array.from({ length: 12 }, (_, at) => `${at};0`).join('\n')}`, 1, 'Nothing flowed'],
  ])('%j is refused at its line', (table, line, reason) => {
    const read = readWiggle(table);
    expect(read.ok ? null : read.line).toBe(line);
    expect(read.ok ? '' : read.reason).toContain(reason);
  });
});
