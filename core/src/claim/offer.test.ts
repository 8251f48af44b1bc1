// Claims settled by read-outs, proof steps, devices and holds.

import { describe, expect, it } from 'vitest';
import type { Delivered } from '../evidence/index.ts';
import type { Sees } from '../pd/index.ts';
import type { Claim, Promised } from '../promise/index.ts';
import { deliveredByDevice } from '../proof/index.ts';
import type { ReadOut } from '../read-out/index.ts';
import type { Output } from '../reading/index.ts';
import { aDeviceRun, aHold } from '../testing/proof.ts';
import { aReadOut } from '../testing/read-out.ts';
import { measured, product } from '../uncertainty/index.ts';
import { judgeClaims } from './index.ts';
import { type Known, NOTHING_KNOWN } from './known.ts';

const line = (volts: number, amps: number): Promised => ({ kind: 'port-line', port: 'C1', volts, amps });
const range: Promised = { kind: 'range', port: 'C1', supply: 'spr-avs', low: 9, high: 20, amps: 3 };
const signal: Promised = { kind: 'signal', port: 'C1', mode: 'stepped-high', title: 'Stepped high voltage' };
const sees = (part: Partial<Sees>): Sees => ({ supplies: ['fixed', 'pps', 'epr-avs'], signals: ['dcp'], ...part });
const judge = (promise: Promised, part: Partial<Known>, duration: Claim['duration'] = { kind: 'unstated' }) => {
  const [result] = judgeClaims([{ id: 'c', promise, duration, printed: 'box' }], { ...NOTHING_KNOWN, ...part });
  if (!result) throw new Error('no result');
  return result;
};
const readOut = (offers: readonly string[], part: Partial<ReadOut> = {}) => ({ readOuts: [aReadOut(offers, part)] });
const loaded = (output: Output, volts = output.volts, amps = output.amps): Delivered => {
  const result = { port: output.port, volts: measured(volts, 0.004), amps: measured(amps, 0.003) };
  return {
    sourceIds: ['p'],
    asked: [output],
    load: 1,
    evidence: 'load',
    mains: null,
    takenAt: '2026-03-02T09:00:00.000Z',
    outputs: [{ ...result, watts: product(result.volts, result.amps) }],
    watts: product(result.volts, result.amps),
    wall: null,
    conditions: 'C1',
    epoch: 0,
    runs: 1,
    notes: [],
  };
};

describe('a promised level without a load reading', () => {
  it('that is offered is advertised only', () => {
    expect(judge(line(20, 3), readOut(['5 V 3 A', '20 V 3.25 A']))).toMatchObject({
      state: 'advertised only',
      sentence: 'Advertised: 20 V 3.25 A on C1. Not loaded yet.',
    });
  });

  it('that is offered and refused is unreachable, with the reason', () => {
    const unreachable = [{ position: 2, reason: 'Every request is refused.' }];
    expect(judge(line(12, 3), readOut(['5 V 3 A', '12 V 3 A'], { unreachable }))).toMatchObject({
      state: 'unreachable',
      sentence: expect.stringContaining('Every request is refused.'),
    });
  });

  it('above 3 A read out without a 5 A cable is not visible', () => {
    expect(judge(line(20, 5), readOut(['5 V 3 A', '20 V 3 A'], { marker: '3 A' })).state).toBe('not visible');
  });

  it('that is offered with less, or not at all, waits for the load', () => {
    expect(judge(line(20, 5), readOut(['5 V 3 A', '20 V 3.25 A'])).sentence).toContain(
      'C1 offers 20 V 3.25 A where 20 V 5 A',
    );
    expect(judge(line(9, 3), readOut(['5 V 3 A']))).toMatchObject({ state: 'not tested' });
  });
});

describe('a promised range', () => {
  const avs = (volts: number, amps = 3) => loaded({ port: 'C1', volts, amps, supply: 'spr-avs' });
  it('is proven once both its ends are, in that range and not at a fixed level', () => {
    expect(judge(range, { delivered: [avs(9), avs(20)] }).state).toBe('proven');
    const fixed = [loaded({ port: 'C1', volts: 9, amps: 3 }), loaded({ port: 'C1', volts: 20, amps: 3 })];
    expect(judge(range, { delivered: fixed }).state).toBe('not tested');
  });

  it('with one end proved is advertised, and says so', () => {
    const { state, notes } = judge(range, { ...readOut(['5 V 3 A', 'SPR AVS 3 A / 3 A']), delivered: [avs(9)] });
    expect(state).toBe('advertised only');
    expect(notes[0]).toContain('One end of the range is proved');
  });

  it('with one end short is short', () => {
    const low = loaded({ port: 'C1', volts: 20, amps: 3, supply: 'spr-avs' }, 18, 3);
    expect(judge(range, { delivered: [low] }).state).toBe('short');
  });

  it('an old analyser cannot see is not visible, never absent', () => {
    const old = { ...readOut(['5 V 3 A']), seesOf: () => sees({}) };
    expect(judge(range, old).state).toBe('not visible');
    const able = { ...readOut(['5 V 3 A']), seesOf: () => sees({ supplies: ['fixed', 'spr-avs'] }) };
    expect(judge(range, able)).toMatchObject({
      state: 'short',
      sentence: expect.stringContaining('does not offer SPR AVS'),
    });
  });

  it('offered only in part is short', () => {
    expect(judge(range, readOut(['5 V 3 A', 'SPR AVS 3 A'])).sentence).toContain('where SPR AVS 9–20 V is promised');
  });
});

