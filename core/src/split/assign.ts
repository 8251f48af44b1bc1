// Which device into which port: every arrangement is tried, so the best one is the best there is.
import type { PlugDevice } from './devices.ts';

/** A charger as an arrangement sees it. */
export interface PlugPort {
  readonly label: string;
  /** Voltages it offers alone, V. */
  readonly volts: readonly number[];
}

export interface PlugCharger {
  readonly ports: readonly PlugPort[];
  /** W each port of a set gives; null where nothing says. */
  readonly shares: (occupied: readonly string[]) => Readonly<Record<string, number | null>>;
  /** Ports that drop out when something is plugged into a cause. */
  readonly drops: (port: string, cause: string) => boolean;
}

/** Port by device id. */
export type Arrangement = Readonly<Record<string, string>>;

export interface PlugScore {
  /** Devices that must stay on and do: enough power, the level they need, never interrupted. */
  readonly kept: number;
  /** Devices that must stay on and do not. */
  readonly lost: number;
  /** Demand that is met with everything plugged in, W. */
  readonly watts: number;
  /** Times a running device is interrupted by one that comes later. */
  readonly breaks: number;
}

export interface Ranked {
  readonly arrangement: Arrangement;
  readonly score: PlugScore;
  /** Met and wanted per device, W. */
  readonly met: Readonly<Record<string, { readonly watts: number; readonly wanted: number }>>;
}

/** The most devices and ports that are tried exactly. */
export const MOST_EXACT = 8;
/** Without the level it wants a device still charges at 5 V, with this at most, W. */
const AT_FIVE_VOLTS = 15;
/** A device that gets this part of its demand counts as satisfied. */
const ENOUGH = 0.95;

const hasLevel = ({ volts }: PlugPort, { volts: wanted }: PlugDevice): boolean =>
  wanted === null || volts.some((one) => Math.abs(one - wanted) <= 0.06 * wanted || one > wanted);

/** What an arrangement gives each device with everything plugged in. */
export function judgeArrangement(
  charger: PlugCharger,
  devices: readonly PlugDevice[],
  arrangement: Arrangement,
): Ranked {
  const placed = devices.filter(({ id }) => arrangement[id] !== undefined);
  const occupied = charger.ports
    .map(({ label }) => label)
    .filter((label) => placed.some(({ id }) => arrangement[id] === label));
  const shares = charger.shares(occupied);
  const portOf = (device: PlugDevice) => charger.ports.find(({ label }) => label === arrangement[device.id]);
  let kept = 0;
  let lost = 0;
  let breaks = 0;
  let total = 0;
  const met: Record<string, { watts: number; wanted: number }> = {};
  for (const device of devices) {
    const port = portOf(device);
    const share = port ? (shares[port.label] ?? 0) : 0;
    const most = port && !hasLevel(port, device) ? Math.min(AT_FIVE_VOLTS, share) : share;
    const watts = Math.min(device.watts, most);
    const broken = port
      ? placed.filter((other) => other.comes > device.comes && charger.drops(port.label, arrangement[other.id] ?? ''))
          .length
      : 0;
    met[device.id] = { watts, wanted: device.watts };
    total += watts;
    breaks += broken;
    if (!device.staysOn) continue;
    if (watts >= device.watts * ENOUGH && broken === 0) kept += 1;
    else lost += 1;
  }
  return { arrangement, score: { kept, lost, watts: total, breaks }, met };
}

/** Positive when a is better: what must stay on first, then watts, then fewer breaks. */
export function compareScores(a: PlugScore, b: PlugScore): number {
  if (a.lost !== b.lost) return b.lost - a.lost;
  if (Math.abs(a.watts - b.watts) > 0.5) return a.watts - b.watts;
  return b.breaks - a.breaks;
}

/** Every way to place devices on ports, each device on one port of its own; with more devices than ports some wait. */
function* arrangements(devices: readonly PlugDevice[], ports: readonly string[]): Generator<Arrangement> {
  const chosen: Record<string, string> = {};
  const taken = new Set<string>();
  const waiting = Math.max(0, devices.length - ports.length);
  function* place(index: number, left: number): Generator<Arrangement> {
    const device = devices[index];
    if (!device) {
      yield { ...chosen };
      return;
    }
    for (const port of ports) {
      if (taken.has(port)) continue;
      taken.add(port);
      chosen[device.id] = port;
      yield* place(index + 1, left);
      taken.delete(port);
      delete chosen[device.id];
    }
    if (left > 0) yield* place(index + 1, left - 1);
  }
  yield* place(0, waiting);
}

export interface Advice {
  readonly best: Ranked;
  /** The next best that differs in what someone gets; null when there is none. */
  readonly runnerUp: Ranked | null;
  readonly tried: number;
  /** Why the best is better than the next. */
  readonly why: string;
}

function whyBetter(best: Ranked, next: Ranked | null, devices: readonly PlugDevice[]): string {
  if (!next) return 'Every other arrangement gives everyone the same or less.';
  const names = (of: (device: PlugDevice) => boolean) =>
    devices
      .filter(of)
      .map(({ name }) => name)
      .join(', ');
  if (best.score.lost < next.score.lost) return 'Otherwise something that must stay on would not.';
  const gains = names(({ id }) => (best.met[id]?.watts ?? 0) > (next.met[id]?.watts ?? 0) + 0.5);
  if (best.score.watts > next.score.watts + 0.5)
    return `${(best.score.watts - next.score.watts).toFixed(0)} W more in use${gains ? `: ${gains} gets more` : ''}.`;
  return best.score.breaks < next.score.breaks
    ? `${next.score.breaks - best.score.breaks} fewer interruptions while the others are plugged in.`
    : 'Both are as good; this one keeps the order of the ports.';
}

/** The best arrangement, exactly. @throws RangeError beyond {@link MOST_EXACT} devices or ports */
export function adviseArrangement(charger: PlugCharger, devices: readonly PlugDevice[]): Advice {
  if (devices.length > MOST_EXACT || charger.ports.length > MOST_EXACT)
    throw new RangeError(`Up to ${MOST_EXACT} devices and ports are tried exactly.`);
  // Shares depend on the set alone, and there are few sets.
  const known = new Map<string, Readonly<Record<string, number | null>>>();
  const fast: PlugCharger = {
    ...charger,
    shares: (occupied) => {
      const key = occupied.join();
      const found = known.get(key) ?? charger.shares(occupied);
      known.set(key, found);
      return found;
    },
  };
  let best: Ranked | null = null;
  let next: Ranked | null = null;
  let tried = 0;
  const same = (a: Ranked, b: Ranked) =>
    compareScores(a.score, b.score) === 0 &&
    devices.every(({ id }) => Math.abs((a.met[id]?.watts ?? 0) - (b.met[id]?.watts ?? 0)) < 0.5);
  for (const arrangement of arrangements(
    devices,
    charger.ports.map(({ label }) => label),
  )) {
    tried += 1;
    const ranked = judgeArrangement(fast, devices, arrangement);
    if (!best || compareScores(ranked.score, best.score) > 0) {
      if (best) next = best;
      best = ranked;
    } else if (!same(ranked, best) && (!next || compareScores(ranked.score, next.score) > 0)) next = ranked;
  }
  if (!best) throw new RangeError('There is no port to plug into.');
  return { best, runnerUp: next, tried, why: whyBetter(best, next, devices) };
}
