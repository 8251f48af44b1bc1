import { describe, expect, it } from 'vitest';
import { judgeClaims, NOTHING_KNOWN } from '../claim/index.ts';
import { aReadOut } from '../testing/read-out.ts';
import { aRig } from '../testing/reading.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { type RippleFigures, type RippleRecord, type RippleStationFacts, rippleSays, rippleStation } from './index.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const US = { kind: 'ac', volts: 115, hertz: 60 } as const;
const FIGURES: RippleFigures & { kind: 'ripple' } = {
  kind: 'ripple',
  samples: 1000,
  sampleRate: 1e6,
  peakToPeak: 0.04,
  peakToPeak9999: 0.039,
  rms: 0.01,
  mean: 0,
  drift: 0,
  lines: [],
  findings: [],
};
let count = 0;
const record = (
  volts: number,
  amps: number,
  peakToPeak: number,
  part: Partial<RippleRecord & { mean: number }> = {},
): RippleRecord => {
  count += 1;
  const { mean = 0, ...rest } = part;
  return {
    id: `r${count}`,
    kind: 'ripple',
    mains: EU,
    port: 'C1',
    outputs: [{ port: 'C1', volts, amps }],
    rigId: 'rig',
    takenAt: '2026-05-01T10:00:00Z',
    samples: 1000,
    figures: { ...FIGURES, peakToPeak, mean } as RippleRecord['figures'],
    supersedes: null,
    withdrawn: false,
    ...rest,
  };
};
const scope = {
  id: 'scope',
  name: 'Scope',
  sees: null,
  specs: { voltage: { ...NO_SPEC, readingPercent: 3, offset: 0.0005 } },
};
const facts = (captures: readonly RippleRecord[], part: Partial<RippleStationFacts> = {}): RippleStationFacts => ({
  sample: { kind: 'wall', ports: [{ label: 'C1' }] },
  captures,
  readOuts: [aReadOut(['5 V 3 A', '20 V 2.25 A'])],
  rigs: [
    { ...aRig(), id: 'rig', drives: { source: null, load: null, thermometer: null, analyser: null, scope: 'scope' } },
  ],
  instruments: [scope],
  profile: { mains: [US, EU], rule: 'guarded', tolerance: null },
  ...part,
});
const conclude = (...args: Parameters<typeof facts>) => rippleStation.conclude(facts(...args), {});

describe('ripple by level, load and mains', () => {
  it('knows the load of a record from what the port offers', () => {
    const { cells } = conclude([
      record(20, 0, 0.05),
      record(20, 0.4, 0.06),
      record(20, 1.2, 0.03),
      record(20, 2.25, 0.04),
    ]);
    expect(cells.map(({ load }) => load)).toEqual(['no load', 'light load', 'part load', 'rated load']);
    const together = record(20, 2.25, 0.05, {
      outputs: [
        { port: 'C1', volts: 20, amps: 2.25 },
        { port: 'C2', volts: 9, amps: 2 },
      ],
    });
    expect(conclude([together]).cells[0]?.load).toBe('combination');
  });

  it('says what is still to be taken: each level without and with load at each mains', () => {
    const { missing, total, highest, lowest } = conclude([record(20, 0, 0.05), record(20, 2.25, 0.03)]);
    expect(total).toBe(8);
    expect(
      missing.map(({ volts, amps, mains }) => `${volts} ${amps} ${mains.kind === 'ac' ? mains.volts : 0}`),
    ).toEqual(['5 0 115', '5 3 115', '5 0 230', '5 3 230', '20 0 115', '20 2.25 115']);
    expect([highest?.figures.peakToPeak, lowest?.figures.peakToPeak]).toEqual([0.05, 0.03]);
  });

  it('takes the newest of the same, and none that was taken back', () => {
    const first = record(20, 2.25, 0.05);
    const again = record(20, 2.25, 0.04);
    const back = record(5, 3, 0.02);
    const gone = record(5, 3, 0.02, { supersedes: back.id, withdrawn: true });
    expect(conclude([first, again, back, gone]).cells.map(({ captureId }) => captureId)).toEqual([again.id]);
  });

  it('holds it against the user’s own limit, the stricter of volts and part of the level', () => {
    const profile = { ...facts([]).profile, ripple: { volts: 0.06, part: 0.01, unloaded: false } };
    const [five, idle, twenty] = [
      ...conclude([record(5, 3, 0.055), record(5, 0, 0.2), record(20, 2.25, 0.055)], {
        profile,
      }).cells,
    ].sort((a, b) => a.volts - b.volts || b.amps - a.amps);
    expect(five?.limit).toMatchObject({ high: 0.05, state: 'short' });
    expect(idle?.limit).toBeNull();
    expect(twenty?.limit).toMatchObject({ high: 0.06, state: 'proven' });
    const unstated = conclude([record(20, 2.25, 0.055)], { profile, instruments: [{ ...scope, specs: {} }] }).cells[0];
    expect(unstated?.limit?.state).toBe('cannot be decided');
  });

  it('says where ripple and set-point error together leave the level’s tolerance, if the record holds the level', () => {
    const [inside] = conclude([record(20, 2.25, 0.1, { mean: 19.4 })]).cells;
    expect(inside?.tolerance).toMatchObject({ state: 'inside', low: expect.closeTo(19.35, 9) });
    const outside = conclude([record(20, 2.25, 0.1, { mean: 19.03 })]);
    expect(outside.cells[0]?.tolerance?.state).toBe('outside');
    expect(rippleStation.progress(outside, facts([]), [], []).worst).toBe('short');
    expect(conclude([record(20, 2.25, 0.1)]).cells[0]?.tolerance).toBeNull();
  });

  it('settles a claim by its worst record, with U', () => {
    const { cells } = conclude([record(20, 0, 0.05), record(20, 2.25, 0.03)]);
    const judged = (volts: number) =>
      judgeClaims(
        [{ id: 'c', promise: { kind: 'ripple', volts, mains: null }, duration: { kind: 'unstated' }, printed: 'box' }],
        { ...NOTHING_KNOWN, ripple: cells },
      )[0];
    expect(judged(0.06)?.state).toBe('proven');
    expect(judged(0.05)?.state).toBe('borderline');
    expect(judged(0.04)?.state).toBe('short');
    expect(judged(0.04)?.sentence).toContain('C1 20 V, no load');
  });

  it('says a cell with its conditions', () => {
    const [cell] = conclude([record(20, 2.25, 0.03)]).cells;
    expect(cell && rippleSays(cell)).toBe('30 mV ± 1.62 mV peak to peak at C1 20 V 2.25 A, 230 V 50 Hz.');
  });
});
