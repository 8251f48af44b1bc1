// Whether an output is joined to earth, and what that means for what hangs on it.
import { formatPlain } from '../quantity/index.ts';
import type { BondCheck } from './checks.ts';

export const BONDS = ['none', 'resistive', 'direct'] as const;
export type Bond = (typeof BONDS)[number];

/** Ω up to which it counts as a wire, leads included; and from which on as nothing. */
export const BOND_ENDS = { direct: 10, none: 10e6 } as const;

/**
 * What a resistance from output ground to the earth pin is: a wire, a resistor, or nothing.
 * @returns null where the meter's range ended too early to tell
 * @example bondOf({ ohms: 1e6, overRange: false }) // 'resistive'
 */
export function bondOf({ ohms, overRange }: Pick<BondCheck, 'ohms' | 'overRange'>): Bond | null {
  if (!(ohms >= 0)) return null;
  if (overRange) return ohms >= BOND_ENDS.none ? 'none' : null;
  if (ohms <= BOND_ENDS.direct) return 'direct';
  return ohms < BOND_ENDS.none ? 'resistive' : 'none';
}

/** What each means for devices, in a sentence. */
export const BOND_MEANS: Readonly<Record<Bond, string>> = {
  none: 'Its outputs float: metal cases on them may tingle, as far as the touch current goes, and audio may hum.',
  resistive:
    'A resistor holds its outputs near earth: no tingling, and hardly any current through a device that is earthed elsewhere.',
  direct:
    'Its outputs are earth: what is earthed elsewhere too (a desktop computer, a mixer, a scope) closes a loop through the lead, and on a socket without a good earth cases may tingle.',
};

export interface BondResult {
  readonly checkId: string;
  readonly port: string;
  readonly bond: Bond | null;
  readonly words: string;
  readonly by: string;
}

export function bondResult({ id, port, ohms, overRange, by }: BondCheck): BondResult {
  const unit = ohms >= 999_500 ? 'MΩ' : ohms >= 999.5 ? 'kΩ' : 'Ω';
  const said = `${overRange ? 'over ' : ''}${formatPlain(ohms, 'resistance', unit)}`;
  const bond = bondOf({ ohms, overRange });
  return {
    checkId: id,
    port,
    bond,
    words: bond ? `${port}: ${bond} (${said})` : `${port}: ${said}; a range to 10 MΩ would tell`,
    by: `${by.person}, ${by.standing}`,
  };
}
