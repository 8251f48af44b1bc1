// The safety look at some of the Fernwall chargers, as the workshop's electrician wrote it down.

import type { BondCheck, EarthCheck, FitCheck, MarkCheck, SafetyCheck, TouchCheck } from '@lastmark/core/safety';
import { parseAccuracy } from '@lastmark/core/uncertainty';
import { newId } from '../db/ids.ts';
import { addCheck } from '../safety/store.ts';
import type { DemoWork } from './shelf.ts';

const BY = { person: 'Workshop electrician', standing: 'licensed' } as const;

type Head = 'id' | 'takenAt' | 'note' | 'supersedes' | 'withdrawn' | 'by' | 'instrumentId' | 'accuracy';
type Of<C extends SafetyCheck> = Omit<C, Head> & { readonly note?: string };

const accuracy = (text: string, quantity: 'current' | 'resistance') => {
  const read = parseAccuracy(text, quantity);
  return read.ok ? read.spec : null;
};
const LEAKAGE = accuracy('±(2 % + 2 µA)', 'current');
const OHMS = accuracy('±(1 % + 2 mΩ)', 'resistance');
const MEGOHMS = accuracy('±(1 % + 2 kΩ)', 'resistance');

const touch = (amps: number, more: Partial<Of<TouchCheck>> = {}): Of<TouchCheck> => ({
  kind: 'touch',
  amps,
  form: 'rms',
  network: 'perception',
  mains: { kind: 'ac', volts: 264, hertz: 50 },
  polarity: 'as plugged in',
  earth: 'none',
  from: 'shell of C1',
  loaded: false,
  ...more,
});
const fit = (hold: FitCheck['hold'], reach: number | null): Of<FitCheck> => ({ kind: 'fit', hold, reach });
const mark = (text: string, celsius: number | null = null): Of<MarkCheck> => ({
  kind: 'mark',
  mark: text,
  printed: 'label',
  ambient: celsius === null ? null : celsius + 273.15,
});
const earth = (ohms: number, testAmps: number): Of<EarthCheck> => ({
  kind: 'earth',
  ohms,
  testAmps,
  to: 'shell of C1',
});
const bond = (port: string, ohms: number, overRange = false): Of<BondCheck> => ({
  kind: 'bond',
  port,
  ohms,
  overRange,
});

const EARTHED = { earth: 'joined' } as const;
const LOOKS: Readonly<Record<string, readonly Of<SafetyCheck>[]>> = {
  // As it should be, and both ways round.
  'TE-45-0117': [
    touch(0.000062),
    touch(0.000071, { polarity: 'turned round' }),
    fit('firm', 0.024),
    mark('rated ambient', 40),
  ],
  // Within, but too close to its limit to call; and its body hangs far out.
  'PT-75-3310': [
    touch(0.000489),
    touch(0.000496, { polarity: 'turned round' }),
    fit('loose', 0.041),
    mark('rated ambient', 35),
  ],
  // Read without weighting: known from above alone, and that is enough.
  'QP-5520': [touch(0.000318, { network: 'unweighted' })],
  // Its earth was read with a battery tester, which asks too little of a joint.
  'M6-1177': [touch(0.000024, EARTHED), earth(0.062, 0.2), bond('C1', 1.02e6)],
  'OB-18-0092': [
    touch(0.000019, EARTHED),
    touch(0.00091, { earth: 'open', network: 'let-go' }),
    earth(0.071, 32),
    bond('C1', 0.4),
    mark('rated ambient', 40),
  ],
};

const accuracyOf = ({ kind }: Of<SafetyCheck>) => (kind === 'touch' ? LEAKAGE : kind === 'bond' ? MEGOHMS : OHMS);

export const SAFETY: DemoWork = {
  serials: Object.keys(LOOKS),
  async seed({ db, moment }, sampleId, serial) {
    for (const look of LOOKS[serial] ?? []) {
      const metered = look.kind === 'touch' || look.kind === 'earth' || look.kind === 'bond';
      const check = {
        note: '',
        ...look,
        ...(metered ? { by: BY, instrumentId: null, accuracy: accuracyOf(look) } : null),
        id: newId(),
        takenAt: moment(),
        supersedes: null,
        withdrawn: false,
      };
      // Every look has the fields of its kind.
      await addCheck(db, sampleId, check as SafetyCheck);
    }
  },
};
