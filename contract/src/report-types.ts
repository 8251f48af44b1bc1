// Conclusions and reports as they travel.
import type { ConclusionLine } from '@lastmark/core/conclusion';

export interface ConclusionInput {
  lines: ConclusionLine[];
}

/** The conclusion of a sample; without lines while nobody kept one. */
export interface StoredConclusion extends ConclusionInput {
  version: number;
}
