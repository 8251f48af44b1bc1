// What may be wrong with the rig itself: its lead, its voltmeter, a meter that stands still.
import { CABLES } from './cables.ts';
import type { InstrumentClass } from './instruments.ts';
import type { CableTruth } from './truth.ts';

export interface RigTruth {
  /** Ω the lead of the rig has more than its kind has. */
  readonly lead: number;
  /** Factor the voltmeter at the port is off by. */
  readonly drift: number;
  /** Answers what it answered first; null for none. */
  readonly frozen: InstrumentClass | null;
}

export const SOUND_RIG: RigTruth = { lead: 0, drift: 1, frozen: null };

/** The cable that lies on the rig. */
export const RIG_LEAD = '240 W, 1 m';

const RIG_FAULTS: Readonly<Record<string, Partial<RigTruth>>> = {
  'worn lead': { lead: 0.125 },
  'meter out of calibration': { drift: 1.02 },
  'frozen meter': { frozen: 'power-analyser' },
};

/** @throws RangeError for a fault nobody knows */
export function rigWith(faults: readonly string[]): RigTruth {
  let rig = SOUND_RIG;
  for (const id of faults) {
    const fault = RIG_FAULTS[id];
    if (!fault) throw new RangeError(`A rig has no fault “${id}”. There are: ${Object.keys(RIG_FAULTS).join(', ')}.`);
    rig = { ...rig, ...fault };
  }
  return rig;
}

/** Cables as they lie on a rig. */
export const cablesOn = (rig: RigTruth, more: readonly CableTruth[] = []): readonly CableTruth[] => [
  ...CABLES.map((cable) => (cable.name === RIG_LEAD ? { ...cable, contactOhms: cable.contactOhms + rig.lead } : cable)),
  ...more,
];
