// Comparisons as they travel.
import type { ConditionCount, SetRule } from '@lastmark/core/compare';
import type { Better } from '@lastmark/core/measure';
import type { SampleKind } from '@lastmark/core/verdict';

/** A measure under one condition; null takes the one most samples of the set share. */
export interface WantedMeasure {
  measure: string;
  condition: string | null;
}

/** A measure of one's own. */
export interface OwnMeasure {
  id: string;
  title: string;
  formula: string;
  better: Better;
}

/** What a comparison is: its set, what it is about, and what counts how much. */
export interface ComparisonBody {
  title: string;
  note: string;
  rule: SetRule;
  /** What its table, strips and charts have, in this order. */
  measures: WantedMeasure[];
  own: OwnMeasure[];
  weights: { measure: string; weight: number }[];
}

export interface StoredComparison extends ComparisonBody {
  id: string;
  version: number;
  /** Who stood in it when it was kept. */
  members: string[];
  updatedAt: string;
}

/** A sample of a set. */
export interface SetMember {
  id: string;
  modelId: string;
  tag: string;
  maker: string;
  model: string;
  serial: string;
  kind: SampleKind;
  watts: number | null;
  ports: number;
  since: string;
  /** Revision and date code: what units are grouped by. */
  group: string;
  labels: string[];
}

/** Values of one measure under one condition, an entry a sample that has one. */
export interface MeasureColumn {
  measure: string;
  condition: string;
  /** Place of each among the members. */
  of: number[];
  value: number[];
  u: (number | null)[];
  common: number[];
  /** Place of its meters in the list of them; −1 for none. */
  meters: number[];
  below: boolean[];
  at: (string | null)[];
}

export interface SetAnswer {
  members: SetMember[];
  /** Who is not in it and why; the first few hundred of them. */
  out: { id: string; title: string; reason: string }[];
  outCount: number;
  conditions: { measure: string; shared: ConditionCount[] }[];
  columns: MeasureColumn[];
  meters: string[];
  /** What was told of members after their reports, by day: whether one failed, or was well. */
  fates: { id: string; since: string; on: string; failed: boolean }[];
  /** Figures of some are being worked out. */
  pending: boolean;
}

/** A search of the shelf somebody keeps. */
export interface SearchInput {
  title: string;
  /** As the address of the shelf has it: `q=pellwick&kind=wall`. */
  query: string;
}

export interface StoredSearch extends SearchInput {
  id: string;
}

/** How some samples are filed. */
export interface Filing {
  id: string;
  labels: string[];
  archived: boolean;
}
