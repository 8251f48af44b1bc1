// What a device run says, and what held it back: the device, the cable, its battery, or the charger.

import type { Interval } from '../decision/index.ts';
import type { Bound } from '../evidence/index.ts';
import { formatInterval, formatPlain } from '../quantity/index.ts';
import type { Ceiling, Device, DeviceRun } from '../run/index.ts';

/** Less than this charges nothing, W. */
const LEAST_CHARGING = 0.25;

/** Shortest time after which a device's draw counts as settled, s. */
export const SETTLE_SECONDS = 180;

export interface DeviceSummary {
  readonly run: DeviceRun;
  readonly device: Device | null;
  readonly sentence: string;
  /** What limited it, as far as can be told. */
  readonly limiter: string;
  readonly notes: readonly string[];
}

const ceilingOf = (device: Device, run: DeviceRun): Ceiling | undefined =>
  device.ceilings.find(({ connector, lead }) => connector === run.connector && lead === run.lead);

/** A device this warm takes less of its own accord, K. */
const WARM = 313.15;

/**
 * What limited a run, the most certain first: what is seen of the device, then what the port has, then what the lead carries.
 * @param most W the port offers at most; null where nothing tells
 */
function limiterOf(run: DeviceRun, device: Device | null, most: number | null): string {
  const ceiling = device ? ceilingOf(device, run) : undefined;
  if (run.charge !== null && run.charge >= 0.8)
    return `At ${formatPlain(run.charge, 'efficiency')} a battery takes less and less: the device limits.`;
  if (!device || !ceiling) return 'Its ceiling over this lead is not on record, so the limit is not known.';
  if (run.place === 'port' && run.watts >= ceiling.watts * 0.93)
    return ceiling.watts < 0.93 * Math.max(...device.ceilings.map(({ watts }) => watts))
      ? `It takes ${formatPlain(ceiling.watts, 'power')} at most over this lead and more over another: the cable limits.`
      : `It takes ${formatPlain(ceiling.watts, 'power')} at most over this lead: the device limits.`;
  if (run.place === 'port' && most !== null && run.watts >= most * 0.9 && run.watts <= most * 1.05)
    return `${run.port} offers ${formatPlain(Number(most.toPrecision(3)), 'power')} at most: the charger limits.`;
  if (run.warmth != null && run.warmth >= WARM && run.watts < ceiling.watts * 0.9)
    return `The device is at ${formatPlain(run.warmth, 'temperature')}: its own heat may limit.`;
  if (ceiling.volts !== null && run.volts !== null && run.volts < ceiling.volts * 0.93)
    return `It wants ${formatPlain(ceiling.volts, 'voltage')} for its full ${formatPlain(ceiling.watts, 'power')} and got ${formatPlain(run.volts, 'voltage')}: the charger or the cable limits.`;
  if (device.baseline !== null && run.place === 'port' && run.watts < device.baseline * 0.9)
    return `Alone on a strong charger it took ${formatPlain(device.baseline, 'power')}: the charger, the cable or the workload limits.`;
  return 'Nothing here tells what limits it.';
}

/**
 * A device run in words.
 * @param wall what the socket says, where only the socket was read
 * @param offered levels the port says it has, V; null when nothing tells
 */
export function deviceSummary(
  run: DeviceRun,
  device: Device | null,
  wall: Bound | null,
  offered: readonly Interval[] | null = null,
  /** W the port offers at most; null where nothing tells. */
  offeredWatts: number | null = null,
): DeviceSummary {
  const who = device?.name ?? 'The device';
  const took = wall
    ? wall.unstated.length > 0
      ? 'took what a meter of unknown accuracy at the socket cannot tell'
      : `took ${formatInterval(wall.low, wall.high, 'power', 1)} by the socket and ${wall.assumed ? `an assumed efficiency of ${Math.round(wall.assumed.low * 100)}…${Math.round(wall.assumed.high * 100)} %` : 'this sample’s efficiency'}`
    : `took ${formatPlain(run.watts, 'power')}${run.volts ? ` at ${formatPlain(run.volts, 'voltage')}` : ''}`;
  const share =
    device?.baseline && !wall
      ? ` That is ${Math.round((run.watts / device.baseline) * 100)} % of what it took alone on a strong charger.`
      : '';
  const strange =
    run.volts !== null &&
    offered !== null &&
    !offered.some(({ low, high }) => (run.volts ?? 0) >= low * 0.93 && (run.volts ?? 0) <= high * 1.07);
  const most = Math.max(0, ...(offered ?? []).map(({ high }) => high));
  const notes = [
    ...(strange
      ? [
          `${formatPlain(run.volts ?? 0, 'voltage')} is a level ${run.port} did not offer; ${formatPlain(most, 'voltage')} is its highest by the read-out. Which is right?`,
        ]
      : []),
    ...(run.settled < SETTLE_SECONDS
      ? [
          `Read after ${formatPlain(run.settled, 'duration', 's')}: ${formatPlain(SETTLE_SECONDS, 'duration', 'min')} are the least to settle.`,
        ]
      : []),
    ...(device && device.baseline === null ? ['No baseline alone: run it once on a charger known to be strong.'] : []),
    ...(run.peak != null && run.mean != null
      ? [
          `Peak ${formatPlain(Number(run.peak.toPrecision(3)), 'power')}, mean ${formatPlain(Number(run.mean.toPrecision(3)), 'power')}${run.spread == null ? '' : `, spread ${formatPlain(Number(run.spread.toPrecision(2)), 'power')}`}; the plateau counts.`,
        ]
      : []),
    ...(run.outcome === 'charging' && run.watts < LEAST_CHARGING
      ? ['Next to nothing flows and it says it charges: asleep, full, or a meter that hung after hot-plugging?']
      : []),
    ...(run.message ? [`It says: “${run.message}”. Kept as said.`] : []),
  ];
  return {
    run,
    device,
    sentence: `${who} on ${run.port}, ${run.workload}: ${took}, ${run.outcome}.${share}`,
    limiter: limiterOf(run, device, offeredWatts),
    notes,
  };
}
