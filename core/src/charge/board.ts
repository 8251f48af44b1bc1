// The same devices on different chargers, side by side: who serves which best, as far as the readings tell.
import { fixed, formatPlain } from '../quantity/index.ts';
import type { Device, DeviceRun } from '../run/index.ts';
import type { Course } from './course.ts';
import { predictCharge, profileOf, tookFor } from './profile.ts';

/** A charger on the shelf. */
export interface BoardSample {
  readonly id: string;
  readonly tag: string;
  /** Maker and model. */
  readonly name: string;
}

/** A settled run of a device on one of them. */
export interface BoardRun {
  readonly sampleId: string;
  readonly run: DeviceRun;
}

/** A whole charge of a device on one of them. */
export interface BoardCharge {
  readonly sampleId: string;
  readonly captureId: string;
  readonly deviceId: string;
  readonly port: string;
  readonly lead: string;
  readonly takenAt: string;
  readonly workload: DeviceRun['workload'] | null;
  readonly course: Course | null;
}

export interface DeviceEvidence {
  readonly samples: readonly BoardSample[];
  readonly runs: readonly BoardRun[];
  readonly charges: readonly BoardCharge[];
}

export interface BoardCell {
  readonly sampleId: string;
  readonly run: DeviceRun;
  /** Part of what it took alone on a strong charger; null without a baseline. */
  readonly part: number | null;
  /** Why it does not count among the others; null where it does. */
  readonly aside: string | null;
}

export interface BoardRow {
  readonly deviceId: string;
  readonly device: string;
  readonly workload: DeviceRun['workload'];
  /** The best port of each charger. */
  readonly cells: readonly BoardCell[];
  /** The charger that serves it best; null where none is ahead beyond its uncertainty. */
  readonly best: string | null;
  /** What the row cannot tell, or who is ahead, in a sentence. */
  readonly says: string;
}

const NEARLY_FULL = 0.8;
const SETTLED = 180;
const COVERAGE = 2;

const asideOf = ({ charge, settled, place }: DeviceRun): string | null => {
  if (place !== 'port') return 'read at the socket';
  if (charge !== null && charge >= NEARLY_FULL) return `nearly full, ${formatPlain(charge, 'efficiency')}`;
  return settled < SETTLED ? 'not settled' : null;
};

/** Newest run of each port, then the port that gave most. */
function cellsOf(runs: readonly BoardRun[], device: Device): readonly BoardCell[] {
  const newest = new Map<string, BoardRun>();
  for (const one of [...runs].sort((a, b) => a.run.takenAt.localeCompare(b.run.takenAt)))
    newest.set(`${one.sampleId} ${one.run.port} ${one.run.lead}`, one);
  const best = new Map<string, BoardCell>();
  for (const { sampleId, run } of newest.values()) {
    const aside = asideOf(run);
    const part =
      device.baseline !== null && device.baseline > 0 && run.place === 'port' ? run.watts / device.baseline : null;
    const before = best.get(sampleId);
    const better =
      !before ||
      (before.aside !== null) > (aside !== null) ||
      ((before.aside === null) === (aside === null) && run.watts > before.run.watts);
    if (better) best.set(sampleId, { sampleId, run, part, aside });
  }
  return [...best.values()].sort(
    (a, b) => Number(a.aside !== null) - Number(b.aside !== null) || b.run.watts - a.run.watts,
  );
}

function judgeRow(
  cells: readonly BoardCell[],
  device: Device,
  nameOf: (id: string) => string,
): Pick<BoardRow, 'best' | 'says'> {
  const counted = cells.filter(({ aside }) => aside === null);
  const [first, second] = counted;
  const baseline =
    device.baseline === null ? ' No baseline: how much it would take on a strong charger is not known.' : '';
  if (!first) return { best: null, says: `No settled run at a port.${baseline}` };
  if (!second) return { best: null, says: `One charger only.${baseline}` };
  const [a, b] = [first.run, second.run];
  const ahead = a.watts - b.watts;
  if (a.u === null || b.u === null)
    return { best: null, says: `How accurate the meters are is not stated, so none is called ahead.${baseline}` };
  if (ahead <= COVERAGE * Math.hypot(a.u, b.u))
    return {
      best: null,
      says: `${nameOf(first.sampleId)} and ${nameOf(second.sampleId)} are level within the uncertainty.${baseline}`,
    };
  return {
    best: first.sampleId,
    says: `${nameOf(first.sampleId)}: ${fixed(ahead, 1)} W more than the next, ${fixed(a.watts / b.watts, 2)} × ${formatPlain(b.watts, 'power')}.${baseline}`,
  };
}

