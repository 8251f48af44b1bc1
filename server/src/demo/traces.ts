// Ripple and soaks for the Fernwall shelf, recorded on the physics of the simulated bench: some finished, one unfinished.
import { CABLES, CHARGERS, HandClock, named, SimulatedBench } from '@lastmark/bench/sim';
import type { CaptureHead, SoakSetting } from '@lastmark/core/capture';
import { seededNormal } from '@lastmark/core/random';
import type { Mains, Output } from '@lastmark/core/reading';
import type { Channel, Trace } from '@lastmark/core/trace';
import { storeCapture, writeCapture } from '../captures/store.ts';
import { newId } from '../db/ids.ts';
import type { DemoWork } from './shelf.ts';

const EU: Mains = { kind: 'ac', volts: 230, hertz: 50 };
const US: Mains = { kind: 'ac', volts: 115, hertz: 60 };
const CAR: Mains = { kind: 'dc', volts: 13.8 };
const ZERO = 273.15;

interface RippleWork {
  readonly port: string;
  /** Place of the level among the offers. */
  readonly position: number;
  readonly volts: number;
  readonly amps: number;
  readonly mains: Mains;
}

interface SoakWork {
  readonly port: string;
  readonly position: number;
  readonly volts: number;
  readonly amps: number;
  readonly mains: Mains;
  readonly minutes: number;
  /** °C */
  readonly room: number;
  readonly setting: Partial<SoakSetting>;
  readonly note: string;
}

const EPR: readonly RippleWork[] = [
  { port: 'C1', position: 4, volts: 20, amps: 0, mains: EU },
  { port: 'C1', position: 4, volts: 20, amps: 0.4, mains: EU },
  { port: 'C1', position: 4, volts: 20, amps: 5, mains: EU },
  { port: 'C1', position: 4, volts: 20, amps: 5, mains: US },
  { port: 'C1', position: 1, volts: 5, amps: 0, mains: EU },
  { port: 'C1', position: 1, volts: 5, amps: 3, mains: EU },
];

const BENCH_TOP = { place: 'open room', surface: 'bench of wood', adapter: '', touched: 'plastic' } as const;

interface Work {
  readonly serial: string;
  readonly charger: string;
  readonly ripple?: readonly RippleWork[];
  readonly soaks?: readonly SoakWork[];
}

const RECORDED: readonly Work[] = [
  { serial: 'OB-18-0092', charger: 'Monolith 180', ripple: EPR },
  {
    serial: 'PT-75-3310',
    charger: 'Trio 75',
    soaks: [
      {
        port: 'C1',
        position: 4,
        volts: 20,
        amps: 3.75,
        mains: EU,
        minutes: 100,
        room: 24.6,
        setting: BENCH_TOP,
        note: '',
      },
      {
        port: 'C1',
        position: 4,
        volts: 20,
        amps: 3,
        mains: US,
        minutes: 14,
        room: 25,
        setting: { ...BENCH_TOP, place: 'chamber', ambient: 25 },
        note: 'Stopped early: the workshop closed.',
      },
    ],
  },
  {
    serial: 'QP-5520',
    charger: 'Pip 20',
    soaks: [
      // Its peak lasts ten minutes at either power: a timer, not heat.
      {
        port: 'C1',
        position: 2,
        volts: 9,
        amps: 2.2,
        mains: EU,
        minutes: 40,
        room: 24.2,
        setting: BENCH_TOP,
        note: '',
      },
      {
        port: 'C1',
        position: 3,
        volts: 12,
        amps: 1.45,
        mains: EU,
        minutes: 40,
        room: 24.2,
        setting: BENCH_TOP,
        note: '',
      },
    ],
  },
  {
    serial: 'SH-0441',
    charger: 'Shuttle 75',
    soaks: [
      {
        port: 'C1',
        position: 4,
        volts: 20,
        amps: 3,
        mains: CAR,
        minutes: 75,
        room: 47,
        setting: { place: 'open room', surface: 'dashboard', adapter: '', touched: 'plastic' },
        note: 'In a shuttle parked in the sun.',
      },
    ],
  },
];

const RATE = 2_000_000;
const SAMPLES = 240_000;
/** Step of the scope's digitiser, V. */
const STEP = 0.5e-3;
const LOG_EVERY = 10;

const standOf = (charger: string) => {
  const truth = named(CHARGERS, charger);
  const [cable] = CABLES;
  if (!truth || !cable) return null;
  const clock = new HandClock();
  return { bench: new SimulatedBench(truth, cable, clock), clock };
};
type Stand = NonNullable<ReturnType<typeof standOf>>;

/** Plugged in at a level and loaded. */
function draw(
  { bench, clock }: Stand,
  { port, position, amps, mains }: Pick<RippleWork, 'port' | 'position' | 'amps' | 'mains'>,
): void {
  bench.setSupply({ on: true, volts: mains.volts, hertz: mains.kind === 'ac' ? mains.hertz : 0 });
  bench.plug(port, true);
  bench.request(port, position, null);
  bench.setLoad(port, { amps, on: amps > 0 });
  clock.advance(5);
}

