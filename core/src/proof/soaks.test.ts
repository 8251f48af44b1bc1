// Soaks as holds: one store, told on both screens.
import { describe, expect, it } from 'vitest';
import { judgeClaims, NOTHING_KNOWN } from '../claim/index.ts';
import { holdsOfSoaks, type SoakOfHold } from '../run/index.ts';
import { aHold } from '../testing/proof.ts';
import { acrossLoadings, holdSummaries } from './holds.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const C1_20 = [{ port: 'C1', volts: 20, amps: 3.25 }];
const C1_9 = [{ port: 'C1', volts: 9, amps: 3 }];
const event = (kind: string, at: number, temperature: number | null, to = 0) => ({
  kind,
  at,
  from: 65,
  to,
  volts: null,
  recovered: null,
  temperature,
});
let count = 0;
function soak(outputs: SoakOfHold['outputs'], figures: object = {}, part: Partial<SoakOfHold> = {}): SoakOfHold {
  count += 1;
  return {
    id: `soak${count}`,
    kind: 'soak',
    mains: EU,
    outputs,
    rigId: 'rig',
    takenAt: '2026-05-01T10:00:00Z',
    supersedes: null,
    withdrawn: false,
    figures: {
      kind: 'soak',
      ambient: 23,
      sensors: [{ highest: 64 }, { highest: 71 }],
      events: [],
      drawn: { from: 60, to: 3660 },
      ...figures,
    } as SoakOfHold['figures'],
    ...part,
  };
}

describe('a soak', () => {
  it('is a hold from when it drew to its end, at its hottest', () =>
    expect(
      holdsOfSoaks([soak([...C1_20, { port: 'A1', volts: 5, amps: 2 }, { port: 'C2', volts: 5, amps: 0 }])]),
    ).toMatchObject([
      {
        port: 'C1',
        volts: 20,
        amps: 3.25,
        others: [{ port: 'A1' }],
        planned: 3600,
        held: 3600,
        end: 'held to the end',
        hottest: 344.15,
        ambient: 296.15,
        after: null,
      },
    ]));

  it.each([
    ['throttle', 'folded back', 52, 52],
    ['renegotiation', 'dropped a level', 27, 27],
    ['cutoff', 'cut off', 0, null],
    ['pulsing', 'cut off', 0, null],
  ])('with a %s is one that %s, at that temperature', (kind, end, to, after) =>
    expect(holdsOfSoaks([soak(C1_20, { events: [event(kind, 660, 81, to)] })])).toMatchObject([
      { held: 600, end, after, hottest: 354.15 },
    ]),
  );

  it.each([
    ['whose log has no output', soak(C1_20, { drawn: null })],
    ['of an older record', soak(C1_20, { drawn: undefined })],
    ['taken back', soak(C1_20, {}, { withdrawn: true })],
    ['without a load', soak([{ port: 'C1', volts: 20, amps: 0 }])],
    ['of which nobody said what it loaded', soak(null)],
  ])('%s tells nothing of holding', (_name, one) => expect(holdsOfSoaks([one])).toEqual([]));

  it('beside a hold of the same loading tells a timer from the heat', () => {
    const [summary] = holdSummaries([
      aHold({ port: 'C1', volts: 20, amps: 2.5, held: 602, end: 'cut off', hottest: 320, ambient: 296 }),
      ...holdsOfSoaks([soak(C1_20, { events: [event('cutoff', 660, 81)] })]),
    ]);
    expect(summary?.cause).toBe('timer');
    expect(summary?.sentence).toContain('The same time at two powers: a timer.');
  });

  it.each([
    ['the heat', 1260, 81, 3060, 80, 'C1 20 V at 65 W and C1 9 V at 27 W cut off at the same 81 °C: the heat.'],
    ['a timer', 660, 81, 662, 45, 'C1 20 V at 65 W and C1 9 V at 27 W cut off after the same 10 min: a timer.'],
  ])('and another level tell %s', (_name, at, hot, later, cooler, sentence) => {
    const holds = holdSummaries(
      holdsOfSoaks([
        soak(C1_20, { events: [event('cutoff', at, hot)] }),
        soak(C1_9, { events: [event('cutoff', later, cooler)] }),
      ]),
    );
    expect(acrossLoadings(holds).map((one) => one.sentence)).toEqual([sentence]);
  });

  it('refutes what is promised for longer', () => {
    const claim = {
      id: 'c',
      promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 3.25 },
      duration: { kind: 'continuous' },
      printed: 'label',
    } as const;
    const known = { ...NOTHING_KNOWN, continuous: 3600 };
    const judged = (events: object[]) =>
      judgeClaims([claim], { ...known, holds: holdsOfSoaks([soak(C1_20, { events })]) }, [])[0];
    expect(judged([event('cutoff', 660, 81)])).toMatchObject({
      state: 'short',
      sentence: expect.stringContaining('cut off after 10 min; promised continuously'),
    });
    expect(judged([])?.state).not.toBe('short');
  });
});
