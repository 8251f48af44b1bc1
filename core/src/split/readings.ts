// Split runs as readings: each metered port with its uncertainty, the rest by difference from the socket.

import { type Interval, intervalOf } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import { outputFromWall } from '../efficiency/index.ts';
import type { Bound, ClaimState, SharePart } from '../evidence/index.ts';
import { memoOfLists } from '../memo/index.ts';
import { atReceptacle, type Instrument, type OutputResult, type Rig, readAt, statedLead } from '../reading/index.ts';
import { currentRuns, type Drop, type Run, type SplitRun } from '../run/index.ts';
import { type Measured, sum } from '../uncertainty/index.ts';

import type { PromisedRow } from './promises.ts';
import { type SplitReading, stateKey } from './types.ts';

/** What a split run is worked out with. */
export interface SplitBench {
  readonly ports: readonly string[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  /** The sample's own efficiency, for what only the socket tells. */
  readonly series: readonly SeriesResult[];
  /** The efficiency assumed where none was measured; left out takes the usual. */
  readonly assumed?: Interval | undefined;
}

/** The metered ports of a run at their receptacles, with the uncertainty its rig's meters and lead give. */
export function splitOutputs({ shares, rigId }: SplitRun, { rigs, instruments }: SplitBench): readonly OutputResult[] {
  const rig = rigs.find(({ id }) => id === rigId);
  const place = rig?.outputPlace ?? 'port';
  const lead = rig ? statedLead(rig) : null;
  return shares.flatMap(({ port, volts, amps }) =>
    volts === null || amps === null
      ? []
      : [
          atReceptacle(
            port,
            readAt(volts, 'voltage', place, rig, instruments),
            readAt(amps, 'current', place, rig, instruments),
            lead,
          ),
        ],
  );
}

/** What metered ports give together: their meters are those of one rig, so what they read wrong adds up. */
const sumOf = (metered: readonly Measured[]): Measured => sum(metered, 'rig');

/** The parts of a bench a run is worked out with, as lists; the efficiency counts only where the socket was read. */
const listsOf = (run: SplitRun, { ports, rigs, instruments, series, assumed }: SplitBench) =>
  [ports, rigs, instruments, run.mainsWatts === null ? [] : series, [assumed]] as const;

/** Something made of one run on a bench; worked out anew only when a part of either changed. */
export function perRun<R>(work: (run: SplitRun, bench: SplitBench) => R): (run: SplitRun, bench: SplitBench) => R {
  const kept = memoOfLists((run: SplitRun, ...lists: ReturnType<typeof listsOf>) => {
    const [ports, rigs, instruments, series, [assumed]] = lists;
    return work(run, { ports, rigs, instruments, series, assumed });
  });
  return (run, bench) => kept(run, ...listsOf(run, bench));
}

/** One run as a reading. */
export const splitReading: (run: SplitRun, bench: SplitBench) => SplitReading = perRun(readingOf);

function readingOf(run: SplitRun, bench: SplitBench): SplitReading {
  const { ports, rigs, instruments, series, assumed } = bench;
  const rig = rigs.find(({ id }) => id === run.rigId);
  const occupied = ports.filter((port) => run.order.includes(port));
  const metered = splitOutputs(run, bench);
  const together = sumOf(metered.map(({ watts }) => watts));
  const known = intervalOf(together);
  const complete = occupied.every((port) => metered.some((one) => one.port === port));
  const wall =
    run.mainsWatts === null
      ? null
      : outputFromWall(readAt(run.mainsWatts, 'power', 'mains', rig, instruments), series, run.mains, assumed);
  const low = Math.max(0, known.low);
  const rest: Bound | null =
    complete || !wall
      ? null
      : {
          ...wall,
          low: Math.max(0, wall.low - known.high),
          high: Math.max(0, wall.high - low),
          most: Math.max(0, wall.most - low),
        };
  return {
    occupied,
    order: run.order,
    light: run.shares.flatMap(({ port, light }) => (light ? [port] : [])),
    watts: Object.fromEntries(metered.map(({ port, watts }) => [port, watts])),
    volts: Object.fromEntries(metered.map(({ port, volts }) => [port, volts.value])),
    rest,
    total: complete ? { ...known, most: known.high, assumed: null, unstated: together.unstated } : wall,
    mainsWatts: run.mainsWatts,
    atLeast: run.evidence === 'device',
    stopped: run.drops.some(({ back }) => back === 'stayed off'),
    sourceIds: [run.id],
  };
}

const isSplit = (run: Run): run is SplitRun => run.kind === 'split';

/** Standing split runs as readings, oldest first. */
export const splitReadings = (runs: readonly Run[], bench: SplitBench): readonly SplitReading[] =>
  currentRuns(runs)
    .filter(isSplit)
    .map((run) => splitReading(run, bench));

/** What the standing split runs saw drop out, or stay. */
export const splitDrops = (runs: readonly Run[]): readonly Drop[] =>
  currentRuns(runs)
    .filter(isSplit)
    .flatMap(({ drops }) => drops);

/** The newest full reading of each set. */
export function newestBySet(readings: readonly SplitReading[]): ReadonlyMap<string, SplitReading> {
  return new Map(readings.filter(({ light }) => light.length === 0).map((one) => [stateKey(one.occupied), one]));
}

/** How one promised share stands against what was measured. */
export interface ShareLine {
  /** Its ports; several where they share what is promised. */
  readonly ports: readonly string[];
  /** W; null where nothing is promised. */
  readonly promised: number | null;
  /** W: value ± U where it was metered, an interval where it follows from the socket; null where nothing tells. */
  readonly measured: Interval | null;
  /** W as metered; null where only an interval is known. */
  readonly value: number | null;
  /** State of the promise by everything known, as the ledger has it; null where nothing is promised. */
  readonly state: ClaimState | null;
  /** It clearly gives more than promised. */
  readonly more: boolean;
}

/** One combination: promise and measurement side by side. */
export interface SplitRow {
  readonly occupied: readonly string[];
  readonly promised: number | null;
  readonly total: Bound | null;
  readonly lines: readonly ShareLine[];
  /** Whether power flowed at every metered port, and none stayed off; null when nothing was read. */
  readonly charging: boolean | null;
  readonly sourceIds: readonly string[];
}

/** Less than this at a port is no charging, W. */
const CHARGING_WATTS = 0.5;

/** What a reading says of some of its ports together, W. */
function foundFor(reading: SplitReading | undefined, ports: readonly string[]): Pick<ShareLine, 'measured' | 'value'> {
  const nothing = { measured: null, value: null };
  if (!reading) return nothing;
  const metered = ports.flatMap((port) => reading.watts[port] ?? []);
  if (metered.length === ports.length) {
    const together = sumOf(metered);
    return { measured: intervalOf(together), value: together.value };
  }
  const open = reading.occupied.filter((port) => !reading.watts[port]);
  const missing = ports.filter((port) => !reading.watts[port]);
  // The only ones not metered are what the socket leaves.
  if (!reading.rest || open.length !== missing.length || reading.rest.unstated.length > 0) return nothing;
  const part = metered.length > 0 ? intervalOf(sumOf(metered)) : { low: 0, high: 0 };
  return { measured: { low: reading.rest.low + part.low, high: reading.rest.high + part.high }, value: null };
}

/**
 * Every combination that is promised or was measured.
 * @param partsOf state of each share of a promised row, as the claim was judged: one place decides, and this is not it
 * @param margin part above the promise from which on it counts as more
 */
export function splitRows(
  ports: readonly string[],
  promised: readonly PromisedRow[],
  readings: readonly SplitReading[],
  partsOf: (row: PromisedRow) => readonly SharePart[],
  margin = 0.05,
): readonly SplitRow[] {
  const newest = newestBySet(readings);
  const rank = (set: readonly string[]) =>
    set.length * 1000 + set.reduce((all, port) => all + 2 ** ports.indexOf(port), 0);
  const sets = new Map<string, readonly string[]>();
  for (const { occupied } of [...promised, ...newest.values()]) sets.set(stateKey(occupied), occupied);
  return [...sets.values()]
    .sort((a, b) => rank(a) - rank(b))
    .map((occupied) => {
      const key = stateKey(occupied);
      const promise = promised.find((row) => stateKey(row.occupied) === key);
      const reading = newest.get(key);
      const parts = promise ? partsOf(promise) : [];
      const shares = promise?.shares ?? [];
      const unnamed = occupied.filter((port) => !shares.some((share) => share.ports.includes(port)));
      const lines = [...shares, ...unnamed.map((port) => ({ ports: [port], watts: null }))];
      return {
        occupied,
        promised: promise?.total ?? null,
        total: reading?.total ?? null,
        charging: reading
          ? Object.values(reading.watts).every(({ value }) => value > CHARGING_WATTS) && !reading.stopped
          : null,
        sourceIds: reading?.sourceIds ?? [],
        lines: lines.map(({ ports: own, watts }): ShareLine => {
          const found = foundFor(reading, own);
          return {
            ports: own,
            promised: watts,
            ...found,
            state: watts === null ? null : (parts.find(({ port }) => port === own[0])?.state ?? 'not tested'),
            more: watts !== null && found.measured !== null && found.measured.low >= watts * (1 + margin),
          };
        }),
      };
    });
}
