// Builders that let tests read as statements about chargers.
import type { Mains, Point, Reading, Rig, Stated, Taken } from '../reading/types.ts';

let serial = 0;

/** A reading with everything but what the test is about filled in. */
export function aReading(part: Partial<Reading> & Pick<Reading, 'quantity' | 'value'>): Reading {
  serial += 1;
  return {
    id: `r${serial}`,
    place: 'mains',
    port: null,
    u: 0,
    count: 1,
    spread: 0,
    typed: String(part.value),
    instrumentId: null,
    takenAt: '2026-03-02T09:00:00.000Z',
    source: 'keypad',
    supersedes: null,
    ...part,
  };
}

/** A loaded point with input watts and, per port, volts and amps. */
export function aPoint(
  part: Partial<Point> & { watts?: number; out?: Record<string, [number, number]>; u?: number },
): Point {
  const { watts, out = {}, u = 0, ...rest } = part;
  serial += 1;
  const readings = [
    ...(watts === undefined ? [] : [aReading({ quantity: 'power', value: watts, u })]),
    ...Object.entries(out).flatMap(([port, [volts, amps]]) => [
      aReading({ quantity: 'voltage', place: 'port', port, value: volts, u }),
      aReading({ quantity: 'current', place: 'port', port, value: amps, u }),
    ]),
  ];
  return {
    id: `p${serial}`,
    setupId: 's1',
    mains: { kind: 'ac', volts: 230, hertz: 50 },
    load: 1,
    attached: 'nothing',
    evidence: 'load',
    override: null,
    rigId: 'rig',
    takenAt: '2026-03-02T09:00:00.000Z',
    readings,
    ...rest,
  };
}

/** A rig that senses at the port through no lead at all. */
export const aRig = (part: Partial<Rig> = {}): Rig => ({
  id: 'rig',
  name: 'Bench',
  meters: { mains: 'wattmeter', outputVolts: 'voltmeter', outputAmps: 'ammeter', loadEnd: null },
  outputPlace: 'port',
  leadOhms: 0,
  leadUOhms: 0,
  elements: [],
  ...part,
});

/** Warm, settled and well supplied, as the procedures ask. */
export const takenByTheBook = (mains: Mains): Taken => ({
  warmUp: 1800,
  rest: { drift: 0.004, over: 300, averaged: false },
  source: {
    volts: mains.volts,
    hertz: mains.kind === 'ac' ? mains.hertz : null,
    distortion: mains.kind === 'ac' ? 0.006 : null,
    crest: null,
  },
});

/** The same stated for a loading, or for idle. */
export const byTheBook = (setupId: string | null, mains: Mains): Stated => ({
  id: `stated ${setupId} ${mains.volts}`,
  setupId,
  mains,
  taken: takenByTheBook(mains),
  statedAt: '2026-03-02T10:00:00.000Z',
});
