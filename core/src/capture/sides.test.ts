// Files that hold what goes into the charger and what comes out of it.
import { describe, expect, it } from 'vitest';
import { type CaptureKind, readCapture } from './index.ts';

describe('a file with both sides of the charger', () => {
  const lines = (head: string, count: number, row: (seconds: number) => readonly number[], every = 1e-3) =>
    [
      head,
      ...Array.from({ length: count }, (_, at) =>
        [at * every, ...row(at * every)].map((one) => one.toFixed(5)).join(','),
      ),
    ].join('\n');
  const mains = (t: number) => 325 * Math.sin(2 * Math.PI * 50 * t);
  const drawn = (t: number) => 0.5 * Math.sin(2 * Math.PI * 50 * t) ** 5;
  const took = (kind: CaptureKind, text: string) => {
    const reading = readCapture(kind, text);
    if (!reading.ok) throw new Error(reading.reason);
    return reading;
  };

  it.each([
    'Output voltage (V),Mains voltage (V)',
    'Vdc (V),Vac (V)',
    'Vbus (V),Line voltage (V)',
    'C1 (V),Source output (V)',
    'V out (V),V in (V)',
  ])('gives the output to what an output does: %s', (heads) => {
    for (const kind of ['dip', 'fading'] as const) {
      const one = took(
        kind,
        lines(`t (s),${heads}`, 300, (t) => [t < 0.1 ? 20 : 0, t < 0.08 ? 230 : 0]),
      );
      expect([one.trace.columns.volts?.[0], one.trace.columns.volts?.[299]]).toEqual([20, 0]);
      expect(one.remarks).toEqual([]);
    }
  });

  it.each([
    'Output voltage (V),Output current (A),Mains voltage (V),Mains current (A)',
    'Vdc (V),Idc (A),Vac (V),Iac (A)',
    'Load voltage (V),Load current (A),CH1 (V),CH2 (A)',
  ])('gives the mains to what the mains do: %s', (heads) => {
    const text = lines(`t (s),${heads}`, 2000, (t) => [20, 2.25, mains(t), drawn(t)], 1e-4);
    const { columns } = took('waveform', text).trace;
    expect([columns.volts?.[50], columns.amps?.[50]]).toEqual([325, 0.5]);
    expect(took('inrush', text).trace.columns.amps?.[50]).toBe(0.5);
  });

  it('tells supply from output while the supply is swept', () => {
    for (const heads of ['Source,C1', 'Input voltage,Output', 'Mains voltage,Output voltage', 'Battery,USB']) {
      const [supply, output] = heads.split(',');
      const { columns } = took(
        'sweep',
        lines(`t (s),${output} (V),${supply} (V)`, 50, (t) => [5, 12 + t], 0.1),
      ).trace;
      expect([columns.supply?.[0], columns.volts?.[0]]).toEqual([12, 5]);
    }
  });

  it.each([
    'No-load power (W)',
    'No load (W)',
    'Charger power (W)',
    'Outlet power (W)',
    'Reported power (W)',
    'Power AC (W)',
    'P (W)',
  ])('takes idle power from a column called %s', (head) =>
    expect(
      took(
        'idle',
        lines(`t (s),${head}`, 50, () => [0.045]),
      ).trace.columns.watts?.[7],
    ).toBe(0.045),
  );

  it.each(['Output power (W)', 'Load power (W)', 'USB power (W)', 'VBUS power (W)'])(
    'but not from one called %s',
    (head) =>
      expect(
        readCapture(
          'idle',
          lines(`t (s),${head}`, 50, () => [0.045]),
        ).ok,
      ).toBe(false),
  );

  it('refuses the input for an output, and says which of two channels is used', () => {
    const reading = readCapture(
      'dip',
      lines('t (s),Mains voltage (V)', 50, () => [230]),
    );
    expect(reading).toMatchObject({
      ok: false,
      reason: expect.stringContaining('No column of volts. Its columns are "Mains voltage"'),
    });
    const two = took(
      'dip',
      lines('t (s),CH1 (V),CH2 (V)', 50, () => [230, 20]),
    );
    expect(two.remarks).toEqual(['Several columns of volts: “CH1” is used, not “CH2”.']);
  });
});
