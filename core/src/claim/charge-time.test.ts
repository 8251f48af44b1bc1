import { describe, expect, it } from 'vitest';
import type { Claim } from '../promise/index.ts';
import { judgeClaims } from './judge.ts';
import { type Charged, type Known, NOTHING_KNOWN } from './known.ts';

const claim = (from: number, to: number, minutes: number, device = 'Ridge 14'): Claim => ({
  id: 'c',
  promise: { kind: 'charge-time', device, from, to, seconds: minutes * 60 },
  duration: { kind: 'unstated' },
  printed: 'box',
});
/** A charge of even pace: levels in whole per cent against minutes. */
const charged = (from: number, to: number, minutes: number, part: Partial<Charged> = {}): Charged => {
  const count = Math.round((to - from) * 100);
  return {
    captureId: 's',
    device: 'Ridge 14',
    workload: null,
    heldBy: null,
    conditions: 'C1',
    session: {
      curve: {
        source: 'log',
        times: Array.from({ length: count + 1 }, (_, at) => (at * minutes * 60) / count),
        levels: Array.from({ length: count + 1 }, (_, at) => from + at / 100),
      },
    },
    ...part,
  };
};
const ridge = {
  id: 'd',
  name: 'Ridge 14',
  kind: 'laptop',
  battery: 60 * 3600,
  ceilings: [{ connector: 'C', lead: '5 A', volts: 20, watts: 65 }],
  baseline: null,
  note: '',
} as const;
const judge = (one: Claim, sessions: readonly Charged[], part: Partial<Known> = {}) => {
  const [result] = judgeClaims([one], { ...NOTHING_KNOWN, charged: sessions, devices: [ridge], ...part });
  if (!result) throw new Error('nothing judged');
  return result;
};

describe('a promised charge time', () => {
  it('is proven by a charge that took less, and short by one that took more', () => {
    expect(judge(claim(0, 0.5, 28), [charged(0, 1, 50)]).state).toBe('proven');
    const short = judge(claim(0, 0.5, 28), [charged(0, 1, 64)]);
    expect([short.state, short.sentence]).toEqual(['short', '32 min (C1); promised 0 % to 50 % in 28 min.']);
  });

  it('is borderline where a step of the level would decide', () => {
    // 50 % after exactly 28 min, but 0 % may have been shown for a step already.
    expect(judge(claim(0, 0.5, 28), [charged(0, 1, 56)]).state).toBe('borderline');
  });

  it('read over the promised levels, where the charge began emptier', () => {
    // 20 to 80 % of an even hour from 0 is 36 min.
    expect(judge(claim(0.2, 0.8, 37), [charged(0, 1, 60)]).state).toBe('proven');
    expect(judge(claim(0.2, 0.8, 35), [charged(0, 1, 60)]).state).toBe('short');
  });

  it('is not comparable with a charge that began fuller, unless even that took too long', () => {
    const fuller = judge(claim(0, 0.5, 28), [charged(0.2, 1, 60)]);
    expect([fuller.state, fuller.sentence]).toEqual([
      'not tested',
      'Not comparable. C1, from 20 % only: 22.5 min to 50 %, and the start is another than promised.',
    ]);
    expect(judge(claim(0, 0.5, 28), [charged(0.2, 1, 100)]).state).toBe('short');
  });

  it('is short where the time was over before the level came, and open where the log ended first', () => {
    expect(judge(claim(0, 0.8, 28), [charged(0, 0.5, 40)]).state).toBe('short');
    const early = judge(claim(0, 0.8, 60), [charged(0, 0.5, 40)]);
    expect([early.state, early.sentence]).toEqual([
      'not tested',
      'Not comparable. C1: it was not seen to 80 %, only to 50 %.',
    ]);
  });

  it('is never refuted by a device that worked meanwhile', () => {
    const slow = judge(claim(0, 0.5, 28), [charged(0, 1, 64, { workload: 'screen on' })]);
    expect(slow.state).toBe('not tested');
    expect(slow.sentence).toContain('the device worked meanwhile (screen on)');
    expect(judge(claim(0, 0.5, 28), [charged(0, 1, 50, { workload: 'screen on' })]).state).toBe('proven');
  });

  it('is never refuted over a lead that held the device back', () => {
    const part = { heldBy: 'the lead carries 58 W where it takes 78 W' };
    const slow = judge(claim(0, 0.5, 28), [charged(0, 1, 64, part)]);
    expect([slow.state, slow.sentence]).toEqual([
      'not tested',
      'Not comparable. C1: 32 min, and the lead carries 58 W where it takes 78 W.',
    ]);
    expect(judge(claim(0, 0.5, 28), [charged(0, 1, 50, part)]).state).toBe('proven');
  });

  it('on which charges disagree is borderline', () => {
    const result = judge(claim(0, 0.5, 28), [charged(0, 1, 50), charged(0, 1, 64)]);
    expect([result.state, result.notes[0]]).toEqual([
      'borderline',
      'The charges do not agree: some took less, some more.',
    ]);
  });

  it('is of the device it names', () => {
    const other = judge(claim(0, 0.5, 28, 'Vesper phone'), [charged(0, 1, 64)]);
    expect([other.state, other.sentence]).toEqual([
      'not tested',
      'No whole charge of Vesper phone yet. The charges there are went into other devices.',
    ]);
    expect(judge(claim(0, 0.5, 28, 'ridge  14'), [charged(0, 1, 50)]).state).toBe('proven');
    expect(judge(claim(0, 0.5, 28, ''), [charged(0, 1, 50)]).state).toBe('proven');
  });

  it('says what the battery would need before anything is tested', () => {
    // 30 Wh in 28 min are 64.3 W.
    const [note] = judge(claim(0, 0.5, 28), []).notes;
    expect(note).toBe(
      'From 0 % to 50 % the battery of Ridge 14 takes 30 Wh: in 28 min that is a mean of 64.3 W, losses left out.',
    );
    expect(judge(claim(0, 0.5, 28), [], { promisedWatts: 45 }).notes[0]).toContain(
      'No port promises more than 45 W: it cannot be.',
    );
    expect(judge(claim(0, 0.5, 20), []).notes[0]).toContain('The device takes 65 W at most: it cannot be.');
    expect(judge(claim(0, 0.5, 28, 'unknown'), []).notes).toEqual([]);
  });

  it('is not judged by a charge whose level nobody knows', () => {
    const result = judge(claim(0, 0.5, 28), [charged(0, 1, 50, { session: { curve: null } })]);
    expect([result.state, result.sentence]).toEqual(['not tested', 'Not comparable. C1: its level is not known.']);
  });
});
