// Splits as a station.
import type { Interval } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import { type Delivered, type SharePart, worstOf } from '../evidence/index.ts';
import { memoOfLists } from '../memo/index.ts';
import type { Claim } from '../promise/index.ts';
import { bestReadOut, offersOf, type ReadOut } from '../read-out/index.ts';
import type { Instrument, Rig } from '../reading/index.ts';
import { currentRuns, type Drop, type Run } from '../run/index.ts';
import { aboutStation, type SettledClaim, type Station } from '../station/index.ts';
import { deliveredBySplits } from './delivered.ts';
import { type PromisedRow, promisedAlone, promisedRows, type TableFinding, tableFindings } from './promises.ts';
import { type SplitBench, type SplitRow, splitDrops, splitReadings, splitRows } from './readings.ts';
import { inferRule } from './rule.ts';
import { type Sweep, setsLeft, sweepSets } from './sets.ts';
import type { SplitReading, SplitRule } from './types.ts';

export interface SplitFacts {
  readonly sample: { readonly ports: readonly { readonly label: string }[] };
  readonly claims: readonly Claim[];
  readonly readOuts: readonly ReadOut[];
  readonly runs: readonly Run[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly profile: {
    readonly more: { readonly margin: number };
    readonly assumedEfficiency?: Interval | undefined;
  };
}

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
  /** What ports gave, as evidence for the claims. */
  readonly delivered: readonly Delivered[];
}

interface Needs {
  readonly efficiency: { readonly series: readonly SeriesResult[] };
}

const labelsOf = ({ sample }: SplitFacts): readonly string[] => sample.ports.map(({ label }) => label);

const benchOf = (slice: SplitFacts, { efficiency }: Needs): SplitBench => ({
  ports: labelsOf(slice),
  rigs: slice.rigs,
  instruments: slice.instruments,
  series: efficiency.series,
  assumed: slice.profile.assumedEfficiency,
});

/** Rows as promised and read; how they stand is for the claims to say. */
function rowsOf(
  slice: SplitFacts,
  readings: readonly SplitReading[],
  claims: readonly SettledClaim[],
): readonly SplitRow[] {
  const ports = labelsOf(slice);
  const partsOf = ({ claimId, occupied }: PromisedRow): readonly SharePart[] => {
    const claim = claims.find((one) => one.claimId === claimId);
    return claim?.parts ?? (claim ? [{ port: occupied[0] ?? '', state: claim.state }] : []);
  };
  const promised = [...promisedRows(ports, slice.claims), ...promisedAlone(ports, slice.claims)];
  return splitRows(ports, promised, readings, partsOf, slice.profile.more.margin);
}

/** The rule, worked out anew only for other readings. */
const ruleOf = memoOfLists((_runs: readonly Run[], ports: readonly string[], readings: readonly SplitReading[]) =>
  inferRule(ports, readings),
);

export const splitStation: Station<'splits', SplitFacts, Needs, SplitResult> = {
  ...aboutStation('splits'),
  reads: ['sample', 'claims', 'readOuts', 'runs', 'rigs', 'instruments', 'profile'],
  needs: ['efficiency'],
  conclude(slice, needs) {
    const ports = labelsOf(slice);
    const bench = benchOf(slice, needs);
    const readings = splitReadings(slice.runs, bench);
    const sweep = sweepSets(ports);
    const able = ports.map((label) => {
      const best = bestReadOut(slice.readOuts, label);
      return { label, offers: best ? offersOf(best).map(({ object }) => object) : [] };
    });
    const full = readings.filter(({ light }) => light.length === 0);
    return {
      sweep,
      left: setsLeft(
        sweep,
        full.map(({ occupied }) => occupied),
      ),
      readings,
      rows: rowsOf(slice, readings, []),
      drops: splitDrops(slice.runs),
      rule: ruleOf(slice.runs, ports, readings),
      findings: tableFindings(able, slice.claims),
      delivered: deliveredBySplits(currentRuns(slice.runs), bench),
    };
  },
  evidence: ({ delivered }) => ({ delivered }),
  settled: (result, slice, claims) => ({ ...result, rows: rowsOf(slice, result.readings, claims) }),
  says: ({ readings, rule }) => [
    ...(readings.length > 0 ? rule.sentences : []),
    ...rule.unexplained.map(({ says }) => says),
  ],
  progress: ({ sweep, left }, _slice, settles) => ({
    done: sweep.sets.length - left.length,
    total: sweep.sets.length,
    worst: worstOf(settles),
  }),
};
