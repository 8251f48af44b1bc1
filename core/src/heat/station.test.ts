import { describe, expect, it } from 'vitest';
import { judgeClaims, NOTHING_KNOWN } from '../claim/index.ts';
import { compareSoaks, type HeatStationFacts, heatStation, type SoakFigures, type SoakRecord } from './index.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const US = { kind: 'ac', volts: 115, hertz: 60 } as const;

const figures = (steady: number, part: Partial<SoakFigures> = {}): SoakFigures & { kind: 'soak' } => ({
  kind: 'soak',
  ambient: 23,
  sensors: [
    {
      name: 'front',
      steady,
      steadyInterval: [steady - 1, steady + 1],
      timeConstants: [900],
      settled: true,
      remaining: 0.2,
      atEnd: steady - 0.2,
      highest: steady,
      fit: null,
      from: 0,
      lasted: 3600,
    },
  ],
  events: [],
  watts: 65,
  findings: [],
  ...part,
});
let count = 0;
const soak = (made: SoakFigures & { kind: 'soak' }, part: Partial<SoakRecord> = {}): SoakRecord => {
  count += 1;
  return {
    id: `s${count}`,
    kind: 'soak',
    mains: EU,
    outputs: [{ port: 'C1', volts: 20, amps: 3.25 }],
    takenAt: '2026-05-01T10:00:00Z',
    soak: { place: 'open room', touched: 'plastic', ambient: null, surface: 'wood' },
    figures: made,
    supersedes: null,
    withdrawn: false,
    ...part,
  };
};
const facts = (captures: readonly SoakRecord[], touch: number | null = null): HeatStationFacts => ({
  sample: { kind: 'wall' },
  captures,
  profile: { mains: [US, EU], rule: 'guarded', touch },
});
const NONE = { efficiency: { series: [] }, proof: { holds: [], causes: [] } };
const conclude = (captures: readonly SoakRecord[], touch: number | null = null) =>
  heatStation.conclude(facts(captures, touch), NONE);

describe('soaks', () => {
  it('are comparable as rise, corrected to 25 °C, and held against what may be gripped', () => {
    const [cool, hot, near] = conclude([soak(figures(65)), soak(figures(80)), soak(figures(75))]).soaks;
    expect(cool?.rise?.steady).toBe(42);
    expect(cool?.at25).toMatchObject({ steady: 67, interval: [66, 68] });
    expect(cool?.touch).toMatchObject([{ high: 77, state: 'proven' }]);
    expect(hot?.touch).toMatchObject([{ state: 'short' }]);
    expect(near?.touch).toMatchObject([{ state: 'borderline' }]);
    expect(conclude([soak(figures(65))], 60).soaks[0]?.touch[1]).toMatchObject({ high: 60, state: 'short' });
  });

  it('without an ambient, or not told where it leads, decide nothing', () => {
    const unknown = conclude([soak(figures(65, { ambient: null }))]);
    expect(unknown.soaks[0]).toMatchObject({
      rise: null,
      at25: null,
      predictions: [],
      touch: [{ state: 'cannot be decided' }],
    });
    expect(unknown.missing).toHaveLength(2);
    expect(conclude([soak(figures(65))]).missing).toEqual([US]);
  });

  it('predict other places with their interval, named as predictions', () => {
    const [one] = conclude([soak(figures(65))]).soaks;
    expect(one?.predictions).toMatchObject([{ title: 'in a hut at 35 °C', at: { celsius: 77, interval: [76, 78] } }]);
  });

  it('output that does not last is a finding whatever was promised', () => {
    const event = {
      kind: 'throttle',
      at: 2400,
      from: 65,
      to: 52,
      volts: null,
      recovered: null,
      temperature: 70,
    } as const;
    const result = conclude([soak(figures(65, { events: [event] }))]);
    expect(heatStation.progress(result, facts([]), [], []).worst).toBe('short');
    expect(heatStation.says?.(result, facts([]))[0]).toBe(
      'Output gives less after 40.0 min: 65.0 to 52.0 W at 70 °C (C1 20 V 3.25 A, 230 V 50 Hz, open room at 23 °C).',
    );
  });

  it('say what they and holds tell together: a timer, or the heat', () => {
    const one = soak(figures(65));
    const line = (id: string, ended = true) => ({ run: { id }, ended });
    const proof = {
      holds: [
        { title: 'C1 20 V', lines: [line(one.id), line('hold')], cause: 'timer', sentence: 'The same time.' },
        { title: 'C2 20 V', lines: [line('hold')], cause: 'thermal', sentence: 'Of holds alone.' },
        { title: 'C1 9 V', lines: [line(one.id, false)], cause: 'not told', sentence: 'It held.' },
      ],
      causes: [
        { runIds: [one.id, 'hold'], sentence: 'Both at 81 °C: the heat.' },
        { runIds: ['hold', 'other'], sentence: 'Elsewhere.' },
      ],
    };
    const { causes } = heatStation.conclude(facts([one]), { ...NONE, proof });
    expect(causes).toEqual(['C1 20 V: The same time.', 'Both at 81 °C: the heat.']);
  });

  it('are compared where load, place and mains agree, or the mains alone differ', () => {
    const [a, b, us, other, open] = conclude([
      soak(figures(65)),
      soak(figures(70)),
      soak(figures(62), { mains: US }),
      soak(figures(60), { outputs: [{ port: 'C1', volts: 9, amps: 3 }] }),
      soak(figures(60, { ambient: null })),
    ]).soaks;
    if (!a || !b || !us || !other || !open) throw new Error('Five soaks.');
    expect(compareSoaks(a, b)).toEqual({ comparable: true, difference: 5, half: Math.SQRT2, told: true });
    expect(compareSoaks(a, a)).toMatchObject({ difference: 0, told: false });
    expect(compareSoaks(a, us)).toEqual({ comparable: false, reasons: ['other mains: 230 V 50 Hz and 115 V 60 Hz'] });
    expect(compareSoaks(a, us, false)).toMatchObject({ comparable: true, difference: -3, told: true });
    expect(compareSoaks(a, other)).toMatchObject({ reasons: [expect.stringContaining('other loads')] });
    expect(compareSoaks(a, open)).toMatchObject({ reasons: [expect.stringContaining('is not told')] });
  });

  it('settle a claim about the surface', () => {
    const { soaks } = conclude([soak(figures(65))]);
    const state = (celsius: number) =>
      judgeClaims(
        [{ id: 'c', promise: { kind: 'surface', celsius }, duration: { kind: 'unstated' }, printed: 'box' }],
        { ...NOTHING_KNOWN, soaks },
      )[0]?.state;
    expect([state(70), state(67), state(60)]).toEqual(['proven', 'borderline', 'short']);
  });
});
