// Which devices on which of several chargers, and into which port: exact, by dynamic programming over sets of devices.
import { type Arrangement, granted, judgeArrangement, leadFor, type PlugCharger, type Ranked } from './assign.ts';
import { demandAt, levelAfter, type PlugDevice } from './devices.ts';

export interface PlugStation {
  readonly id: string;
  /** kg; left out or null where not known. */
  readonly mass?: number | null | undefined;
  readonly charger: PlugCharger;
}

export interface SeveralAdvice {
  /** Each charger in the order given, with what is plugged into it; the arrangement is empty for one that is not needed. */
  readonly chargers: readonly { readonly id: string; readonly arrangement: Arrangement; readonly ranked: Ranked }[];
  /** Devices that wait. */
  readonly waiting: readonly string[];
  readonly score: SeveralScore;
  /** No arrangement is better; else `bound` says how much better one could be at most. */
  readonly exact: boolean;
  readonly bound: SeveralScore;
}

export interface SeveralScore {
  /** Devices that must stay on and surely do. */
  readonly kept: number;
  /** Devices that have the level they need by the time they need it. */
  readonly needs: number;
  readonly plugged: number;
  /** Demand that is met with everything plugged in, W. */
  readonly watts: number;
}

/** The most chargers that are tried, and the most devices exactly; more of them are put where there is room left. */
export const MOST_CHARGERS = 6;
export const MOST_TOGETHER = 10;
export const MOST_DEVICES = 20;

const ENOUGH = 0.95;
const STEP_SECONDS = 60;
/** One number for the order of what counts: stays on, keeps its time, is plugged in, watts. Each is above all that come after. */
const WEIGHTS = { kept: 1e9, needs: 1e7, plugged: 1e5, watts: 1 } as const;
const NEVER = Number.NEGATIVE_INFINITY;

const worth = ({ kept, needs, plugged, watts }: SeveralScore): number =>
  kept * WEIGHTS.kept + needs * WEIGHTS.needs + plugged * WEIGHTS.plugged + watts * WEIGHTS.watts;

/** Whether a device that takes up to so much has the level it needs in time. */
export function keepsItsTime(device: PlugDevice, watts: number): boolean {
  const { needs, battery, comes } = device;
  if (!needs) return false;
  if (battery === null) return watts >= device.watts * ENOUGH;
  let level = device.level;
  for (let at = comes; at < needs.by && level < needs.level; at += STEP_SECONDS)
    level = levelAfter(battery, level, Math.min(watts, demandAt(device, level)), Math.min(STEP_SECONDS, needs.by - at));
  return level >= needs.level - 1e-9;
}

const bits = (mask: number): number => {
  let count = 0;
  for (let rest = mask; rest; rest &= rest - 1) count += 1;
  return count;
};

interface Best {
  /** Worth of the best way to plug exactly these devices into the charger, by set of devices. */
  readonly values: Float64Array;
  /** The placing behind it: port by device, −1 for none. */
  readonly placing: (devices: number) => readonly number[];
}

/** What one device brings in one port, the set of occupied ports given; what the others do does not matter. */
function alone(charger: PlugCharger, devices: readonly PlugDevice[], mask: number): readonly Float64Array[] {
  const labels = charger.ports.map(({ label }) => label);
  const occupied = labels.filter((_, at) => (mask >> at) & 1);
  const shares = charger.shares(occupied);
  const read = charger.read?.(occupied) ?? true;
  return charger.ports.map((port, at) =>
    Float64Array.from(devices, (device) => {
      if (!((mask >> at) & 1) || leadFor(device, port) === null) return NEVER;
      const got = granted(device, port, shares[port.label] ?? null);
      const kept = device.staysOn && got !== null && read && got >= device.watts * ENOUGH ? 1 : 0;
      const needs = got !== null && keepsItsTime(device, got) ? 1 : 0;
      return worth({ kept, needs, plugged: 1, watts: got ?? 0 });
    }),
  );
}

/** Pairs of ports of which one may drop out, or was never watched, when something is plugged into the other. */
function uneasy(charger: PlugCharger): boolean {
  const labels = charger.ports.map(({ label }) => label);
  return labels.some((port) =>
    labels.some((cause) => port !== cause && (charger.drops(port, cause) || charger.watched?.(port, cause) === false)),
  );
}

