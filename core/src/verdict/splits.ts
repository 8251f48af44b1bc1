// Everything concluded about how the ports of a sample share.

import type { ClaimResult } from '../claim/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import type { SharePart } from '../evidence/index.ts';
import { bestReadOut, offersOf } from '../read-out/index.ts';
import type { Drop } from '../run/index.ts';
import {
  inferRule,
  type PromisedRow,
  promisedAlone,
  promisedRows,
  type SplitReading,
  type SplitRow,
  type SplitRule,
  type Sweep,
  setsLeft,
  splitDrops,
  splitReadings,
  splitRows,
  sweepSets,
  type TableFinding,
  tableFindings,
} from '../split/index.ts';
import type { Dossier } from './types.ts';

export interface SplitResult {
  readonly sweep: Sweep;
  /** Sets of the sweep nobody measured yet. */
  readonly left: readonly (readonly string[])[];
  readonly readings: readonly SplitReading[];
  readonly rows: readonly SplitRow[];
  readonly drops: readonly Drop[];
  readonly rule: SplitRule;
  /** What is impossible or missing in the promised table. */
  readonly findings: readonly TableFinding[];
}

/** @param results the judged claims, which alone say how a promised row stands */
export function splitResult(
  dossier: Dossier,
  series: readonly SeriesResult[],
  results: readonly ClaimResult[],
): SplitResult {
  const { claims, readOuts, runs, rigs, instruments, profile } = dossier;
  const ports = dossier.sample.ports.map(({ label }) => label);
  const readings = splitReadings(runs, { ports, rigs, instruments, series, assumed: profile.assumedEfficiency });
  const sweep = sweepSets(ports);
  const partsOf = ({ claimId, occupied }: PromisedRow): readonly SharePart[] => {
    const result = results.find((one) => one.claimId === claimId);
    return result?.parts ?? (result ? [{ port: occupied[0] ?? '', state: result.state }] : []);
  };
  const able = ports.map((label) => {
    const best = bestReadOut(readOuts, label);
    return { label, offers: best ? offersOf(best).map(({ object }) => object) : [] };
  });
  return {
    sweep,
    left: setsLeft(
      sweep,
      readings.filter(({ light }) => light.length === 0).map(({ occupied }) => occupied),
    ),
    readings,
    rows: splitRows(
      ports,
      [...promisedRows(ports, claims), ...promisedAlone(ports, claims)],
      readings,
      partsOf,
      profile.more.margin,
    ),
    drops: splitDrops(runs),
    rule: inferRule(ports, readings),
    findings: tableFindings(able, claims),
  };
}
