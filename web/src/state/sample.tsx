// The sample at hand, for every part that shows something of it: what is known, and what follows.
import type { SampleDossier } from '@lastmark/contract/types';
import { efficiencySeries, type SeriesResult } from '@lastmark/core/efficiency';
import { type Mains, suppliesFor, withAccuracies } from '@lastmark/core/reading';
import { createJudge, type Dossier, type SetupFacts, type Verdict } from '@lastmark/core/verdict';
import { createContext, useContext } from 'react';

export interface SampleAtHand {
  readonly dossier: SampleDossier;
  readonly verdict: Verdict;
}

export const SampleContext = createContext<SampleAtHand | null>(null);

/** The judge of the sample at hand: from one look to the next it works out only what changed. */
let judge: { readonly sampleId: string; readonly says: (dossier: Dossier) => Verdict } | null = null;
const judged = new WeakMap<SampleDossier, Verdict>();

/** The part of a dossier the calculations use. */
export const toJudge = ({ sample, ...rest }: SampleDossier): Dossier => ({ ...rest, sample: sample.model });

/** The verdict on a dossier, worked out once for each. */
export function useVerdict(dossier: SampleDossier): Verdict {
  const known = judged.get(dossier);
  if (known) return known;
  if (judge?.sampleId !== dossier.sample.id) judge = { sampleId: dossier.sample.id, says: createJudge() };
  const verdict = judge.says(toJudge(dossier));
  judged.set(dossier, verdict);
  return verdict;
}

/** What is known of the sample this very moment: what was typed shows at once, everything concluded follows in its wake. */
export const NowContext = createContext<SampleDossier | null>(null);

/** The dossier as it is now, ahead of {@link useSample}. Only inside a sample's pages. */
export function useDossierNow(): SampleDossier {
  const found = useContext(NowContext);
  if (!found) throw new Error('No sample is at hand here.');
  return found;
}

/** What the readings of one loading come to now: for the row in which they are typed. The judgement finds it ready. */
export function useSeriesNow(setup: SetupFacts): SeriesResult {
  const { points, rigs, instruments } = useDossierNow();
  return efficiencySeries(setup, withAccuracies(points, rigs, instruments), rigs);
}

/** The sample at hand. Only inside a sample's pages. */
export function useSample(): SampleAtHand {
  const found = useContext(SampleContext);
  if (!found) throw new Error('No sample is at hand here.');
  return found;
}

/** Supplies the sample is measured at. */
export function useSupplies(): readonly Mains[] {
  const { sample, profile } = useSample().dossier;
  return suppliesFor(sample.model.kind, profile.mains);
}
