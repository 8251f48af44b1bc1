// A cable with everything but what a test is about filled in.
import type { BendRun, CableFacts, CopyRun, ResistanceRun } from '../cable/index.ts';
import { markerReadOut } from '../marker/index.ts';
import type { Claim, Promised } from '../promise/index.ts';
import type { ReadOut } from '../read-out/types.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import type { Dossier } from '../verdict/types.ts';
import { aRig } from './reading.ts';
import { dossierFor } from './verdict.ts';

let made = 0;
const head = () => {
  made += 1;
  return {
    id: `run${made}`,
    takenAt: new Date(Date.UTC(2026, 1, 9, 8, made)).toISOString(),
    bends: 0,
    note: '',
    supersedes: null,
    withdrawn: false,
  };
};

export const aCable = (part: Partial<CableFacts> = {}): CableFacts => ({
  form: 'cable',
  length: 1,
  ends: ['C plug', 'C plug'],
  braid: false,
  strainRelief: 'short',
  stiffness: null,
  pack: 1,
  ...part,
});

/** A series of drops along a line of `ohms`, off it by a little. */
export const aSeries = (
  ohms: number,
  part: Partial<ResistanceRun> = {},
  kelvin: number | null = 293.15,
): ResistanceRun => ({
  ...head(),
  kind: 'resistance',
  rigId: 'rig',
  how: 'four wires',
  side: 'loop',
  steps: [0, 1, 2, 3].flatMap((amps) =>
    [1e-5, -1e-5].map((off) => ({ amps, near: null, far: null, drop: ohms * amps + off, temperature: kelvin })),
  ),
  accuracy: { amps: NO_SPEC, near: null, far: NO_SPEC },
  ...part,
});

export const aCopy = (part: Partial<CopyRun> = {}): CopyRun => ({
  ...head(),
  kind: 'copy',
  mix: 'one file of 2 GB',
  direction: 'to the device',
  bytes: 2e9,
  seconds: 50,
  host: 'laptop',
  link: null,
  hostLink: null,
  errors: 0,
  fellBack: false,
  ...part,
});

export const aLook = (count: number, part: Partial<BendRun> = {}): BendRun => ({
  ...head(),
  kind: 'bend',
  count,
  angle: 90,
  radius: 0.015,
  tension: 5,
  rate: 30,
  fault: 'none',
  charging: 'as before',
  wiggle: null,
  ...part,
});

/** A marker's reply: words, or none. */
export const aMarker = (port: string, cableWords: readonly string[]): ReadOut =>
  markerReadOut({ ...head(), port, instrumentId: 'analyser', cableWords, source: '' });

export const aPromise = (promise: Promised, id: string = promise.kind): Claim => ({
  id,
  promise,
  duration: { kind: 'unstated' },
  printed: 'plug',
});

export const cableDossier = (part: Partial<Dossier> = {}, cable: Partial<CableFacts> = {}): Dossier => ({
  ...dossierFor({ setups: [], rigs: [aRig()] }),
  sample: { kind: 'cable', ports: [], mass: null, prices: [], cable: aCable(cable) },
  ...part,
});
