// Fields of comparisons, and of how samples are filed.
import type { Word } from './word.ts';

export const COMPARE_WORDS: Readonly<Record<string, Word>> = {
  rule: ['Rule of the set'],
  'rule.watts': ['Nameplate'],
  'rule.ports': ['Number of ports'],
  'watts.from': ['Nameplate from'],
  'watts.to': ['Nameplate up to'],
  'ports.from': ['Ports from'],
  'ports.to': ['Ports up to'],
  kinds: ['Kinds'],
  since: ['Bought since'],
  'rule.method': ['Method'],
  'rule.label': ['Label'],
  oneUnit: ['Whether one unit a model counts'],
  picks: ['Samples picked'],
  measures: ['Measures'],
  measure: ['Measure'],
  'measures.condition': ['Condition'],
  own: ['Own measures'],
  formula: ['Formula'],
  better: ['Which way is better'],
  weights: ['Weights'],
  weight: ['Weight'],
  filings: ['Samples'],
  labels: ['Labels'],
  archived: ['Whether it is archived'],
};
