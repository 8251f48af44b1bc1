// The instruments that were used on a sample, and no others.
import type { SampleDossier, StoredInstrument, StoredRig } from '@lastmark/contract';

const ids = (of: readonly (string | null | undefined)[]): string[] => of.filter((one): one is string => one != null);

/** Rigs behind its readings, loadings, runs and recordings. */
export function usedRigs(dossier: SampleDossier): readonly StoredRig[] {
  const { points, setups, runs, captures, cableRuns, rigs } = dossier;
  const used = new Set(
    [...points, ...setups, ...runs, ...captures, ...cableRuns].flatMap((one) =>
      'rigId' in one && one.rigId != null ? [one.rigId] : [],
    ),
  );
  return rigs.filter(({ id }) => used.has(id));
}

/** Instruments of these rigs, analysers that were asked, meters of safety checks. */
export function usedInstruments(dossier: SampleDossier): readonly StoredInstrument[] {
  const { readOuts, checks, instruments } = dossier;
  const used = new Set([
    ...usedRigs(dossier).flatMap(({ meters, drives }) => [
      ...ids(Object.values(meters)),
      ...ids(Object.values(drives ?? {}).filter((one) => one === null || typeof one === 'string')),
    ]),
    ...ids(readOuts.map(({ instrumentId }) => instrumentId)),
    ...ids(checks.map((one) => ('instrumentId' in one ? one.instrumentId : null))),
  ]);
  return instruments.filter(({ id }) => used.has(id));
}
