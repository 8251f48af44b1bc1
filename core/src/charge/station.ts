// Devices as a station: what each took at each port, and whole charges, compared where their levels overlap.
import { worstOf } from '../evidence/index.ts';
import { fixed, formatPlain } from '../quantity/index.ts';
import { type Mains, mainsLabel } from '../reading/index.ts';
import type { Device, DeviceRun } from '../run/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { type Compared, compareCharges, repeatsSay } from './compare.ts';
import type { ChargeSession } from './session.ts';
import { wholeMinutes } from './words.ts';

/** One charge as the station reads it. */
export interface ChargeRecord {
  readonly id: string;
  readonly kind: string;
  readonly mains: Mains;
  readonly port: string | null;
  readonly takenAt: string;
  readonly charge?:
    | {
        readonly deviceId: string;
        readonly lead: string;
        readonly workload?: DeviceRun['workload'] | null | undefined;
      }
    | null
    | undefined;
  readonly figures: { readonly kind: string };
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

export interface DevicesFacts {
  readonly sample: { readonly ports: readonly { readonly label: string }[] };
  readonly captures: readonly ChargeRecord[];
  readonly devices: readonly Device[];
}

interface DevicesNeeds {
  readonly proof: {
    readonly devices: readonly {
      readonly run: DeviceRun;
      readonly sentence: string;
      readonly limiter: string;
      readonly notes: readonly string[];
    }[];
  };
}

/** Battery as a settled run sees it: nearly full it takes less and less. */
export type Battery = 'nearly full' | 'not full' | 'not noted';

/** A device at a port over a cable, in one state: its newest settled run. */
export interface DeviceCell {
  readonly deviceId: string;
  readonly port: string;
  readonly lead: string;
  readonly workload: DeviceRun['workload'];
  readonly battery: Battery;
  readonly runId: string;
  readonly watts: number;
  readonly volts: number | null;
  readonly outcome: DeviceRun['outcome'];
  /** What the device says itself; empty for nothing. */
  readonly message: string;
  readonly limiter: string;
  /** How many runs there are of it. */
  readonly runs: number;
}

export interface SessionResult {
  readonly captureId: string;
  readonly deviceId: string;
  readonly device: string;
  /** Port, cable and mains in words. */
  readonly place: string;
  /** What the device did meanwhile; null where nobody noted it. */
  readonly workload: DeviceRun['workload'] | null;
  /** What held it back that is not the charger; null for nothing known. */
  readonly heldBy: string | null;
  /** Device and place, with the day. */
  readonly title: string;
  readonly session: ChargeSession;
  /** The most telling sentence, without its stop, and all of them. */
  readonly headline: string;
  readonly sentence: string;
}

export interface DevicesConclusion {
  readonly devices: readonly { readonly id: string; readonly name: string }[];
  readonly ports: readonly string[];
  readonly cells: readonly DeviceCell[];
  readonly sessions: readonly SessionResult[];
  readonly compared: readonly Compared[];
  /** What settled runs cannot be held against each other for, a sentence each. */
  readonly slips: readonly string[];
  /** Repeats of one charge, a sentence each. */
  readonly repeats: readonly string[];
}

const NEARLY_FULL = 0.8;
const batteryOf = ({ charge }: DeviceRun): Battery =>
  charge === null ? 'not noted' : charge >= NEARLY_FULL ? 'nearly full' : 'not full';

export function standingCharges(all: readonly ChargeRecord[]): readonly ChargeRecord[] {
  const replaced = new Set(all.flatMap(({ supersedes }) => supersedes ?? []));
  return all.filter(({ id, kind, withdrawn }) => kind === 'charge' && !withdrawn && !replaced.has(id));
}

/** A charge in sentences, the most telling first: levels reached, what was delivered, how it ended, what came after. */
export function sessionParts({
  times,
  energy,
  wall,
  duration,
  end,
  level,
  afterFull,
}: ChargeSession): readonly string[] {
  const reached = ([50, 80, 100] as const).flatMap((percent) => {
    const at = times[percent];
    return at === null ? [] : [`${percent} % after ${wholeMinutes(at)}`];
  });
  const by = level === 'energy' ? ' by delivered energy' : level === 'typed' ? ' as typed' : '';
  return [
    ...(reached.length > 0 ? [`${reached.join(', ')}${by}.`] : []),
    ...(energy === null ? [] : [`${formatPlain(energy * 3600, 'energy', 'Wh')} in ${wholeMinutes(duration)}.`]),
    ...(wall
      ? [
          `${formatPlain(wall.energy * 3600, 'energy', 'Wh')} at the wall, ${Math.round((wall.loss / wall.energy) * 100)} % of it lost on the way.`,
        ]
      : []),
    ...(end === null ? ['It was not seen to its end.'] : []),
    ...(afterFull === null ? [] : [`${fixed(afterFull, 2)} W after full.`]),
  ];
}

export const sessionSays = (session: ChargeSession): string => sessionParts(session).join(' ');

/** A lead that carries clearly less than the device takes over another. */
function heldByLead({ ceilings }: Device, lead: string): string | null {
  const own = ceilings.filter((one) => one.lead === lead).map(({ watts }) => watts);
  const [over, most] = [Math.max(0, ...own), Math.max(0, ...ceilings.map(({ watts }) => watts))];
  return own.length > 0 && over < 0.93 * most
    ? `it takes ${formatPlain(over, 'power')} at most over this lead, ${formatPlain(most, 'power')} over another`
    : null;
}

function sessionOf(record: ChargeRecord, devices: readonly Device[]): SessionResult[] {
  if (record.figures.kind !== 'charge' || !record.charge) return [];
  // Only the kind says which figures these are.
  const session = record.figures as unknown as ChargeSession;
  const { deviceId, lead, workload = null } = record.charge;
  const device = devices.find(({ id }) => id === deviceId);
  const name = device?.name ?? 'A device gone from the bench';
  const place = [record.port, lead, mainsLabel(record.mains)].filter(Boolean).join(', ');
  return [
    {
      captureId: record.id,
      deviceId,
      device: name,
      place,
      workload,
      heldBy: device ? heldByLead(device, lead) : null,
      title: `${name} on ${place}, ${record.takenAt.slice(0, 10)}`,
      session,
      headline: (sessionParts(session)[0] ?? '').replace(/\.$/, ''),
      sentence: sessionSays(session),
    },
  ];
}

/** Charges of one device in one place: repeats of each other. */
function groupsOf(sessions: readonly SessionResult[]): Iterable<readonly SessionResult[]> {
  const groups = new Map<string, SessionResult[]>();
  for (const one of sessions) {
    const key = `${one.deviceId} ${one.place}`;
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return groups.values();
}

/** Two devices of one kind that stand for the full and the empty one at a port: no two states of one device. */
function standIns(cells: readonly DeviceCell[], devices: readonly Device[]): readonly string[] {
  const ports = [...new Set(cells.map(({ port }) => port))];
  const kindOf = (id: string) => devices.find((one) => one.id === id)?.kind;
  const nameOf = (id: string) => devices.find((one) => one.id === id)?.name ?? 'a device gone from the bench';
  return ports.flatMap((port) => {
    const own = cells.filter((cell) => cell.port === port);
    const only = (battery: Battery) =>
      [...new Set(own.map(({ deviceId }) => deviceId))].filter((id) =>
        own.every((cell) => cell.deviceId !== id || cell.battery === battery),
      );
    return only('nearly full').flatMap((full) =>
      only('not full')
        .filter((empty) => kindOf(empty) !== undefined && kindOf(empty) === kindOf(full))
        .map(
          (empty) =>
            `${port}: nearly full was only ${nameOf(full)}, not full only ${nameOf(empty)}. Two devices are no two states of one.`,
        ),
    );
  });
}

export const devicesStation: Station<'devices', DevicesFacts, DevicesNeeds, DevicesConclusion> = {
  ...aboutStation('devices'),
  reads: ['sample', 'captures', 'devices'],
  needs: ['proof'],
  conclude({ sample, captures, devices }, { proof }) {
    const newest = new Map<string, DeviceCell>();
    for (const { run, limiter } of proof.devices) {
      const { deviceId, port, lead, workload, id, watts, volts, outcome, message } = run;
      const battery = batteryOf(run);
      const key = [deviceId, port, lead, workload, battery].join('|');
      newest.set(key, {
        deviceId,
        port,
        lead,
        workload,
        battery,
        runId: id,
        watts,
        volts,
        outcome,
        message,
        limiter,
        runs: (newest.get(key)?.runs ?? 0) + 1,
      });
    }
    const sessions = standingCharges(captures).flatMap((record) => sessionOf(record, devices));
    const cells = [...newest.values()];
    const seen = devices.filter(({ id }) => [...cells, ...sessions].some(({ deviceId }) => deviceId === id));
    const groups = [...groupsOf(sessions)];
    const compared = groups.flatMap((a, index) =>
      groups
        .slice(index + 1)
        .filter(([b]) => b?.deviceId === a[0]?.deviceId)
        .flatMap((b) => compareCharges(a, b) ?? []),
    );
    return {
      devices: seen.map(({ id, name }) => ({ id, name })),
      ports: sample.ports.map(({ label }) => label),
      cells,
      sessions,
      compared,
      slips: standIns(cells, devices),
      repeats: groups.flatMap((group) => repeatsSay(group) ?? []),
    };
  },
  evidence({ sessions }) {
    return {
      charged: sessions.map(({ captureId, device, workload, heldBy, session, title }) => ({
        captureId,
        device,
        workload,
        heldBy,
        session,
        conditions: title,
      })),
    };
  },
  progress({ cells, sessions }, _slice, settles) {
    const done = cells.length + sessions.length;
    // A device takes what it wants: of power it refutes no promise. Times are promised of the device itself.
    return { done, total: Math.max(1, done), worst: worstOf(settles) };
  },
  says({ sessions, compared, repeats, slips }) {
    return [
      ...sessions.map(({ title, sentence }) => `${title}: ${sentence}`),
      ...repeats,
      ...compared.map(({ sentence }) => sentence),
      ...slips,
    ];
  },
};
