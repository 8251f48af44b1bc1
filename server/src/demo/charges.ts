// Whole charges for the Fernwall shelf: a laptop over two cables, a phone that hunts, a tablet cut off by night, a radio whose
// level was only typed. Each battery is filled here by what it draws at its level.
import type { CaptureHead, ChargeSetting } from '@lastmark/core/capture';
import { seededNormal } from '@lastmark/core/random';
import type { Mains } from '@lastmark/core/reading';
import type { Channel, Trace } from '@lastmark/core/trace';
import { storeCapture, writeCapture } from '../captures/store.ts';
import { newId } from '../db/ids.ts';
import { listDevices } from '../devices/store.ts';
import { CHARGES, type Charge } from './charge-list.ts';
import type { DemoWork } from './shelf.ts';

const EU: Mains = { kind: 'ac', volts: 230, hertz: 50 };
const EVERY = 5;

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

const seed: DemoWork['seed'] = async ({ db, rigs, moment }, sampleId, serial, random) => {
  const normal = seededNormal(random);
  const devices = await listDevices(db);
  for (const charge of CHARGES.filter(({ on }) => on === serial)) {
    const deviceId = devices.find(({ name }) => name === charge.device)?.id;
    if (!deviceId) continue;
    const setting: ChargeSetting = {
      deviceId,
      lead: charge.lead,
      workload: charge.note.includes('asleep') ? 'asleep' : null,
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

export const CHARGED: DemoWork = { serials: [...new Set(CHARGES.map(({ on }) => on))], seed };