/** Ports in order, each given one of the devices left: as many steps as there are sets, not as there are orders. */
function seats(
  values: readonly Float64Array[],
  mask: number,
  count: number,
  parents: Int8Array[] | null,
): Float64Array {
  let best = new Float64Array(1 << count).fill(NEVER);
  best[0] = 0;
  for (let port = 0; port < values.length; port += 1) {
    if (!((mask >> port) & 1)) continue;
    const own = values[port] as Float64Array;
    const next = new Float64Array(1 << count).fill(NEVER);
    const parent = parents ? new Int8Array(1 << count).fill(-1) : null;
    for (let set = 0; set < best.length; set += 1) {
      const before = best[set] as number;
      if (before === NEVER) continue;
      for (let device = 0; device < count; device += 1) {
        if ((set >> device) & 1) continue;
        const value = before + (own[device] as number);
        const with1 = set | (1 << device);
        if (value <= (next[with1] as number)) continue;
        next[with1] = value;
        if (parent) parent[with1] = device;
      }
    }
    best = next;
    if (parent) parents?.push(parent);
  }
  return best;
}

function easyBest(charger: PlugCharger, devices: readonly PlugDevice[]): Best {
  const count = devices.length;
  const values = new Float64Array(1 << count).fill(NEVER);
  const masks = new Int32Array(1 << count);
  values[0] = 0;
  for (let mask = 1; mask < 1 << charger.ports.length; mask += 1) {
    if (bits(mask) > count) continue;
    const found = seats(alone(charger, devices, mask), mask, count, null);
    for (let set = 1; set < found.length; set += 1)
      if ((found[set] as number) > (values[set] as number)) {
        values[set] = found[set] as number;
        masks[set] = mask;
      }
  }
  return {
    values,
    placing: (set) => {
      const placed = new Array<number>(count).fill(-1);
      const mask = masks[set] as number;
      const parents: Int8Array[] = [];
      seats(alone(charger, devices, mask), mask, count, parents);
      const ports = charger.ports.flatMap((_, at) => ((mask >> at) & 1 ? [at] : []));
      let rest = set;
      for (let at = ports.length - 1; at >= 0; at -= 1) {
        const device = parents[at]?.[rest] ?? -1;
        placed[device] = ports[at] as number;
        rest &= ~(1 << device);
      }
      return placed;
    },
  };
}

/** Where one may interrupt another, who comes when matters: every order is tried. */
function uneasyBest(charger: PlugCharger, devices: readonly PlugDevice[]): Best {
  const count = devices.length;
  const values = new Float64Array(1 << count).fill(NEVER);
  const placings = new Map<number, readonly number[]>();
  values[0] = 0;
  const labels = charger.ports.map(({ label }) => label);
  const drops = labels.map((port) => labels.map((cause) => charger.drops(port, cause)));
  const unseen = labels.map((port) => labels.map((cause) => charger.watched?.(port, cause) === false));
  for (let mask = 1; mask < 1 << labels.length; mask += 1) {
    if (bits(mask) > count) continue;
    const own = alone(charger, devices, mask);
    const ports = labels.flatMap((_, at) => ((mask >> at) & 1 ? [at] : []));
    const placed = new Array<number>(count).fill(-1);
    const place = (at: number, set: number, value: number) => {
      if (at === ports.length) {
        let total = value;
        for (let device = 0; device < count; device += 1) {
          const port = placed[device] as number;
          const it = devices[device] as PlugDevice;
          // Kept by its power, and lost to a later one.
          if (port < 0 || !it.staysOn || (own[port]?.[device] as number) < WEIGHTS.kept) continue;
          for (let other = 0; other < count; other += 1) {
            const cause = placed[other] as number;
            if (cause < 0 || (devices[other] as PlugDevice).comes <= it.comes) continue;
            if (!drops[port]?.[cause] && !unseen[port]?.[cause]) continue;
            total -= WEIGHTS.kept;
            break;
          }
        }
        if (total <= (values[set] as number)) return;
        values[set] = total;
        placings.set(set, [...placed]);
        return;
      }
      const port = ports[at] as number;
      for (let device = 0; device < count; device += 1) {
        const value1 = own[port]?.[device] as number;
        if ((set >> device) & 1 || value1 === NEVER) continue;
        placed[device] = port;
        place(at + 1, set | (1 << device), value + value1);
        placed[device] = -1;
      }
    };
    place(0, 0, 0);
  }
  return { values, placing: (set) => placings.get(set) ?? new Array<number>(count).fill(-1) };
}