describe('a promised mode outside PD', () => {
  const looked = (result: 'seen' | 'not seen' | 'cannot see', eyes: Sees | null = null) =>
    judge(signal, {
      ...readOut([], { signals: [{ mode: 'stepped-high', result }] }),
      seesOf: () => eyes,
    }).state;
  it('is advertised when seen, short when looked for in vain, not visible when it cannot be seen', () => {
    expect(looked('seen')).toBe('advertised only');
    expect(looked('not seen')).toBe('short');
    expect(looked('cannot see')).toBe('not visible');
    expect(looked('not seen', sees({}))).toBe('not visible');
    expect(judge(signal, {}).sentence).toBe('Nobody looked for "Stepped high voltage" on C1.');
  });
});

describe('a device', () => {
  const took = (watts: number, part: Parameters<typeof aDeviceRun>[0] = {}) => ({
    delivered: [
      deliveredByDevice(aDeviceRun({ watts, ...part }), { name: 'Laptop' }, { series: [], rigs: [], instruments: [] }),
    ],
  });
  it('that took 53 W proves at least 53 W and never refutes 65 W', () => {
    expect(judge(line(20, 3.25), took(53))).toMatchObject({
      state: 'at least',
      sentence: expect.stringMatching(/^At least 52\.9 W; promised 65 W/),
    });
    expect(judge({ kind: 'total', watts: 65 }, took(53)).state).toBe('at least');
  });
  it('that took what is promised proves it', () => expect(judge(line(20, 3.25), took(66)).state).toBe('proven'));
  it('at another level says nothing about this one', () => {
    expect(judge(line(20, 3.25), took(20, { volts: 9 })).state).toBe('not tested');
  });
  it('read at the socket without a curve proves nothing', () => {
    expect(judge(line(20, 3.25), took(60, { place: 'mains' })).state).toBe('at least');
  });
});

describe('for how long', () => {
  const known = (...holds: Known['holds'][number][]): Partial<Known> => ({
    delivered: [loaded({ port: 'C1', volts: 20, amps: 3.25 })],
    holds,
  });
  const total: Promised = { kind: 'total', watts: 65 };
  const continuous = { kind: 'continuous' } as const;

  it('a power that folded back is short of a continuous promise', () => {
    const folded = aHold({ held: 720, end: 'folded back', after: 52 });
    expect(judge(total, known(folded), continuous)).toMatchObject({
      state: 'short',
      sentence: '65 W folded back to 52 W after 12 min; promised continuously (60 min by your rules).',
    });
  });

  it('a power held long enough is noted', () => {
    expect(judge(total, known(aHold()), continuous).notes.join()).toContain('Held for 60 min; promised continuously');
    expect(judge(total, known(aHold({ planned: 1200, held: 1200 })), continuous).notes.join()).toContain('so far');
    expect(judge(total, known(), continuous).notes.join()).toContain('How long it holds is not tested');
  });

  it('a peak needs no more than its own duration', () => {
    const timer = aHold({ held: 605, end: 'dropped a level' });
    expect(judge(total, known(timer), { kind: 'peak', seconds: 600 }).state).toBe('proven');
    expect(judge(total, known(timer), { kind: 'peak', seconds: 900 }).state).toBe('short');
  });

  it('a promise that says nothing of time is told, not refuted', () => {
    const result = judge(total, known(aHold({ held: 720, end: 'cut off' })));
    expect(result.state).toBe('proven');
    expect(result.notes.join()).toContain('It cut off after 12 min; for how long is not stated.');
  });

  it('counts only what drew the promised power at the promised level', () => {
    const weak = aHold({ amps: 2, held: 60, end: 'cut off' });
    expect(judge(total, known(weak), continuous).state).toBe('proven');
    expect(
      judge(line(20, 3.25), known(aHold({ volts: 15, amps: 4.4, held: 60, end: 'cut off' })), continuous).state,
    ).toBe('proven');
  });

  it('of ports together needs each share', () => {
    const pair: Promised = {
      kind: 'combination',
      shares: [
        { port: 'C1', watts: 45 },
        { port: 'C2', watts: 27 },
      ],
    };
    const short = aHold({ amps: 2.25, others: [{ port: 'C2', volts: 9, amps: 3 }], held: 1260, end: 'folded back' });
    expect(judge(pair, { holds: [short] }, continuous).state).toBe('short');
    expect(judge(pair, { holds: [aHold({ amps: 2.25, held: 10, end: 'cut off' })] }, continuous).state).toBe(
      'not tested',
    );
  });
});
