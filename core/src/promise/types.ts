// What makers promise on label, box or manual: one ledger line each.
import type { Mains, RangeSupply } from '../reading/index.ts';

/** For how long a power is promised. */
export type ClaimDuration =
  | { readonly kind: 'unstated' }
  | { readonly kind: 'continuous' }
  | { readonly kind: 'peak'; readonly seconds: number };

/** Power of a port while the others of a combination are in use; `with` names ports that share it. */
export interface PromisedShare {
  readonly port: string;
  readonly with?: readonly string[] | undefined;
  /** W */
  readonly watts: number;
}

/** The ports a share is for. */
export const sharePorts = ({ port, with: others = [] }: PromisedShare): readonly string[] => [port, ...others];

/** What is promised. SI throughout. */
export type Promised =
  | { readonly kind: 'port-line'; readonly port: string; readonly volts: number; readonly amps: number }
  /** A range the voltage can be set in: PPS or AVS. Volts, and amps all over it. */
  | {
      readonly kind: 'range';
      readonly port: string;
      readonly supply: RangeSupply;
      readonly low: number;
      readonly high: number;
      readonly amps: number;
    }
  /** Signalling outside PD: id of the mode, and its title as it stood. */
  | { readonly kind: 'signal'; readonly port: string; readonly mode: string; readonly title: string }
  | { readonly kind: 'total'; readonly watts: number }
  | { readonly kind: 'combination'; readonly shares: readonly PromisedShare[] }
  | { readonly kind: 'average-efficiency'; readonly ratio: number; readonly mains: Mains | null }
  | { readonly kind: 'idle'; readonly watts: number; readonly mains: Mains | null }
  /** Ripple of every output, V peak to peak. */
  | { readonly kind: 'ripple'; readonly volts: number; readonly mains: Mains | null }
  /** Hottest spot of its surface under full load, °C at 25 °C. */
  | { readonly kind: 'surface'; readonly celsius: number }
  /** How long a device takes from a level to another, 0…1, s; the device by its name on the bench, empty for any. */
  | {
      readonly kind: 'charge-time';
      readonly device: string;
      readonly from: number;
      readonly to: number;
      readonly seconds: number;
    }
  /** What a cable may carry: A at V. */
  | { readonly kind: 'cable-rating'; readonly amps: number; readonly volts: number }
  /** What data it carries, bit/s on the wire. */
  | { readonly kind: 'data-rate'; readonly bits: number }
  /** How often it may be bent. */
  | { readonly kind: 'bends'; readonly count: number }
  /** A slogan or version name: kept, but it promises nothing that can be tested. */
  | { readonly kind: 'wording'; readonly text: string };

export type ClaimKind = Promised['kind'];

export interface Claim {
  readonly id: string;
  readonly promise: Promised;
  readonly duration: ClaimDuration;
  /** Where it was printed: label, box, manual page. */
  readonly printed: string;
}
