// Whole charges for the Fernwall shelf: a laptop over two cables, a phone that hunts, a tablet cut off by night, a radio whose
// level was only typed. Each battery is filled here by what it draws at its level.
import type { CaptureHead, ChargeSetting } from '@lastmark/core/capture';
import { seededNormal } from '@lastmark/core/random';
import type { Mains } from '@lastmark/core/reading';
import type { Channel, Trace } from '@lastmark/core/trace';
import { storeCapture, writeCapture } from '../captures/store.ts';
import { newId } from '../db/ids.ts';
import { listDevices } from '../devices/store.ts';
import type { DemoWork } from './shelf.ts';

const EU: Mains = { kind: 'ac', volts: 230, hertz: 50 };
const SERIAL = 'PT-75-3310';
const EVERY = 5;

interface Charge {
  readonly device: string;
  readonly port: string;
  readonly lead: string;
  readonly volts: number;
  /** Wh, and W at most. */
  readonly battery: number;
  readonly watts: number;
  /** Level from which it takes less, and the part of its power it ends with. */
  readonly knee: number;
  readonly last: number;
  readonly start: number;
  /** W after full, and for how long it is logged, s. */
  readonly after: number;
  readonly afterSeconds: number;
  /** Levels between which power swings to and fro, by what part. */
  readonly hunts?: { readonly from: number; readonly to: number; readonly depth: number };
  /** Pulled after so long, s. */
  readonly until?: number;
  /** Only levels were written down. */
  readonly typed?: boolean;
  /** Whether the device logs its level. */
  readonly logs?: boolean;
  readonly note: string;
}

const CHARGES: readonly Charge[] = [
  {
    device: 'Warden’s laptop',
    port: 'C1',
    lead: '240 W cable, 1 m',
    volts: 20,
    battery: 64,
    watts: 71,
    knee: 0.62,
    last: 0.11,
    start: 0.12,
    after: 0.9,
    afterSeconds: 1500,
    logs: true,
    note: 'Lid closed, asleep.',
  },
  {
    device: 'Warden’s laptop',
    port: 'C1',
    lead: 'desk cable, 2 m',
    volts: 20,
    battery: 64,
    watts: 57,
    knee: 0.68,
    last: 0.13,
    start: 0.2,
    after: 0.9,
    afterSeconds: 900,
    logs: true,
    note: 'Lid closed, asleep.',
  },
  {
    device: 'Loan phone',
    port: 'C2',
    lead: 'desk cable, 2 m',
    volts: 9,
    battery: 17.5,
    watts: 21,
    knee: 0.6,
    last: 0.08,
    start: 0.05,
    after: 0.12,
    afterSeconds: 1200,
    hunts: { from: 0.28, to: 0.42, depth: 0.3 },
    note: 'Screen off.',
  },
  {
    device: 'Hut tablet',
    port: 'C2',
    lead: 'desk cable, 2 m',
    volts: 15,
    battery: 31,
    watts: 27,
    knee: 0.8,
    last: 0.15,
    start: 0.08,
    after: 0,
    afterSeconds: 0,
    until: 2700,
    note: 'The hut’s current goes off at ten.',
  },
  {
    device: 'Valley radio',
    port: 'A1',
    lead: 'A lead, 1 m',
    volts: 5,
    battery: 14,
    watts: 7.6,
    knee: 0.75,
    last: 0.12,
    start: 0.3,
    after: 0,
    afterSeconds: 60,
    typed: true,
    note: 'Read off its display.',
  },
];

const channel = (name: string, quantity: Channel['quantity'], unit: string, values: readonly number[]): Channel => ({
  name,
  quantity,
  unit,
  values: Float64Array.from(values),
});

function chargeTrace(charge: Charge, normal: () => number): Trace {
  const { battery, watts, knee, last, hunts, until = Number.POSITIVE_INFINITY } = charge;
  const columns = { watts: [] as number[], volts: [] as number[], level: [] as number[], case: [] as number[] };
  let level = charge.start;
  let full: number | null = null;
  let warm = 0;
  for (let at = 0; at < Math.min(until, 12 * 3600); at += EVERY) {
    if (full !== null && at - full >= charge.afterSeconds) break;
    const swings = hunts && level >= hunts.from && level < hunts.to && Math.floor(at / 40) % 2 === 0;
    const part = level < knee ? 1 : 1 - ((1 - last) * (level - knee)) / (1 - knee);
    const drawn = full === null ? watts * part * (swings ? 1 - hunts.depth : 1) : charge.after;
    columns.watts.push(Math.max(0, drawn * (1 + 0.004 * normal())));
    columns.volts.push(charge.volts * (1 + 0.0006 * normal()));
    columns.level.push(Math.floor(Math.min(1, level) * 100) / 100);
    warm += ((0.16 * drawn - warm) * EVERY) / 900;
    columns.case.push(Math.round((22.4 + warm + 0.1 * normal()) * 10) / 10);
    level = Math.min(1, level + (drawn * EVERY) / 3600 / battery);
    if (level >= 1) full ??= at;
  }
  const samples = columns.watts.length;
  const base = {
    interval: EVERY,
    times: null,
    began: null,
    facts: { bandwidth: null, envelope: false, coupling: null },
    remarks: [],
  };
  if (charge.typed) {
    // A look every ten minutes or so, and one when it was full.
    const looks = columns.level.flatMap((_, at) => (at % 120 === 0 || at === samples - 1 ? [at] : []));
    return {
      ...base,
      samples: looks.length,
      times: Float64Array.from(looks, (at) => at * EVERY),
      channels: [
        channel(
          'level',
          'level',
          '',
          looks.map((at) => columns.level[at] as number),
        ),
      ],
    };
  }
  return {
    ...base,
    samples,
    channels: [
      channel('power', 'power', 'W', columns.watts),
      channel('volts', 'voltage', 'V', columns.volts),
      ...(charge.logs ? [channel('level', 'level', '', columns.level)] : []),
      channel('device case', 'temperature', '°C', columns.case),
    ],
  };
}

const seed: DemoWork['seed'] = async ({ db, rigs, moment }, sampleId, _serial, random) => {
  const normal = seededNormal(random);
  const devices = await listDevices(db);
  for (const charge of CHARGES) {
    const deviceId = devices.find(({ name }) => name === charge.device)?.id;
    if (!deviceId) continue;
    const setting: ChargeSetting = {
      deviceId,
      lead: charge.lead,
      startLevel: charge.logs || charge.typed ? null : charge.start,
      end: null,
    };
    const head: CaptureHead = {
      id: newId(),
      kind: 'charge',
      mains: EU,
      setupId: null,
      load: 1,
      port: charge.port,
      attached: 'nothing',
      rigId: rigs.proof,
      takenAt: moment(),
      source: charge.typed ? 'typed levels' : 'charge.csv',
      note: charge.note,
      supersedes: null,
      withdrawn: false,
      charge: setting,
    };
    const kept = await writeCapture(db, head, { ok: true, trace: chargeTrace(charge, normal) });
    await db.transaction((tx) => storeCapture(tx, sampleId, head, kept));
  }
};

export const CHARGED: DemoWork = { serials: [SERIAL], seed };