/** Score of a worth, each part out of its place. */
function scoreOf(value: number): SeveralScore {
  const kept = Math.round(value / WEIGHTS.kept);
  let rest = value - kept * WEIGHTS.kept;
  const needs = Math.floor(rest / WEIGHTS.needs + 1e-9);
  rest -= needs * WEIGHTS.needs;
  const plugged = Math.floor(rest / WEIGHTS.plugged + 1e-9);
  return { kept, needs, plugged, watts: rest - plugged * WEIGHTS.plugged };
}

/** What each device would have alone at its best port anywhere: no arrangement gives more. */
function boundOf(stations: readonly PlugStation[], devices: readonly PlugDevice[]): SeveralScore {
  const seats = stations.reduce((sum, { charger }) => sum + charger.ports.length, 0);
  const best = devices.map((device) =>
    Math.max(
      0,
      ...stations.flatMap(({ charger }) =>
        charger.ports.map((port) => granted(device, port, charger.shares([port.label])[port.label] ?? null) ?? 0),
      ),
    ),
  );
  const most = [...best].sort((a, b) => b - a).slice(0, seats);
  return {
    kept: devices.filter(({ staysOn, watts }, at) => staysOn && (best[at] ?? 0) >= watts * ENOUGH).length,
    needs: devices.filter((device, at) => keepsItsTime(device, best[at] ?? 0)).length,
    plugged: Math.min(seats, devices.length),
    watts: most.reduce((sum, one) => sum + one, 0),
  };
}

const arrangementOf = (charger: PlugCharger, devices: readonly PlugDevice[], placing: readonly number[]): Arrangement =>
  Object.fromEntries(
    devices.flatMap(({ id }, index) => {
      const label = charger.ports[placing[index] ?? -1]?.label;
      return label === undefined ? [] : [[id, label]];
    }),
  );

/**
 * The best way to share devices among chargers: first what must stay on and surely does, then what is needed by a time, then
 * that as few as possible wait, then watts. Held and Karp's recursion over sets (SIAM J. 10 (1962) 196) for each charger, then
 * over the partitions of the devices; exact for up to ten devices. Of more, the ten that matter most are placed exactly and the
 * others one by one into what is left; `bound` says what no arrangement can exceed.
 * @throws RangeError beyond that, or without a charger
 */
export function adviseSeveral(stations: readonly PlugStation[], devices: readonly PlugDevice[]): SeveralAdvice {
  if (stations.length === 0) throw new RangeError('There is no charger to plug into.');
  if (stations.length > MOST_CHARGERS || devices.length > MOST_DEVICES)
    throw new RangeError(`Up to ${MOST_CHARGERS} chargers and ${MOST_DEVICES} devices are worked out.`);
  if (devices.length > MOST_TOGETHER) return adviseMany(stations, devices);
  const together = new Set(devices.map(({ comes }) => comes)).size <= 1;
  const best = stations.map(({ charger }) =>
    together || !uneasy(charger) ? easyBest(charger, devices) : uneasyBest(charger, devices),
  );
  const all = 1 << devices.length;
  /** Best of the first chargers by the set of devices plugged into them, and what of it goes into the last. */
  let values = new Float64Array(all).fill(NEVER);
  values[0] = 0;
  const chosen: Int32Array[] = [];
  for (const { values: own } of best) {
    const next = new Float64Array(all).fill(NEVER);
    const taken = new Int32Array(all);
    for (let set = 0; set < all; set += 1)
      for (let part = set; ; part = (part - 1) & set) {
        const value = (values[set & ~part] as number) + (own[part] as number);
        if (value > (next[set] as number)) {
          next[set] = value;
          taken[set] = part;
        }
        if (part === 0) break;
      }
    values = next;
    chosen.push(taken);
  }
  let set = 0;
  for (let one = 1; one < all; one += 1) if ((values[one] as number) > (values[set] as number)) set = one;
  const score = scoreOf(values[set] as number);
  const waiting = devices.filter((_, at) => !((set >> at) & 1)).map(({ id }) => id);
  const parts = new Array<number>(stations.length).fill(0);
  for (let at = stations.length - 1; at >= 0; at -= 1) {
    const part = chosen[at]?.[set] ?? 0;
    parts[at] = part;
    set &= ~part;
  }
  return {
    chargers: stations.map(({ id, charger }, at) => {
      const part = parts[at] as number;
      const own = devices.filter((_, index) => (part >> index) & 1);
      const arrangement = part === 0 ? {} : arrangementOf(charger, devices, best[at]?.placing(part) ?? []);
      return { id, arrangement, ranked: judgeArrangement(charger, own, arrangement) };
    }),
    waiting,
    score,
    exact: true,
    bound: boundOf(stations, devices),
  };
}

