// Port splits: what each occupied port gets, who drops out, and which rule explains it.

import type { Bound } from '../evidence/index.ts';
import type { Measured } from '../uncertainty/index.ts';

/** What one set of occupied ports gave. */
export interface SplitReading {
  /** Occupied ports, in physical order. */
  readonly occupied: readonly string[];
  /** Ports that were loaded lightly only, to see whether the others then get more. */
  readonly light: readonly string[];
  /** W per metered port. */
  readonly watts: Readonly<Record<string, Measured>>;
  /** V per metered port, where it was read. */
  readonly volts?: Readonly<Record<string, number>>;
  /** The order they were plugged in; left out where nobody noted it. */
  readonly order?: readonly string[];
  /** W of everything not metered together, by difference from the socket; null when all is metered or nothing tells. */
  readonly rest: Bound | null;
  /** W out of all ports: read, or an interval from the socket. */
  readonly total: Bound | null;
  /** W at the socket; null when not read. */
  readonly mainsWatts: number | null;
  /** A device limited it: the charger gives at least this. */
  readonly atLeast: boolean;
  /** A port stayed off when another came. */
  readonly stopped?: boolean;
  /** Runs behind it. */
  readonly sourceIds: readonly string[];
}

/** How ports of one budget divide it. */
export type Sharing =
  /** Nothing on other ports changes it. */
  | { readonly kind: 'alone' }
  /** Each occupied port gets the same, up to what it gives alone. */
  | { readonly kind: 'even'; readonly budget: number }
  /** In proportion to what each gives alone. */
  | { readonly kind: 'proportional'; readonly budget: number }
  /** One port keeps its part; the others divide the remainder evenly. */
  | { readonly kind: 'priority'; readonly first: string; readonly keeps: number; readonly budget: number }
  /** Beside each other they fall back to 5 V: levels change, nothing is divided. */
  | { readonly kind: 'level' }
  /** It depends on which ports are occupied, and no shorter rule explains it. */
  | { readonly kind: 'table' };

/** Ports that share one budget, and what each state of it gives. */
export interface Budget {
  readonly ports: readonly string[];
  readonly sharing: Sharing;
  /** By {@link stateKey} of the occupied ports of the budget: W per port as read. */
  readonly states: Readonly<Record<string, Readonly<Record<string, number>>>>;
  /** The most all its ports gave together, W. */
  readonly most: number;
}

export interface SplitRule {
  readonly budgets: readonly Budget[];
  /** The rule in a sentence a budget. */
  readonly sentences: readonly string[];
  /** Whether what others draw matters, or only whether they are plugged in. */
  readonly demand: 'fixed' | 'follows demand' | 'not tested';
  /** Power that ports drawing little keep from another, W. */
  readonly reserves: readonly { readonly from: string; readonly by: readonly string[]; readonly watts: number }[];
  /** Readings it does not explain, with why. */
  readonly unexplained: readonly { readonly occupied: readonly string[]; readonly says: string }[];
  /** What stays open, each with the one measurement that would decide. */
  readonly open: readonly { readonly says: string; readonly measure: readonly string[] }[];
}

/** Ports as a key that no label can break, whatever signs it holds. */
export const stateKey = (ports: readonly string[]): string => ports.join('\n');
/** The ports of such a key. */
export const portsOf = (key: string): readonly string[] => (key === '' ? [] : key.split('\n'));

/** Ports as people read a set: "C1+C2". */
export const setKey = (ports: readonly string[]): string => ports.join('+');
