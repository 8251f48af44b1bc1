// Conclusions and reports as they travel.
import type { ConclusionLine, FigureChange, Language } from '@lastmark/core/conclusion';
import type { Fate, LeavableId } from '@lastmark/core/report';

export interface ConclusionInput {
  lines: ConclusionLine[];
}

/** The conclusion of a sample; without lines while nobody kept one. */
export interface StoredConclusion extends ConclusionInput {
  version: number;
}

interface Asked {
  id: string;
  language: Language;
  person: string;
  /** Sections it leaves out; what is left out is said in it. */
  leaves?: LeavableId[] | undefined;
  /** Other samples that stand in it, each with all of its own. */
  otherSamples?: string[] | undefined;
  /** Whether the maker saw the text before it was issued; left out where nobody says. */
  makerSaw?: boolean | undefined;
}

interface Amending extends Asked {
  amends: string;
  reason: string;
}

export type ReportInput =
  | ({ kind: 'first' } & Asked)
  | ({ kind: 'correction' } & Amending)
  | ({ kind: 'follow-up'; fate: Fate } & Amending);

/** A report that was issued. It is never rewritten: what changed since is an amendment. */
export interface StoredReport {
  id: string;
  sampleId: string;
  code: string;
  /** SHA-256 of what it was made from. */
  hash: string;
  kind: ReportInput['kind'];
  language: Language;
  title: string;
  person: string;
  issuedAt: string;
  /** The report it amends; null for the first. */
  amends: string | null;
  reason: string;
  fate: Fate | null;
  changes: FigureChange[];
  leaves: LeavableId[];
  otherSamples: string[];
  /** Code of the one that amends it; null while none does. */
  amendedBy: string | null;
  /** Size of the PDF, bytes. */
  size: number;
}

/** Words somebody wrote in a conclusion before. */
export interface Phrase {
  /** The drafted sentence they word; null for own words. */
  sentence: string | null;
  text: string;
  /** In how many conclusions. */
  uses: number;
}

/** Most samples a study holds. */
export const MOST_IN_STUDY = 200;

/** What came of taking a package in: of one sample, or of a study of several. */
export interface TakenPackage {
  title: string;
  samples: TakenIn[];
  /** Trials and comparisons that were new. */
  trials: number;
  comparisons: number;
  /** What spans samples, stands here under the same id and is another; nothing of it was overwritten. */
  differences: TakenIn['differences'];
}

/** What came of one sample of a package. */
export interface TakenIn {
  sampleId: string;
  title: string;
  /** How many rows of each table were new; tables without any are left out. */
  added: Record<string, number>;
  /** How many stood here already. */
  known: number;
  /** What stands here under the same id and is another; nothing of it was overwritten. */
  differences: { table: string; id: string; fields: string[] }[];
  /** Whether every claim is judged here as the package judges it. */
  sameVerdict: boolean;
}

/** What is known of a printed code. */
export interface CodeAnswer {
  code: string;
  /** `damaged`: it was issued, and its record is not what it was. */
  state: 'untouched' | 'amended' | 'unknown' | 'damaged';
  report: StoredReport | null;
  /** The newest of its amendments. */
  newest: StoredReport | null;
}
