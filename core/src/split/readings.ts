// Split runs as readings: each metered port with its uncertainty, the rest by difference from the socket.
import type { Interval } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import { currentRuns } from '../proof/runs.ts';
import type { Run, SplitRun } from '../proof/types.ts';
import { outputFromWall } from '../proof/wall.ts';
import { type Instrument, type Rig, specFor } from '../reading/index.ts';
import { expandedUncertainty, type Measured, measured, product, specUncertainty, sum } from '../uncertainty/index.ts';
import type { Drop } from './drops.ts';
import { type SplitReading, setKey } from './types.ts';

interface Bench {
  readonly ports: readonly string[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  /** The sample's own efficiency, for what only the socket tells. */
  readonly series: readonly SeriesResult[];
}

/** W of one metered port with the uncertainty its rig's meters give. */
function wattsOf(volts: number, amps: number, rig: Rig | undefined, instruments: readonly Instrument[]): Measured {
  const part = (quantity: 'voltage' | 'current', value: number) => {
    const spec = rig && specFor(quantity, rig.outputPlace, rig, instruments);
    return measured(value, spec ? specUncertainty(spec, value) : 0);
  };
  return product(part('voltage', volts), part('current', amps));
}

const span = (value: Measured): Interval => {
  const expanded = expandedUncertainty(value);
  return { low: value.value - expanded, high: value.value + expanded };
};

/** One run as a reading. */
export function splitReading(run: SplitRun, { ports, rigs, instruments, series }: Bench): SplitReading {
  const rig = rigs.find(({ id }) => id === run.rigId);
  const occupied = ports.filter((port) => run.order.includes(port));
  const metered = run.shares.flatMap(({ port, volts, amps }) =>
    volts === null || amps === null ? [] : [[port, wattsOf(volts, amps, rig, instruments)] as const],
  );
  const known = metered.length > 0 ? span(sum(metered.map(([, watts]) => watts))) : { low: 0, high: 0 };
  const complete = occupied.every((port) => metered.some(([name]) => name === port));
  const spec = rig && specFor('power', 'mains', rig, instruments);
  const wall =
    run.mainsWatts === null
      ? null
      : outputFromWall(measured(run.mainsWatts, spec ? specUncertainty(spec, run.mainsWatts) : 0), series, run.mains);
  const rest =
    complete || !wall ? null : { low: Math.max(0, wall.low - known.high), high: Math.max(0, wall.high - known.low) };
  return {
    occupied,
    light: run.shares.flatMap(({ port, light }) => (light ? [port] : [])),
    watts: Object.fromEntries(metered),
    rest,
    total: complete ? known : wall,
    mainsWatts: run.mainsWatts,
    atLeast: run.evidence === 'device',
    stopped: run.drops.some(({ back }) => back === 'stayed off'),
    sourceIds: [run.id],
  };
}

const isSplit = (run: Run): run is SplitRun => run.kind === 'split';

/** Standing split runs as readings, oldest first. */
export const splitReadings = (runs: readonly Run[], bench: Bench): readonly SplitReading[] =>
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
  return new Map(readings.filter(({ light }) => light.length === 0).map((one) => [setKey(one.occupied), one]));
}

/** How one promised share stands against what was measured. */
export interface ShareLine {
  readonly port: string;
  /** W; null where nothing is promised. */
  readonly promised: number | null;
  /** W with its expanded uncertainty as an interval; null where it was not read by itself. */
  readonly measured: Interval | null;
  readonly state: 'kept' | 'short' | 'more' | 'borderline' | 'at least' | 'open';
}

/** One combination: promise and measurement side by side. */
export interface SplitRow {
  readonly occupied: readonly string[];
  readonly promised: number | null;
  readonly total: Interval | null;
  readonly lines: readonly ShareLine[];
  /** Whether power flowed at every metered port, and none stayed off; null when nothing was read. */
  readonly charging: boolean | null;
  readonly sourceIds: readonly string[];
}

/** Less than this at a port is no charging, W. */
const CHARGING_WATTS = 0.5;

function stateOf(
  promised: number | null,
  found: Interval | null,
  atLeast: boolean,
  allowance: number,
  margin: number,
): ShareLine['state'] {
  if (promised === null || !found) return 'open';
  const needed = promised * (1 - allowance);
  if (found.low >= promised * (1 + margin)) return 'more';
  if (found.low >= needed) return 'kept';
  if (atLeast) return 'at least';
  return found.high < needed ? 'short' : 'borderline';
}

/**
 * Every combination that is promised or was measured.
 * @param allowance part a set power may miss its promise by
 * @param margin part above the promise from which on it counts as more
 */
export function splitRows(
  ports: readonly string[],
  promised: readonly {
    readonly occupied: readonly string[];
    readonly watts: Readonly<Record<string, number>>;
    readonly total: number;
  }[],
  readings: readonly SplitReading[],
  allowance: number,
  margin = 0.05,
): readonly SplitRow[] {
  const newest = newestBySet(readings);
  const rank = (set: readonly string[]) =>
    set.length * 1000 + set.reduce((sum, port) => sum + 2 ** ports.indexOf(port), 0);
  const sets = new Map<string, readonly string[]>();
  for (const { occupied } of [...promised, ...newest.values()]) sets.set(setKey(occupied), occupied);
  return [...sets.values()]
    .sort((a, b) => rank(a) - rank(b))
    .map((occupied) => {
      const key = setKey(occupied);
      const promise = promised.find((row) => setKey(row.occupied) === key);
      const reading = newest.get(key);
      return {
        occupied,
        promised: promise?.total ?? null,
        total: reading?.total ?? null,
        charging: reading
          ? Object.values(reading.watts).every(({ value }) => value > CHARGING_WATTS) && !reading.stopped
          : null,
        sourceIds: reading?.sourceIds ?? [],
        lines: occupied.map((port) => {
          const own = reading?.watts[port];
          const others = occupied.filter((one) => one !== port);
          // The only one not metered is what the socket leaves.
          const byRest = reading && !own && others.every((one) => reading.watts[one]) ? reading.rest : null;
          const found = own ? span(own) : byRest;
          const share = promise?.watts[port] ?? null;
          return {
            port,
            promised: share,
            measured: found,
            state: stateOf(share, found, reading?.atLeast ?? false, allowance, margin),
          };
        }),
      };
    });
}
