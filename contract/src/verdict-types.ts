// What scripts are told of a sample's verdict.
import type { ClaimDuration, ClaimState, Promised } from '@lastmark/core/claim';
import type { QuantityId } from '@lastmark/core/quantity';
import type { EvidenceKind } from '@lastmark/core/reading';
import type { StationLook } from '@lastmark/core/station';
import type { KeyFigures, Profile } from '@lastmark/core/verdict';

/** One test of a claim, SI; null for what is not known or has no bound. */
export interface VerdictTest {
  quantity: QuantityId;
  unit: string;
  value: number | null;
  expanded: number | null;
  low: number | null;
  high: number | null;
  state: ClaimState;
  probability: number | null;
  evidence: EvidenceKind;
  conditions: string;
}

/** Everything concluded about a sample, for scripts. */
export interface SampleVerdict {
  sampleId: string;
  tag: string;
  maker: string;
  model: string;
  units: 'SI';
  rule: Profile['rule'];
  claims: {
    id: string;
    promise: Promised;
    says: string;
    printed: string;
    duration: ClaimDuration;
    state: ClaimState;
    sentence: string;
    notes: string[];
    tests: VerdictTest[];
  }[];
  figures: KeyFigures;
  stations: {
    id: string;
    title: string;
    look: StationLook;
    done: number;
    total: number;
    worst: ClaimState | null;
    says: string[];
  }[];
}
