// Builders that let tests read as statements about proof.

import type { Instrument, Output, Point, Reading, Setup } from '../reading/index.ts';
import type { DeviceRun, HoldRun, OverRun } from '../run/index.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { aPoint, aReading, aRig } from './reading.ts';

const fine = {
  voltage: { ...NO_SPEC, readingPercent: 0.05, offset: 0.004 },
  current: { ...NO_SPEC, readingPercent: 0.1, offset: 0.003 },
};

/** A meter at the port, a load with its own meter at the far end, and a wattmeter. */
export const METERS: readonly Instrument[] = [
  { id: 'inline', name: 'Inline meter', sees: null, specs: fine },
  { id: 'load', name: 'Load', sees: null, specs: fine },
  {
    id: 'wattmeter',
    name: 'Wattmeter',
    sees: null,
    specs: { power: { ...NO_SPEC, readingPercent: 0.15, offset: 0.1 } },
  },
];

export const proofRig = aRig({
  meters: { mains: 'wattmeter', outputVolts: 'inline', outputAmps: 'inline', loadEnd: 'load' },
});

export const aSetup = (outputs: readonly Output[], part: Partial<Setup> = {}): Setup => ({
  id: outputs.map(({ port, volts, amps }) => `${port}-${volts}-${amps}`).join('+'),
  name: 'step',
  outputs,
  evidence: 'load',
  purpose: 'proof',
  rigId: 'rig',
  ...part,
});

interface Seen {
  readonly port?: readonly [number, number | null];
  readonly end?: readonly [number, number | null];
  readonly display?: readonly [number, number | null];
  readonly watts?: number;
}

/** A step of one output as its meters showed it; u is each meter's standard uncertainty. */
export function aStep(setup: Setup, seen: Seen, part: Partial<Point> & { u?: number } = {}): Point {
  const { u = 0.004, ...rest } = part;
  const port = setup.outputs[0]?.port ?? 'C1';
  const at = (place: Reading['place'], pair: readonly [number, number | null] | undefined, own: number): Reading[] =>
    pair
      ? [
          aReading({ quantity: 'voltage', place, port, value: pair[0], u: own }),
          ...(pair[1] === null ? [] : [aReading({ quantity: 'current', place, port, value: pair[1], u: own })]),
        ]
      : [];
  return aPoint({
    setupId: setup.id,
    readings: [
      ...at('port', seen.port, u),
      ...at('load-end', seen.end, u),
      ...at('display', seen.display, 0.1 / Math.sqrt(12)),
      ...(seen.watts === undefined ? [] : [aReading({ quantity: 'power', value: seen.watts, u: 0.1 })]),
    ],
    ...rest,
  });
}

const head = {
  port: 'C1',
  rigId: 'rig',
  takenAt: '2026-03-02T12:00:00.000Z',
  u: 0.05,
  note: '',
  supersedes: null,
  withdrawn: false,
} as const;
let serial = 0;
const nextId = () => {
  serial += 1;
  return `run${serial}`;
};

export const aHold = (part: Partial<HoldRun> = {}): HoldRun => ({
  ...head,
  id: nextId(),
  kind: 'hold',
  volts: 20,
  amps: 3.25,
  others: [],
  planned: 3600,
  held: 3600,
  end: 'held to the end',
  hottest: null,
  ambient: null,
  after: null,
  ...part,
});

export const aDeviceRun = (part: Partial<DeviceRun> = {}): DeviceRun => ({
  ...head,
  id: nextId(),
  kind: 'device',
  deviceId: 'laptop',
  connector: 'C',
  lead: 'long lead',
  workload: 'screen on',
  charge: 0.4,
  settled: 240,
  place: 'port',
  volts: 20,
  watts: 53,
  outcome: 'charging',
  message: '',
  ...part,
});

export const anOver = (steps: readonly [number, number, number][], part: Partial<OverRun> = {}): OverRun => ({
  ...head,
  id: nextId(),
  kind: 'over',
  volts: 20,
  rated: 3.25,
  steps: steps.map(([asked, amps, volts]) => ({ asked, amps, volts, seconds: 3 })),
  attached: 'electronic load',
  latched: null,
  recovery: null,
  ...part,
});
