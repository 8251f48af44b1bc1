// Idle draw: mean input power with nothing to do, what it costs a year, and whether to believe it.
import { formatPlain } from '../quantity/index.ts';
import { type Attached, asMeasured, type Mains, mainsLabel, type Point, readingAt } from '../reading/index.ts';
import { combineRepeats, type Measured, ratio, requireFinite } from '../uncertainty/index.ts';

export * from './use.ts';

/** Shortest averaging time that smooths idle bursts, s. */
export const SHORTEST_IDLE = 600;
/** Idle above this with nothing attached is implausible for a listed charger, W. */
export const IMPLAUSIBLE_IDLE = 1;
/** Hours of the year, in thousands: W × 8.760 = kWh. */
const KILOHOURS_A_YEAR = 8.76;

export interface IdleResult {
  readonly mains: Mains;
  readonly attached: Attached;
  /** Mean input power, W. */
  readonly watts: Measured;
  /** The meter's floor when the result lies under it, W: the result then reads "below". Null otherwise. */
  readonly below: number | null;
  readonly runs: number;
  readonly pointIds: readonly string[];
  /** How it was averaged, where that was not enough. */
  readonly findings: readonly string[];
  /** Why it should not be believed before someone has looked. */
  readonly doubts: readonly string[];
}

/**
 * Energy of a constant draw over a year.
 * @param watts mean input power, W
 * @returns kWh. 0.045 W → 0.394 kWh
 */
export function yearlyKilowattHours(watts: number): number {
  requireFinite('idle power', watts);
  return watts * KILOHOURS_A_YEAR;
}

/** Cost of a constant draw over a year, in the currency of the tariff. */
export function yearlyCost(watts: number, tariffPerKilowattHour: number): number {
  requireFinite('tariff', tariffPerKilowattHour);
  return yearlyKilowattHours(watts) * tariffPerKilowattHour;
}

/**
 * Charge a constant draw takes from a store each day: (W/η + W_idle)·24/V.
 * @param watts draw at the mains side of the inverter, W
 * @param storeVolts 12 or 24 V
 * @param inverterEfficiency 0…1
 * @param inverterIdleWatts what the inverter takes for itself, W
 * @returns Ah a day
 */
export function ampHoursADay(
  watts: number,
  storeVolts: number,
  inverterEfficiency: number,
  inverterIdleWatts: number,
): number {
  if (!(inverterEfficiency > 0 && inverterEfficiency <= 1))
    throw new RangeError('Inverter efficiency is above 0 and at most 1.');
  if (!(storeVolts > 0)) throw new RangeError('The store has a voltage above zero.');
  return ((watts / inverterEfficiency + inverterIdleWatts) * 24) / storeVolts;
}

interface IdleRun {
  readonly watts: Measured;
  readonly pointId: string;
  readonly findings: readonly string[];
}

/** Mean power of one idle point: energy ÷ time when both are there, else the power read. */
function idleRun(point: Point): IdleRun | undefined {
  const energy = readingAt(point, 'energy', 'mains');
  const duration = readingAt(point, 'duration', 'mains');
  const power = readingAt(point, 'power', 'mains');
  if (energy && duration && (duration.value ?? 0) > 0) {
    const short = (duration.value ?? 0) < SHORTEST_IDLE;
    return {
      watts: ratio(asMeasured(energy), asMeasured(duration)),
      pointId: point.id,
      findings: short
        ? [`Averaged over ${formatPlain(duration.value ?? 0, 'duration')}; bursts need 10 min or more.`]
        : [],
    };
  }
  if (!power) return undefined;
  return {
    watts: asMeasured(power),
    pointId: point.id,
    findings:
      power.count > 1 ? [] : ['Read at one moment; idle comes in bursts. Energy over 10 min or more is better.'],
  };
}

/**
 * Idle draw per mains and attachment from all unloaded points. Repeats are combined.
 * @param floorOf the floor of the power meter on a rig, W; 0 when it has none
 */
export function idleResults(points: readonly Point[], floorOf: (rigId: string) => number): readonly IdleResult[] {
  const groups = new Map<string, { point: Point; run: IdleRun }[]>();
  for (const point of points) {
    if (point.load !== 0) continue;
    const run = idleRun(point);
    if (!run) continue;
    const key = `${mainsLabel(point.mains)}|${point.attached}`;
    groups.set(key, [...(groups.get(key) ?? []), { point, run }]);
  }
  return [...groups.values()].flatMap((group) => {
    const first = group[0]?.point;
    if (!first) return [];
    const watts = combineRepeats(group.map(({ run }) => run.watts));
    const floor = Math.max(...group.map(({ point }) => floorOf(point.rigId)));
    const implausible =
      first.attached === 'nothing' && watts.value > IMPLAUSIBLE_IDLE
        ? [`${formatPlain(watts.value, 'power')} with nothing attached: check the meter, or is something plugged in?`]
        : [];
    return [
      {
        mains: first.mains,
        attached: first.attached,
        watts,
        below: watts.value < floor ? floor : null,
        runs: group.length,
        pointIds: group.map(({ point }) => point.id),
        findings: [...new Set(group.flatMap(({ run }) => run.findings))],
        doubts: implausible,
      },
    ];
  });
}
