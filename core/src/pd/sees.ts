// What an analyser with its firmware can see.
import type { SupplyKind } from './source.ts';

/** Kinds of offer an analyser can show or hide. */
export const VISIBLE_KINDS = [
  'fixed',
  'variable',
  'battery',
  'pps',
  'spr-avs',
  'epr-avs',
] as const satisfies readonly SupplyKind[];
export type VisibleKind = (typeof VISIBLE_KINDS)[number];

/** What an analyser with its firmware can see. */
export interface Sees {
  readonly supplies: readonly VisibleKind[];
  /** Ids of the modes outside PD. */
  readonly signals: readonly string[];
}
