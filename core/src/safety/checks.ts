// What is looked at or read for safety, each kept whole. Records, never a certificate.
import type { Mains } from '../reading/index.ts';
import type { AccuracySpec } from '../uncertainty/index.ts';

/** Measuring networks of IEC 60990, and what is none of them. */
export const NETWORKS = ['unweighted', 'perception', 'let-go', 'other'] as const;
export type Network = (typeof NETWORKS)[number];

export const NETWORK_WORDS: Readonly<Record<Network, string>> = {
  unweighted: 'unweighted (IEC 60990, figure 3)',
  perception: 'weighted for perception (IEC 60990, figure 4)',
  'let-go': 'weighted for let-go (IEC 60990, figure 5)',
  other: 'a network of another kind',
};

export const CURRENT_FORMS = ['rms', 'peak'] as const;
export type CurrentForm = (typeof CURRENT_FORMS)[number];
export const POLARITIES = ['as plugged in', 'turned round', 'not noted'] as const;
/** How the protective earth stood: a plug without one has none. */
export const EARTHS = ['none', 'joined', 'open'] as const;
export type EarthJoin = (typeof EARTHS)[number];
export const HOLDS = ['firm', 'tight', 'loose', 'falls out'] as const;

/** Who measured: needed wherever mains is near. */
export const STANDINGS = ['licensed', 'trained under a licensed person'] as const;
export interface Measurer {
  readonly person: string;
  readonly standing: (typeof STANDINGS)[number];
}

interface CheckHead {
  readonly id: string;
  readonly takenAt: string;
  readonly note: string;
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

interface MeteredHead extends CheckHead {
  readonly by: Measurer;
  /** Meter of the bench; null for one that is not on it. */
  readonly instrumentId: string | null;
  /** Its accuracy for this reading; null where nobody stated one. */
  readonly accuracy: AccuracySpec | null;
}

/** Current through a person who touches it, IEC 60990. */
export interface TouchCheck extends MeteredHead {
  readonly kind: 'touch';
  /** A, rms or peak. */
  readonly amps: number;
  readonly form: CurrentForm;
  readonly network: Network;
  readonly mains: Mains;
  readonly polarity: (typeof POLARITIES)[number];
  readonly earth: EarthJoin;
  /** What was touched: "shell of C1". */
  readonly from: string;
  readonly loaded: boolean;
}

/** Resistance of the protective earth, from its pin to what it protects. */
export interface EarthCheck extends MeteredHead {
  readonly kind: 'earth';
  /** Ω, leads taken off. */
  readonly ohms: number;
  /** A */
  readonly testAmps: number;
  readonly to: string;
}

/** From the ground of an output to the earth pin, unplugged. */
export interface BondCheck extends MeteredHead {
  readonly kind: 'bond';
  readonly port: string;
  /** Ω; where it went over the range, the end of the range. */
  readonly ohms: number;
  readonly overRange: boolean;
}

/** How it sits in the socket. */
export interface FitCheck extends CheckHead {
  readonly kind: 'fit';
  readonly hold: (typeof HOLDS)[number];
  /** m from the face of the socket to its centre of gravity; null where nobody measured it. */
  readonly reach: number | null;
}

/** A mark that is seen, and what it states. */
export interface MarkCheck extends CheckHead {
  readonly kind: 'mark';
  readonly mark: string;
  readonly printed: string;
  /** K it is stated for at most; null for a mark that states no temperature. */
  readonly ambient: number | null;
}

export type SafetyCheck = TouchCheck | EarthCheck | BondCheck | FitCheck | MarkCheck;
export type CheckKind = SafetyCheck['kind'];

/** Kinds as people say them. */
export const CHECK_WORDS: Readonly<Record<CheckKind, string>> = {
  touch: 'touch current',
  earth: 'earth continuity',
  bond: 'output to earth',
  fit: 'fit in the socket',
  mark: 'mark',
};

/** Kinds that are read near mains: who read them is named. */
export const METERED: readonly CheckKind[] = ['touch', 'earth', 'bond'];

export interface CheckedSample {
  readonly kind: 'wall' | 'desktop' | 'car' | 'cable';
  readonly plugEarthed?: boolean | undefined;
  readonly plugForm?: string | undefined;
}

/** Kinds of checks a sample can have: what hangs on no mains has no touch current, and what has no earth pin no earth. */
export function checksOf({ kind, plugEarthed = false, plugForm }: CheckedSample): readonly CheckKind[] {
  if (kind === 'cable') return [];
  if (kind === 'car') return ['fit', 'mark'];
  const fits = kind === 'wall' && plugForm !== 'detachable lead';
  return ['touch', ...(plugEarthed ? (['earth', 'bond'] as const) : []), ...(fits ? (['fit'] as const) : []), 'mark'];
}

const NOT_SO: Readonly<Record<CheckKind, string>> = {
  touch: 'It hangs on no mains: there is no touch current to read.',
  earth: 'Its plug has no earth by its intake: there is nothing to be joined. Change the plug at Intake first.',
  bond: 'Its plug has no earth by its intake: no output can be joined to it. Change the plug at Intake first.',
  fit: 'It hangs on a lead: no body sits in the socket.',
  mark: 'A cable has its marks at Claims.',
};

/**
 * Why a check cannot be as it is said; null where it can.
 * @example safetyRefusal({ kind: 'earth', … }, { kind: 'wall', plugEarthed: false }) // 'Its plug has no earth …'
 */
export function safetyRefusal(check: SafetyCheck, sample: CheckedSample): string | null {
  if (check.withdrawn) return null;
  if (!checksOf(sample).includes(check.kind)) return NOT_SO[check.kind];
  if (check.kind === 'touch') {
    if (check.mains.kind === 'dc') return 'Touch current is read at an AC mains.';
    const earthed = sample.plugEarthed ?? false;
    if (earthed === (check.earth === 'none'))
      return earthed
        ? 'Its plug has an earth: say whether that was joined or open.'
        : 'Its plug has no earth by its intake: neither joined nor open.';
  }
  if (check.kind === 'bond' && check.overRange && check.ohms < 1000)
    return 'Over the range says at least the end of the range: give that, 1 kΩ or more.';
  return null;
}
