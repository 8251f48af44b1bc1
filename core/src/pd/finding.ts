// Something to know about what a charger or cable says of itself.
export interface Finding {
  /** What kind of finding, for grouping; stable. */
  readonly kind: string;
  /** A fault breaks a rule; a note is worth knowing. */
  readonly grade: 'fault' | 'note';
  readonly sentence: string;
  /** 1-based positions in the list of offers; empty when it concerns the whole. */
  readonly positions: readonly number[];
}
