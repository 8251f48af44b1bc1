// A dossier with everything but what a test is about filled in.
import type { Mains } from '../reading/index.ts';
import type { Dossier } from '../verdict/types.ts';
import { aRig } from './reading.ts';

export const EU: Mains = { kind: 'ac', volts: 230, hertz: 50 };
export const US: Mains = { kind: 'ac', volts: 115, hertz: 60 };

export function dossierFor(part: Partial<Dossier>): Dossier {
  return {
    sample: { kind: 'wall', ports: [{ label: 'C1', connector: 'C', twin: null }], mass: null, prices: [] },
    claims: [],
    setups: [
      {
        id: 's1',
        name: 'C1 20 V',
        outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
        evidence: 'load',
        purpose: 'efficiency',
        rigId: 'rig',
        nameplateClass: null,
      },
    ],
    points: [],
    stated: [],
    readOuts: [],
    captures: [],
    runs: [],
    cableRuns: [],
    checks: [],
    devices: [],
    rigs: [aRig()],
    instruments: [],
    profile: {
      rule: 'guarded',
      allowance: 0.02,
      mains: [US, EU],
      tariff: 0.3,
      currency: 'EUR',
      limitSetIds: (part.limitSets ?? []).map(({ id }) => id),
      tolerance: null,
      continuous: 3600,
      overRating: { on: false, step: 0.03, seconds: 3 },
      signalModes: [],
      more: { as: 'stated', margin: 0.05 },
      limits: { hottest: null, volts: null, amps: null, watts: null },
    },
    limitSets: [],
    ...part,
  };
}