const channel = (name: string, quantity: Channel['quantity'], unit: string, values: readonly number[]): Channel => ({
  name,
  quantity,
  unit,
  values: Float64Array.from(values),
});
const FACTS = { bandwidth: null, envelope: false, coupling: null };

function rippleTrace(stand: Stand, work: RippleWork, normal: () => number): Trace {
  draw(stand, work);
  const truth = stand.bench.ripple(work.port, SAMPLES, 1 / RATE);
  const values = truth.map((value) => Math.round((value + 0.6e-3 * normal()) / STEP) * STEP);
  return {
    samples: SAMPLES,
    interval: 1 / RATE,
    times: null,
    began: null,
    channels: [{ name: 'volts', quantity: 'voltage', unit: 'V', values }],
    facts: { ...FACTS, coupling: 'AC' },
    remarks: [],
  };
}

/** A log every ten seconds: three faces, the room, and the output. */
function soakTrace(stand: Stand, work: SoakWork, normal: () => number): Trace {
  const { bench, clock } = stand;
  bench.setRoom(work.room + ZERO);
  clock.advance(6 * 3600);
  draw(stand, work);
  const columns = {
    front: [] as number[],
    back: [] as number[],
    side: [] as number[],
    ambient: [] as number[],
    watts: [] as number[],
    volts: [] as number[],
  };
  const samples = Math.floor((work.minutes * 60) / LOG_EVERY);
  for (let at = 0; at < samples; at += 1) {
    const faces = bench.faces();
    const { volts, amps } = bench.port(work.port);
    const celsius = (kelvin: number, noise: number) => Math.round((kelvin - ZERO + noise * normal()) * 10) / 10;
    columns.front.push(celsius(faces.front, 0.1));
    columns.back.push(celsius(faces.back, 0.1));
    columns.side.push(celsius(faces.side, 0.1));
    columns.ambient.push(celsius(bench.room, 0.05));
    columns.watts.push(volts * amps * (1 + 0.0006 * normal()));
    columns.volts.push(volts * (1 + 0.0002 * normal()));
    clock.advance(LOG_EVERY);
  }
  return {
    samples,
    interval: LOG_EVERY,
    times: null,
    began: null,
    channels: [
      channel('front', 'temperature', '°C', columns.front),
      channel('back', 'temperature', '°C', columns.back),
      channel('side', 'temperature', '°C', columns.side),
      channel('ambient', 'temperature', '°C', columns.ambient),
      channel('output', 'power', 'W', columns.watts),
      channel(`${work.port} volts`, 'voltage', 'V', columns.volts),
    ],
    facts: FACTS,
    remarks: [],
  };
}

const outputOf = ({ port, volts, amps }: RippleWork | SoakWork): Output => ({ port, volts, amps });

const seed: DemoWork['seed'] = async ({ db, rigs, moment }, sampleId, serial, random) => {
  const normal = seededNormal(random);
  const keep = async (
    part: Partial<CaptureHead> & Pick<CaptureHead, 'kind' | 'mains' | 'port' | 'load'>,
    trace: Trace,
  ) => {
    const head: CaptureHead = {
      id: newId(),
      setupId: null,
      attached: 'nothing',
      rigId: rigs.load,
      takenAt: moment(),
      source: `${part.kind}.csv`,
      note: '',
      supersedes: null,
      withdrawn: false,
      ...part,
    };
    const kept = await writeCapture(db, head, { ok: true, trace });
    await db.transaction((tx) => storeCapture(tx, sampleId, head, kept));
  };
  for (const { charger, ripple = [], soaks = [] } of RECORDED.filter((one) => one.serial === serial)) {
    for (const work of ripple) {
      const stand = standOf(charger);
      if (!stand) continue;
      const { mains, port, amps } = work;
      await keep(
        { kind: 'ripple', mains, port, load: amps > 0 ? 1 : 0, outputs: [outputOf(work)] },
        rippleTrace(stand, work, normal),
      );
    }
    for (const work of soaks) {
      const stand = standOf(charger);
      if (!stand) continue;
      const { mains, setting, note } = work;
      const soak: SoakSetting = {
        place: 'open room',
        ambient: null,
        surface: '',
        adapter: '',
        touched: 'plastic',
        ...setting,
        sensors: (['front', 'back', 'side'] as const).map((name) => ({ name, place: name, how: 'contact' })),
      };
      await keep(
        { kind: 'soak', mains, port: null, load: 1, outputs: [outputOf(work)], soak, note },
        soakTrace(stand, work, normal),
      );
    }
  }
};

export const TRACES: DemoWork = { serials: RECORDED.map(({ serial }) => serial), seed };
