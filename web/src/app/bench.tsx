// The sample on the bench, for every part that shows something of it: what is known, and what follows.
import type { SampleDossier } from '@lastmark/contract/types';
import { type Mains, suppliesFor } from '@lastmark/core/reading';
import { type Dossier, judgeSample, type Verdict } from '@lastmark/core/verdict';
import { createContext, useContext } from 'react';

export interface OnBench {
  readonly dossier: SampleDossier;
  readonly verdict: Verdict;
}

export const BenchContext = createContext<OnBench | null>(null);

const judged = new WeakMap<SampleDossier, Verdict>();

/** The part of a dossier the calculations use. */
export const toJudge = ({ sample, ...rest }: SampleDossier): Dossier => ({ ...rest, sample: sample.model });

/** The verdict on a dossier, worked out once for each. */
export function useVerdict(dossier: SampleDossier): Verdict {
  const known = judged.get(dossier);
  if (known) return known;
  const verdict = judgeSample(toJudge(dossier));
  judged.set(dossier, verdict);
  return verdict;
}

/** The sample on the bench. Only inside a sample's pages. */
export function useOnBench(): OnBench {
  const found = useContext(BenchContext);
  if (!found) throw new Error('No sample is on the bench here.');
  return found;
}

/** Supplies the sample on the bench is measured at. */
export function useSupplies(): readonly Mains[] {
  const { sample, profile } = useOnBench().dossier;
  return suppliesFor(sample.model.kind, profile.mains);
}
