// Which device into which port: every arrangement is tried, so the best one is the best there is.
import type { DeviceLead, PlugDevice } from './devices.ts';
import { stateKey } from './types.ts';

/** A charger as an arrangement sees it. */
export interface PlugPort {
  readonly label: string;
  /** Voltages it offers alone, V. */
  readonly volts: readonly number[];
  /** What fits into it; left out where nobody said. */
  readonly connector?: 'C' | 'A' | undefined;
}

export interface PlugCharger {
  readonly ports: readonly PlugPort[];
  /** W each port of a set gives; null where nothing says. */
  readonly shares: (occupied: readonly string[]) => Readonly<Record<string, number | null>>;
  /** Ports that drop out when something is plugged into a cause. */
  readonly drops: (port: string, cause: string) => boolean;
  /** Whether anyone watched a port while something was plugged into a cause; left out where all were. */
  readonly watched?: (port: string, cause: string) => boolean;
  /** Whether a set itself was read, rather than filled in by a rule; left out where all were. */
  readonly read?: (occupied: readonly string[]) => boolean;
}

/** Port by device id. */
export type Arrangement = Readonly<Record<string, string>>;

export interface PlugScore {
  /** Devices that must stay on and do: enough power, the level they need, never interrupted. */
  readonly kept: number;
  /** Devices that must stay on and do not. */
  readonly lost: number;
  /** Devices that must stay on and nobody knows: their share or an interruption was never tested. */
  readonly open: number;
  /** Devices that must stay on and are known to be interrupted; left out for none. */
  readonly dropped?: number;
  /** Demand that is met with everything plugged in, W. */
  readonly watts: number;
  /** Times a running device is interrupted by one that comes later. */
  readonly breaks: number;
}

export interface Ranked {
  readonly arrangement: Arrangement;
  readonly score: PlugScore;
  /** Met and wanted per device, W; met is null where nothing says what its port gives. */
  readonly met: Readonly<Record<string, { readonly watts: number | null; readonly wanted: number }>>;
  /** The lead each device is plugged in with, where there is a choice; null where none fits. */
  readonly leads: Readonly<Record<string, string | null>>;
  /** Sets to read before this is known, largest first. */
  readonly measureFirst: readonly (readonly string[])[];
}

/** The most devices and ports that are tried exactly. */
export const MOST_EXACT = 8;
/** Without the level it wants a device still charges at 5 V, with this at most, W. */
const AT_FIVE_VOLTS = 15;
/** A device that gets this part of its demand counts as satisfied. */
const ENOUGH = 0.95;

/** The lead a device takes into a port: the one that carries most of those that fit. Null when none fits. */
export function leadFor(
  { leads, watts, volts }: Pick<PlugDevice, 'leads' | 'watts' | 'volts'>,
  { connector }: Pick<PlugPort, 'connector'>,
): DeviceLead | null {
  if (!leads || leads.length === 0 || connector === undefined) return { name: '', fits: null, watts, volts };
  const fitting = leads.filter(({ fits }) => fits === null || fits === connector);
  return fitting.reduce<DeviceLead | null>((best, one) => (best && best.watts >= one.watts ? best : one), null);
}

const hasLevel = ({ volts }: PlugPort, wanted: number | null): boolean =>
  wanted === null || volts.some((one) => Math.abs(one - wanted) <= 0.06 * wanted || one > wanted);

/**
 * Most a device takes from a port that gives a share, W: limited by the share, by the lead that fits, and by 5 V where
 * the port has not the level the device wants. Advice and evening both go by it.
 * @returns null where nothing says what the port gives; 0 where no lead fits
 */
export function granted(device: PlugDevice, port: PlugPort, share: number | null): number | null {
  const lead = leadFor(device, port);
  if (!lead) return 0;
  if (share === null) return null;
  return Math.min(lead.watts, share, hasLevel(port, lead.volts) ? Number.POSITIVE_INFINITY : AT_FIVE_VOLTS);
}

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
  const read = charger.read?.(occupied) ?? true;
  let kept = 0;
  let lost = 0;
  let open = 0;
  let dropped = 0;
  let breaks = 0;
  let total = 0;
  const met: Record<string, { watts: number | null; wanted: number }> = {};
  const leads: Record<string, string | null> = {};
  const first = new Map<string, readonly string[]>();
  const ask = (set: readonly string[]) => first.set(stateKey(set), set);
  for (const device of devices) {
    const port = charger.ports.find(({ label }) => label === arrangement[device.id]);
    const share = port ? (shares[port.label] ?? null) : 0;
    const watts = port ? granted(device, port, share) : 0;
    const later = port ? placed.filter((other) => other.comes > device.comes) : [];
    const causes = later.map((other) => arrangement[other.id] ?? '');
    const broken = port ? causes.filter((cause) => charger.drops(port.label, cause)).length : 0;
    const unseen = port ? causes.filter((cause) => charger.watched && !charger.watched(port.label, cause)) : [];
    const lead = port && leadFor(device, port);
    if (lead === null) leads[device.id] = null;
    else if (lead && lead.name !== '') leads[device.id] = lead.name;
    met[device.id] = { watts, wanted: device.watts };
    total += watts ?? 0;
    breaks += broken;
    if (share === null || !read) ask(occupied);
    if (!device.staysOn) continue;
    if (port)
      for (const cause of unseen)
        ask(charger.ports.map(({ label }) => label).filter((one) => one === port.label || one === cause));
    if (broken > 0) dropped += 1;
    if ((watts !== null && watts < device.watts * ENOUGH) || broken > 0) lost += 1;
    else if (watts === null || !read || unseen.length > 0) open += 1;
    else kept += 1;
  }
  const measureFirst = [...first.values()].sort((a, b) => b.length - a.length);
  return { arrangement, score: { kept, lost, open, dropped, watts: total, breaks }, met, leads, measureFirst };
}

