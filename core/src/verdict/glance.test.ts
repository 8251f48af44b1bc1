import { describe, expect, it } from 'vitest';
import type { ClaimState } from '../evidence/index.ts';
import type { Promised } from '../promise/index.ts';
import { dossierFor } from '../testing/verdict.ts';
import { claimMatrix, portsAtAGlance, settlesMost, statesIn } from './glance.ts';

const ports = [
  { label: 'C1', connector: 'C', twin: null },
  { label: 'C2', connector: 'C', twin: null },
  { label: 'A1', connector: 'A', twin: null },
] as const;
const of = (...all: readonly (readonly [Promised, ClaimState])[]) => {
  const base = dossierFor({
    claims: all.map(([promise], at) => ({ id: `c${at}`, promise, duration: { kind: 'unstated' }, printed: 'box' })),
  });
  const claims = all.map(([, state], at) => ({
    claimId: `c${at}`,
    state,
    sentence: '',
    notes: [],
    unstated: [],
    tests: [],
  }));
  return [{ ...base, sample: { ...base.sample, ports } }, { claims }] as const;
};
const line = (port: string, volts: number, amps: number): Promised => ({ kind: 'port-line', port, volts, amps });

describe('ports at a glance', () => {
  it('show the most that is promised and the most of it that is proven', () => {
    const [dossier, verdict] = of(
      [line('C1', 20, 3.25), 'short'],
      [line('C1', 9, 3), 'proven'],
      [line('C2', 20, 1.5), 'not tested'],
      [{ kind: 'range', port: 'C2', supply: 'pps', low: 3.3, high: 21, amps: 3 }, 'proven'],
    );
    expect(portsAtAGlance(dossier, verdict)).toEqual([
      { port: 'C1', promised: 65, proven: 27, state: 'short' },
      { port: 'C2', promised: 30, proven: null, state: 'not tested' },
      { port: 'A1', promised: null, proven: null, state: null },
    ]);
  });
  it('count shares of combinations, each by its own state', () => {
    const shares = [
      { port: 'C1', watts: 45 },
      { port: 'C2', watts: 20 },
    ];
    const [dossier, { claims }] = of([{ kind: 'combination', shares }, 'short'], [line('C1', 20, 3), 'proven']);
    const parts = [
      { port: 'C1', state: 'proven' },
      { port: 'C2', state: 'short' },
    ] as const;
    const verdict = { claims: claims.map((one, at) => (at === 0 ? { ...one, parts } : one)) };
    expect(portsAtAGlance(dossier, verdict).map(({ promised, proven, state }) => [promised, proven, state])).toEqual([
      [60, 60, 'proven'],
      [20, null, 'short'],
      [null, null, null],
    ]);
  });
});

describe('claims by station and state', () => {
  const [dossier, verdict] = of(
    [line('C1', 20, 3), 'proven'],
    [{ kind: 'total', watts: 60 }, 'not tested'],
    [{ kind: 'idle', watts: 0.1, mains: null }, 'not tested'],
    [{ kind: 'ripple', volts: 0.1, mains: null }, 'borderline'],
    [line('C1', 9, 3), 'at least'],
    [{ kind: 'wording', text: 'Turbo' }, 'undefined'],
  );
  const matrix = claimMatrix(dossier, verdict);
  it('stand where they are settled, each once; what nothing settles stands apart', () => {
    expect(matrix.map(({ title, counts }) => [title, counts])).toEqual([
      ['Proof', { proven: 1, 'not tested': 1, 'at least': 1 }],
      ['Idle', { 'not tested': 1 }],
      ['Ripple', { borderline: 1 }],
      ['no station', { undefined: 1 }],
    ]);
    expect(statesIn(matrix)).toEqual(['borderline', 'at least', 'not tested', 'undefined', 'proven']);
  });
  it('tell where most is unsettled', () =>
    expect(settlesMost(matrix).map(({ title, claims }) => [title, claims])).toEqual([
      ['Proof', 2],
      ['Idle', 1],
      ['Ripple', 1],
    ]));
  it('of no claims are nothing', () => expect(claimMatrix(...of())).toEqual([]));
});