/** How a placing of each charger scores, all of it together. */
function scoreTogether(
  stations: readonly PlugStation[],
  devices: readonly PlugDevice[],
  arrangements: readonly Arrangement[],
): SeveralScore {
  const all = stations.map(({ charger }, at) => {
    const arrangement = arrangements[at] ?? {};
    const own = devices.filter(({ id }) => arrangement[id] !== undefined);
    const { score, met } = judgeArrangement(charger, own, arrangement);
    const needs = own.filter((device) => keepsItsTime(device, met[device.id]?.watts ?? 0)).length;
    return { kept: score.kept, needs, plugged: own.length, watts: score.watts };
  });
  const sum = (of: keyof SeveralScore) => all.reduce((total, one) => total + one[of], 0);
  return { kept: sum('kept'), needs: sum('needs'), plugged: sum('plugged'), watts: sum('watts') };
}

function adviseMany(stations: readonly PlugStation[], devices: readonly PlugDevice[]): SeveralAdvice {
  const matters = ({ staysOn, needs, watts }: PlugDevice) =>
    Number(staysOn) * 1e6 + Number(Boolean(needs)) * 1e4 + watts;
  const sorted = [...devices].sort((a, b) => matters(b) - matters(a));
  const first = adviseSeveral(stations, sorted.slice(0, MOST_TOGETHER));
  const arrangements = first.chargers.map(({ arrangement }) => ({ ...arrangement }) as Record<string, string>);
  for (const device of [...sorted.filter(({ id }) => first.waiting.includes(id)), ...sorted.slice(MOST_TOGETHER)]) {
    let best: { at: number; label: string; value: number } | null = null;
    for (const [at, { charger }] of stations.entries())
      for (const port of charger.ports) {
        const own = arrangements[at] as Record<string, string>;
        if (Object.values(own).includes(port.label) || leadFor(device, port) === null) continue;
        const tried = arrangements.map((one, index) => (index === at ? { ...one, [device.id]: port.label } : one));
        const value = worth(scoreTogether(stations, devices, tried));
        if (!best || value > best.value) best = { at, label: port.label, value };
      }
    // Where it would cost more than it brings, it waits.
    if (best && best.value > worth(scoreTogether(stations, devices, arrangements)))
      (arrangements[best.at] as Record<string, string>)[device.id] = best.label;
  }
  const placed = new Set(arrangements.flatMap((one) => Object.keys(one)));
  return {
    chargers: stations.map(({ id, charger }, at) => {
      const arrangement = arrangements[at] ?? {};
      return {
        id,
        arrangement,
        ranked: judgeArrangement(
          charger,
          devices.filter((one) => arrangement[one.id] !== undefined),
          arrangement,
        ),
      };
    }),
    waiting: devices.filter(({ id }) => !placed.has(id)).map(({ id }) => id),
    score: scoreTogether(stations, devices, arrangements),
    exact: false,
    bound: boundOf(stations, devices),
  };
}

/** Chargers that would do, with what they weigh together and what all of them weigh, kg; null where one is not known. */
export interface Fewer {
  readonly ids: readonly string[];
  readonly mass: number | null;
  readonly ofMass: number | null;
}

const massOf = (stations: readonly PlugStation[]): number | null =>
  stations.reduce<number | null>((sum, { mass }) => (sum === null || mass == null ? null : sum + mass), 0);

/**
 * Chargers that would do as well as all of them: the smallest sets that keep on what stays on, keep the times, leave nobody
 * waiting more, and give at least this part of the watts.
 */
export function wouldDo(
  stations: readonly PlugStation[],
  devices: readonly PlugDevice[],
  part = 0.98,
): readonly Fewer[] {
  const whole = adviseSeveral(stations, devices).score;
  const sets = Array.from({ length: (1 << stations.length) - 2 }, (_, at) =>
    stations.filter((_station, index) => ((at + 1) >> index) & 1),
  ).sort((a, b) => a.length - b.length);
  const good: (readonly PlugStation[])[] = [];
  for (const own of sets) {
    if (good.some((less) => less.every((one) => own.includes(one)))) continue;
    const { kept, needs, plugged, watts } = adviseSeveral(own, devices).score;
    if (kept >= whole.kept && needs >= whole.needs && plugged >= whole.plugged && watts >= part * whole.watts)
      good.push(own);
  }
  return good.map((own) => ({ ids: own.map(({ id }) => id), mass: massOf(own), ofMass: massOf(stations) }));
}
