// What a complete efficiency result of a sample needs, and what of it is measured.
import { nameplateOf, type SeriesResult, type WantedLoading, wantedLoadings } from '../efficiency/index.ts';
import { chosenSets } from '../limits/index.ts';
import { mainsLabel, sameOutputs } from '../reading/index.ts';
import { isOffered, offeredLevels, proofSteps } from '../steps/index.ts';
import type { Dossier } from './types.ts';

/** A wanted loading, and at which mains its average is there. */
export interface CompleteLoading extends WantedLoading {
  /** Labels of the mains it is averaged at. */
  readonly measuredAt: readonly string[];
}

/**
 * Every loading a complete result needs: each port at its ends as far as its read-out offers them, what the chosen limit
 * sets fix at their mains, and all ports together.
 * @param series the efficiency station's result; empty while nothing is measured
 */
export function completeLoadings(dossier: Dossier, series: readonly SeriesResult[]): readonly CompleteLoading[] {
  const { claims, readOuts, setups, sample } = dossier;
  const ports = sample.ports.map(({ label }) => label);
  const total = proofSteps(ports, claims, readOuts).find(({ reason }) => reason === 'total');
  const kind = sample.kind === 'car' ? 'dc' : 'ac';
  const lowRules = chosenSets(dossier).flatMap(({ title, mains, adaptiveLow }) =>
    adaptiveLow && mains.kind === kind ? [{ title, ...adaptiveLow, mains }] : [],
  );
  const together = total && total.outputs.length > 1 && total.outputs.every((one) => isOffered(readOuts, one));
  return wantedLoadings(
    ports,
    offeredLevels(ports, claims, readOuts).filter((one) => isOffered(readOuts, one)),
    together ? total.outputs : null,
    nameplateOf(dossier, series) ?? 0,
    lowRules,
    setups,
  ).map((wanted) => {
    // The same loading may stand there more than once, on another rig or by a device.
    const same = series.filter(({ setup }) => sameOutputs(setup.outputs, wanted.outputs));
    const averaged = (one: SeriesResult) =>
      one.byMains.flatMap(({ mains, average }) => (average ? [mainsLabel(mains)] : []));
    return {
      ...wanted,
      setupId: same.find((one) => averaged(one).length > 0)?.setup.id ?? wanted.setupId,
      measuredAt: [...new Set(same.flatMap(averaged))],
    };
  });
}

/** Those without any average yet. */
export const openLoadings = (wanted: readonly CompleteLoading[]): readonly CompleteLoading[] =>
  wanted.filter(({ measuredAt }) => measuredAt.length === 0);
