// Idle draw: mean input power with nothing to do, what it costs a year, and whether to believe it.

import {
  type Decision,
  type DecisionRule,
  decide,
  decideWithin,
  type Interval,
  intervalOf,
  type Limit,
} from '../decision/index.ts';
import { groupsBy, memoOf, memoOfLists } from '../memo/index.ts';
import { formatPlain } from '../quantity/index.ts';
import {
  type Attached,
  asMeasured,
  type Mains,
  mainsLabel,
  metersOf,
  type Point,
  readingAt,
} from '../reading/index.ts';
import {
  combinedSays,
  combineMeters,
  expandedUncertainty,
  isStated,
  type Measured,
  ratio,
} from '../uncertainty/index.ts';

export * from './limits.ts';
export * from './says.ts';
export * from './station.ts';
export * from './use.ts';
export * from './year.ts';

/** Shortest averaging time that smooths idle bursts, s. */
export const SHORTEST_IDLE = 600;
/** Idle above this with nothing attached is implausible for a listed charger, W. */
export const IMPLAUSIBLE_IDLE = 1;

export interface IdleResult {
  readonly mains: Mains;
  readonly attached: Attached;
  /** Mean input power, W. */
  readonly watts: Measured;
  /**
   * W it is surely not above, where the value lies under the meter's floor: the floor, or value + U where that is more.
   * The result then reads "below". Null otherwise.
   */
  readonly below: number | null;
  /** Shortest averaging time behind it, s; null where it is not known. */
  readonly seconds: number | null;
  readonly runs: number;
  readonly pointIds: readonly string[];
  /** How it was averaged, where that was not enough. */
  readonly findings: readonly string[];
  /** Readings that are kept but do not count, in a sentence each. */
  readonly notes: readonly string[];
  /** Why it should not be believed before someone has looked. */
  readonly doubts: readonly string[];
}

/** How well a run was averaged; only the best there are count, so that a moment is never pooled with an hour. */
const RANKS = ['moment', 'unknown', 'short', 'long'] as const;

interface IdleRun {
  readonly point: Point;
  readonly watts: Measured;
  /** s; null where nobody recorded it. */
  readonly seconds: number | null;
  readonly rank: (typeof RANKS)[number];
}

/** Mean power of one idle point: energy ÷ time when both are there, else the power read. */
const idleRun: (point: Point) => IdleRun | undefined = memoOf((point: Point): IdleRun | undefined => {
  const energy = readingAt(point, 'energy', 'mains');
  const duration = readingAt(point, 'duration', 'mains');
  const power = readingAt(point, 'power', 'mains');
  const counted = duration?.value != null && duration.value > 0 ? duration.value : null;
  if (energy && duration && counted !== null)
    return { point, watts: ratio(asMeasured(energy), asMeasured(duration)), seconds: counted, rank: rankOf(counted) };
  if (!power) return undefined;
  const watched = point.taken?.rest?.averaged ? point.taken.rest.over : null;
  const seconds = counted ?? watched;
  const rank = seconds !== null ? rankOf(seconds) : power.count > 1 ? 'unknown' : 'moment';
  return { point, watts: asMeasured(power), seconds, rank };
});

const rankOf = (seconds: number): IdleRun['rank'] => (seconds >= SHORTEST_IDLE - 1 ? 'long' : 'short');

/** What the way a run was averaged leaves to be wished; the procedures ask for ten minutes or more. */
function averagingSays({ rank, seconds }: IdleRun): string[] {
  switch (rank) {
    case 'long':
      return [];
    case 'short':
      return [`Averaged over ${formatPlain(seconds ?? 0, 'duration', 'min')}; bursts need 10 min or more.`];
    case 'unknown':
      return ['Averaged over a time nobody recorded; bursts need 10 min or more.'];
    case 'moment':
      return ['Read at one moment; idle comes in bursts. Energy over 10 min or more is better.'];
  }
}

/** Runs of one supply and attachment as one result; kept for the first of them while they stay the same. */
const resultOf = memoOfLists(
  (_first: IdleRun, group: readonly IdleRun[], floors: readonly number[]): readonly IdleResult[] => {
    const rank = RANKS.findLast((one) => group.some((run) => run.rank === one));
    const counted = group.filter((run) => run.rank === rank);
    const [first] = counted;
    if (!first) return [];
    const { mains, attached } = first.point;
    const combined = combineMeters(counted.map((run) => ({ of: run.watts, meters: metersOf(run.point) })));
    const watts = combined.result;
    const floor = Math.max(...group.flatMap((run, index) => (run.rank === rank ? [floors[index] ?? 0] : [])));
    const aside = group.length - counted.length;
    const times = counted.map(({ seconds }) => seconds);
    return [
      {
        mains,
        attached,
        watts,
        below:
          isStated(watts) && watts.value < floor ? Math.max(floor, watts.value + expandedUncertainty(watts)) : null,
        seconds: times.includes(null) ? null : Math.min(...times.map((time) => time ?? 0)),
        runs: counted.length,
        pointIds: counted.map(({ point }) => point.id),
        findings: [...new Set(counted.flatMap(averagingSays)), ...combinedSays(combined, 'power')],
        notes:
          aside > 0
            ? [
                `${aside} shorter ${aside === 1 ? 'reading is' : 'readings are'} kept and not counted beside the longer.`,
              ]
            : [],
        doubts:
          attached === 'nothing' && watts.value > IMPLAUSIBLE_IDLE
            ? [
                `${formatPlain(watts.value, 'power')} with nothing attached: check the meter, or is something plugged in?`,
              ]
            : [],
      },
    ];
  },
);

/**
 * Idle draw per mains and attachment. Repeats are combined; of readings averaged unequally well only the best count.
 * @param points unloaded points with nothing negotiated: steps of a proof without load are not idle and stay out
 * @param floorOf the floor of the power meter on a rig, W; 0 when it has none
 */
export function idleResults(points: readonly Point[], floorOf: (rigId: string) => number): readonly IdleResult[] {
  const runs = points.flatMap((point) => (point.load === 0 ? (idleRun(point) ?? []) : []));
  const groups = groupsBy(runs, ({ point }) => `${mainsLabel(point.mains)}|${point.attached}`);
  return [...groups.values()].flatMap((group) =>
    group[0]
      ? resultOf(
          group[0],
          group,
          group.map(({ point }) => floorOf(point.rigId)),
        )
      : [],
  );
}

/** The truth of an idle draw as far as it is known, W. */
export function idleInterval({ watts, below }: Pick<IdleResult, 'watts' | 'below'>): Interval {
  return below === null ? intervalOf(watts) : { low: 0, high: below };
}

/** An idle draw held against a limit. */
export const decideIdle = (idle: Pick<IdleResult, 'watts' | 'below'>, limit: Limit, rule: DecisionRule): Decision =>
  idle.below === null ? decide(idle.watts, limit, rule) : decideWithin(idleInterval(idle), limit);