/** Positive when a is better: what surely stays on first, then what is surely interrupted, then watts, then fewer breaks. */
export function compareScores(a: PlugScore, b: PlugScore): number {
  if (a.kept !== b.kept) return a.kept - b.kept;
  const [mine, theirs] = [a.dropped ?? 0, b.dropped ?? 0];
  if (mine !== theirs) return theirs - mine;
  if (Math.abs(a.watts - b.watts) > 0.5) return a.watts - b.watts;
  return b.breaks - a.breaks;
}

/** How many devices can be plugged in at once, each into a port it fits (Berge, 1957: augmenting paths). */
function mostPlugged(fits: readonly (readonly boolean[])[], ports: number): number {
  const holder = new Array<number>(ports).fill(-1);
  const seat = (device: number, tried: boolean[]): boolean => {
    for (let port = 0; port < ports; port += 1) {
      if (!fits[device]?.[port] || tried[port]) continue;
      tried[port] = true;
      const before = holder[port] ?? -1;
      if (before >= 0 && !seat(before, tried)) continue;
      holder[port] = device;
      return true;
    }
    return false;
  };
  return fits.filter((_, device) => seat(device, new Array<boolean>(ports).fill(false))).length;
}

/**
 * Call with every way to place devices on ports they fit, no more of them waiting than must: the port's index by device,
 * -1 for one that waits. The list is one and the same each time.
 */
function eachPlacing(
  fits: readonly (readonly boolean[])[],
  ports: number,
  visit: (placing: readonly number[]) => void,
): void {
  const devices = fits.length;
  const placing = new Array<number>(devices).fill(-1);
  const taken = new Array<boolean>(ports).fill(false);
  const place = (device: number, waiting: number) => {
    if (device === devices) {
      visit(placing);
      return;
    }
    for (let port = 0; port < ports; port += 1) {
      if (taken[port] || !fits[device]?.[port]) continue;
      taken[port] = true;
      placing[device] = port;
      place(device + 1, waiting);
      taken[port] = false;
    }
    placing[device] = -1;
    if (waiting > 0) place(device + 1, waiting - 1);
  };
  place(0, devices - mostPlugged(fits, ports));
}

/** Scores placings by numbers alone, the same as {@link judgeArrangement} does in full. */
function quickScore(charger: PlugCharger, devices: readonly PlugDevice[]): (placing: readonly number[]) => PlugScore {
  const labels = charger.ports.map(({ label }) => label);
  const drops = labels.map((port) => labels.map((cause) => charger.drops(port, cause)));
  const watched = labels.map((port) => labels.map((cause) => charger.watched?.(port, cause) ?? true));
  const known = new Map<number, { readonly shares: readonly (number | null)[]; readonly read: boolean }>();
  const setOf = (mask: number) => {
    const found = known.get(mask);
    if (found) return found;
    const occupied = labels.filter((_, index) => (mask >> index) & 1);
    const given = charger.shares(occupied);
    const made = { shares: labels.map((label) => given[label] ?? null), read: charger.read?.(occupied) ?? true };
    known.set(mask, made);
    return made;
  };
  /** Most each device can take from each port, whatever the share. */
  const most = devices.map((device) =>
    charger.ports.map((port) => granted(device, port, Number.POSITIVE_INFINITY) ?? 0),
  );
  return (placing) => {
    let mask = 0;
    for (const port of placing) if (port >= 0) mask |= 1 << port;
    const { shares, read } = setOf(mask);
    const score = { kept: 0, lost: 0, open: 0, dropped: 0, watts: 0, breaks: 0 };
    for (let index = 0; index < devices.length; index += 1) {
      const device = devices[index] as PlugDevice;
      const port = placing[index] ?? -1;
      let got: number | null = 0;
      let broken = 0;
      let unseen = false;
      if (port >= 0) {
        const share = shares[port] ?? null;
        const top = most[index]?.[port] ?? 0;
        got = top === 0 ? 0 : share === null ? null : Math.min(top, share);
        for (let other = 0; other < devices.length; other += 1) {
          const cause = placing[other] ?? -1;
          if (cause < 0 || (devices[other] as PlugDevice).comes <= device.comes) continue;
          if (drops[port]?.[cause]) broken += 1;
          if (!watched[port]?.[cause]) unseen = true;
        }
      }
      score.watts += got ?? 0;
      score.breaks += broken;
      if (!device.staysOn) continue;
      if (broken > 0) score.dropped += 1;
      if ((got !== null && got < device.watts * ENOUGH) || broken > 0) score.lost += 1;
      else if (got === null || !read || unseen) score.open += 1;
      else score.kept += 1;
    }
    return score;
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
  if (best.score.kept > next.score.kept)
    return best.score.lost < next.score.lost
      ? 'Otherwise something that must stay on would not.'
      : 'Otherwise what must stay on would hang on something nobody tested.';
  if ((best.score.dropped ?? 0) < (next.score.dropped ?? 0)) return 'Otherwise something that must stay on would not.';
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
  const fits = devices.map((device) => charger.ports.map((port) => leadFor(device, port) !== null));
  eachPlacing(fits, labels.length, (placing) => {
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
