import type { SignalResult } from '../signal/index.ts';

/** What marker the analyser's cable carried; the offer depends on it. */
export const MARKERS = ['none', '3 A', '5 A', '5 A EPR', 'captive'] as const;
export type Marker = (typeof MARKERS)[number];

/** Revision of whoever asked. */
export const REVISIONS = ['2.0', '3.0', '3.1', '3.2'] as const;
export type Revision = (typeof REVISIONS)[number];

/** The five conditions an offer can change with. Null where nobody wrote it down. */
export interface ReadOutConditions {
  /** Labels of the other ports in use. */
  readonly occupied: readonly string[];
  readonly marker: Marker;
  /** Revision the analyser asked with. */
  readonly askedWith: Revision | null;
  /** Temperature of charger or room, K. */
  readonly temperature: number | null;
  /** Time since it was plugged in or put under load, s. */
  readonly elapsed: number | null;
}

/** An offer that cannot be had in practice, with the reason. */
export interface Unreachable {
  /** 1-based position in the list. */
  readonly position: number;
  readonly reason: string;
}

export interface ReadOut extends ReadOutConditions {
  readonly id: string;
  readonly port: string;
  /** The analyser; an instrument that says what it can see. */
  readonly instrumentId: string;
  readonly takenAt: string;
  /** Offers in order as eight hexadecimal digits each. */
  readonly words: readonly string[];
  /** Whether the list is an EPR one, with EPR objects from position 8 on. */
  readonly epr: boolean;
  /** Highest revision the source declares, where it was asked. */
  readonly declared: Revision | null;
  /** Reply of the marker of the cable in use, eight digits a word; empty when it was not read. */
  readonly cableWords: readonly string[];
  /** Source info as the source gave it, eight hexadecimal digits; null when it was not asked for, left out when nobody could note it. */
  readonly info?: string | null;
  /** Extended source capabilities, two hexadecimal digits a byte in the order of the wire; null and left out as `info` is. */
  readonly extended?: string | null;
  /** Result per mode outside PD. Modes left out were not looked for. */
  readonly signals: readonly { readonly mode: string; readonly result: SignalResult }[];
  readonly unreachable: readonly Unreachable[];
  readonly note: string;
  /** As typed or taken from a file, for the record. */
  readonly source: string;
  /** Id of the read-out this one corrects. */
  readonly supersedes: string | null;
  /** True when it takes back the read-out it supersedes without another in its place. */
  readonly withdrawn: boolean;
}

/** Most offers one read-out holds: an EPR list has 11 positions; the rest is room for what is out of order. */
export const MOST_OFFERS = 32;

export { type Sees, VISIBLE_KINDS, type VisibleKind } from '../pd/index.ts';
