import { describe, expect, it } from 'vitest';
import {
  ACTIONS,
  BUILT_IN,
  LIVE_ACTION,
  meaningsOf,
  type ProfileClass,
  pairsOf,
  powersOf,
  replyOf,
  toldNumber,
} from './index.ts';

describe('what an instrument tells', () => {
  it('is asked by an action of its class that answers with numbers', () => {
    for (const [kind, action] of Object.entries(LIVE_ACTION) as [ProfileClass, string][]) {
      expect(ACTIONS[kind]).toHaveProperty(action);
      const profile = BUILT_IN.find((one) => one.class === kind);
      expect(profile && ['number', 'numbers']).toContain(profile && replyOf(profile, action));
    }
    expect(Object.keys(LIVE_ACTION)).toHaveLength(8);
  });

  it('is found by quantity and channel', () => {
    const load = [12.5, 20.01, 2.25, 5.02, 0];
    expect(toldNumber('DC load', load, 'time')).toBe(12.5);
    expect(toldNumber('DC load', load, 'voltage', 1)).toBe(20.01);
    expect(toldNumber('DC load', load, 'current', 2)).toBe(0);
    expect(toldNumber('DC load', load, 'current', 3)).toBeNull();
    expect(toldNumber('power analyser', [1, 50, 230, 0.3, 0.72], 'power-factor')).toBe(0.72);
    expect(toldNumber('bench multimeter', [1, 5, 9], 'voltage', 2)).toBe(9);
    expect(toldNumber('plug-in wall meter', [41], 'power')).toBe(41);
    expect(toldNumber('thermometer', [24, 40, null], 'temperature', 3)).toBeNull();
  });

  it('makes power of the volts and amps of one channel, and of nothing else', () => {
    expect(powersOf('DC load', [12.5, 20, 2.25, 5, 0, 9, null])).toEqual([45, 0, null]);
    expect(powersOf('inline USB meter', [1, 9, 2])).toEqual([18]);
    expect(powersOf('DC load', [1, 20, Number.NaN])).toEqual([null]);
    expect(powersOf('bench multimeter', [1, 5, 9])).toEqual([]);
    expect(pairsOf('DC load', 5)).toEqual([
      { channel: 1, volts: 1, amps: 2 },
      { channel: 2, volts: 3, amps: 4 },
    ]);
  });

  it('an inline meter answers for the channel it is set to, whichever that is', () => {
    expect(toldNumber('inline USB meter', [1, 9.02, 2], 'voltage', 4)).toBe(9.02);
  });

  it('what is no number is none, and an unknown class tells nothing', () => {
    expect(toldNumber('power analyser', [1, Number.NaN], 'power')).toBeNull();
    expect(toldNumber('crystal ball', [1], 'power')).toBeNull();
    expect(meaningsOf('DC load', 0)).toEqual([]);
  });
});
