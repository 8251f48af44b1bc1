// What a run may be told to do by itself.

export const CONDITION_KINDS = ['repeat', 'unsettled', 'folded', 'dropped', 'gone'] as const;
export type ConditionKind = (typeof CONDITION_KINDS)[number];

/** A condition; a sheet has at most one of each kind. */
export type Condition =
  /** Read again until U is within a fraction of the value; `most` readings altogether. */
  | { readonly kind: 'repeat'; readonly within: number; readonly most: number }
  /** Not settled when its rule would average: it goes on so much longer, s. */
  | { readonly kind: 'unsettled'; readonly longest: number }
  /** A port gives less than a share of what is asked: the rest of this level is left out. */
  | { readonly kind: 'folded'; readonly share: number }
  /** A port drops out of a combination: it is read in pairs. */
  | { readonly kind: 'dropped' }
  /** An output went away under load: it is proved again. */
  | { readonly kind: 'gone' };