/** One row a device and workload, since a device at work takes something else than one asleep. */
export function deviceBoard(devices: readonly Device[], { runs, samples }: DeviceEvidence): readonly BoardRow[] {
  const nameOf = (id: string) => samples.find((one) => one.id === id)?.name ?? 'a charger gone from the shelf';
  return devices.flatMap((device) => {
    const own = runs.filter(({ run }) => run.deviceId === device.id);
    const workloads = [...new Set(own.map(({ run }) => run.workload))];
    return workloads.map((workload): BoardRow => {
      const cells = cellsOf(
        own.filter(({ run }) => run.workload === workload),
        device,
      );
      return { deviceId: device.id, device: device.name, workload, cells, ...judgeRow(cells, device, nameOf) };
    });
  });
}

/** A charge that was measured, beside what the other charges of its device would have said of it. */
export interface Foretold {
  readonly deviceId: string;
  readonly device: string;
  readonly port: string;
  readonly lead: string;
  readonly from: number;
  readonly to: number;
  /** s; null where nothing is foretold, with the reason. */
  readonly seconds: number | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly held: number;
  /** Charges the profile is made of. */
  readonly charges: number;
  /** s each charge of it at this port took for these levels. */
  readonly measured: readonly number[];
  /** A measured time lies outside what was foretold; null where there is none, or nothing foretold. */
  readonly outside: boolean | null;
  readonly reason: string | null;
}

/** Levels a time is foretold between, as far as the profile reaches. */
const USUAL: readonly [number, number] = [0.2, 0.8];

/**
 * What each device would take at each port of a charger over each lead it was charged with, from its charges anywhere else;
 * charges at the very port over the very lead are left out of it and stand beside it.
 * @param ports W each port gives alone; null where nothing says
 */
export function foretell(
  sampleId: string,
  ports: readonly { readonly label: string; readonly watts: number | null }[],
  devices: readonly Device[],
  { charges }: Pick<DeviceEvidence, 'charges'>,
): readonly Foretold[] {
  return devices.flatMap((device) => {
    // A device that worked meanwhile shows what it does then.
    const own = charges.filter(
      ({ deviceId, workload }) => deviceId === device.id && workload !== 'heavy computing' && workload !== 'screen on',
    );
    const leads = [...new Set(own.map(({ lead }) => lead))];
    return ports.flatMap(({ label, watts }) =>
      leads.map((lead) => oneForetold(sampleId, { label, watts, lead }, device, own)),
    );
  });
}

function oneForetold(
  sampleId: string,
  { label, watts, lead }: { readonly label: string; readonly watts: number | null; readonly lead: string },
  device: Device,
  own: readonly BoardCharge[],
): Foretold {
  const isHere = (one: BoardCharge) => one.sampleId === sampleId && one.port === label && one.lead === lead;
  const profile = profileOf(own.filter((one) => !isHere(one)).flatMap(({ course }) => course ?? []));
  const from = Math.max(USUAL[0], profile?.levels[0] ?? 0);
  const to = Math.min(USUAL[1], profile?.levels.at(-1) ?? 1);
  const here = own.filter(isHere);
  const measured = here.flatMap(({ course }) => (course ? (tookFor(course, from, to) ?? []) : []));
  const head = {
    deviceId: device.id,
    device: device.name,
    port: label,
    lead,
    from,
    to,
    charges: profile?.charges ?? 0,
  };
  const none = (reason: string): Foretold => ({
    ...head,
    seconds: null,
    low: null,
    high: null,
    held: 0,
    measured,
    outside: null,
    reason,
  });
  if (!profile) return none(here.length > 0 ? 'only charged here so far' : 'its charges tell no power by level');
  if (watts === null) return none('nothing says what this port gives');
  const most = device.ceilings.map((one) => one.watts);
  const over = device.ceilings.filter((one) => one.lead === lead).map((one) => one.watts);
  const given = over.length > 0 ? Math.min(watts, Math.max(...over)) : watts;
  const said = predictCharge(profile, { from, to, watts: given, ceiling: most.length > 0 ? Math.max(...most) : null });
  if ('reason' in said) return none(said.reason);
  const { seconds, low, high, held } = said;
  const outside = measured.some((one) => one > high || (low !== null && one < low));
  return { ...head, seconds, low, high, held, measured, outside: measured.length > 0 ? outside : null, reason: null };
}
