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

/**
 * Call with every way to place devices on ports: the port's index by device, -1 for one that waits. The list is one and
 * the same each time.
 */
function eachPlacing(devices: number, ports: number, visit: (placing: readonly number[]) => void): void {
  const placing = new Array<number>(devices).fill(-1);
  const taken = new Array<boolean>(ports).fill(false);
  const place = (device: number, waiting: number) => {
    if (device === devices) {
      visit(placing);
      return;
    }
    for (let port = 0; port < ports; port += 1) {
      if (taken[port]) continue;
      taken[port] = true;
      placing[device] = port;
      place(device + 1, waiting);
      taken[port] = false;
    }
    placing[device] = -1;
    if (waiting > 0) place(device + 1, waiting - 1);
  };
  place(0, Math.max(0, devices - ports));
}

/** Scores placings by numbers alone, the same as {@link judgeArrangement} does in full. */
function quickScore(charger: PlugCharger, devices: readonly PlugDevice[]): (placing: readonly number[]) => PlugScore {
  const labels = charger.ports.map(({ label }) => label);
  const drops = labels.map((port) => labels.map((cause) => charger.drops(port, cause)));
  const level = devices.map((device) => charger.ports.map((port) => hasLevel(port, device)));
  const known = new Map<number, readonly number[]>();
  const sharesOf = (mask: number): readonly number[] => {
    const found = known.get(mask);
    if (found) return found;
    const given = charger.shares(labels.filter((_, index) => (mask >> index) & 1));
    const made = labels.map((label) => given[label] ?? 0);
    known.set(mask, made);
    return made;
  };
  return (placing) => {
    let mask = 0;
    for (const port of placing) if (port >= 0) mask |= 1 << port;
    const shares = sharesOf(mask);
    let kept = 0;
    let lost = 0;
    let watts = 0;
    let breaks = 0;
    for (let index = 0; index < devices.length; index += 1) {
      const device = devices[index] as PlugDevice;
      const port = placing[index] ?? -1;
      let got = 0;
      let broken = 0;
      if (port >= 0) {
        const share = shares[port] ?? 0;
        got = Math.min(device.watts, level[index]?.[port] ? share : Math.min(AT_FIVE_VOLTS, share));
        for (let other = 0; other < devices.length; other += 1) {
          const cause = placing[other] ?? -1;
          if (cause >= 0 && drops[port]?.[cause] && (devices[other] as PlugDevice).comes > device.comes) broken += 1;
        }
      }
      watts += got;
      breaks += broken;
      if (!device.staysOn) continue;
      if (got >= device.watts * ENOUGH && broken === 0) kept += 1;
      else lost += 1;
    }
    return { kept, lost, watts, breaks };
  };
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
  const labels = charger.ports.map(({ label }) => label);
  const score = quickScore(charger, devices);
  const full = (placing: readonly number[]): Ranked =>
    judgeArrangement(
      charger,
      devices,
      Object.fromEntries(
        devices.flatMap(({ id }, index) => {
          const label = labels[placing[index] ?? -1];
          return label === undefined ? [] : [[id, label]];
        }),
      ),
    );
  let best: Ranked | null = null;
  let next: Ranked | null = null;
  let tried = 0;
  const same = (a: Ranked, b: Ranked) =>
    devices.every(({ id }) => Math.abs((a.met[id]?.watts ?? 0) - (b.met[id]?.watts ?? 0)) < 0.5);
  eachPlacing(devices.length, labels.length, (placing) => {
    tried += 1;
    const quick = score(placing);
    if (!best || compareScores(quick, best.score) > 0) {
      if (best) next = best;
      best = full(placing);
      return;
    }
    if (next && compareScores(quick, next.score) <= 0) return;
    const ranked = full(placing);
    if (compareScores(quick, best.score) < 0 || !same(ranked, best)) next = ranked;
  });
  const found = best as Ranked | null;
  if (!found) throw new RangeError('There is no port to plug into.');
  return { best: found, runnerUp: next, tried, why: whyBetter(found, next, devices) };
}
