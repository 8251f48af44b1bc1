// Cables nobody drew by hand: a seed gives one that is sound, and faults that may hide in it.
import { drillFault } from '@lastmark/core/drill';
import { seededRandom } from '@lastmark/core/random';
import type { CableTruth } from './truth.ts';

/** The marker of a cable for 5 A and 48 V, as the simulated analyser reads it. */
const MARKER = ['FF00A041', '18002E5B', '00000000', '12340100', '000A2640'] as const;
const WORDS = ['Bramble', 'Fescue', 'Heather', 'Ivy', 'Sedge', 'Woodbine'] as const;

const CHANGES: Readonly<Record<string, (cable: CableTruth) => CableTruth>> = {
  'wrong marker': (cable) => ({ ...cable, copperOhms: cable.copperOhms * 2.6 }),
  'worn contacts': (cable) => ({ ...cable, contactOhms: cable.contactOhms + 0.09, contactSpread: 0.25 }),
};
export const CABLE_FAULTS: readonly string[] = Object.keys(CHANGES);

export interface SeededCable {
  readonly truth: CableTruth;
  /** What is printed on its plug: A and V it may carry. */
  readonly rating: { readonly amps: number; readonly volts: number };
  /** m */
  readonly length: number;
}

/**
 * A cable by its seed.
 * @throws RangeError for a fault no cable has
 */
export function seededCable({
  seed,
  faults = [],
  name,
}: {
  readonly seed: number;
  readonly faults?: readonly string[] | undefined;
  readonly name?: string | undefined;
}): SeededCable {
  const random = seededRandom(seed * 7919 + 5);
  const word = WORDS[Math.floor(random() * WORDS.length)] ?? WORDS[0];
  const sound: CableTruth = {
    name: name ?? `${word} 240 (${seed})`,
    copperOhms: 0.072 + 0.012 * random(),
    contactOhms: 0.03 + 0.008 * random(),
    marker: MARKER,
    marks: '5 A EPR',
    contactSpread: 0.04,
    kelvinPerWatt: 3,
  };
  const truth = faults.reduce((cable, id) => {
    const change = CHANGES[id];
    if (!change || !drillFault(id))
      throw new RangeError(`A cable has no fault “${id}”. There are: ${CABLE_FAULTS.join(', ')}.`);
    return change(cable);
  }, sound);
  return { truth, rating: { amps: 5, volts: 48 }, length: 1 };
}
