// Captures and a car's supply sweep for the Fernwall shelf, recorded on the physics of the simulated bench.
import { CABLES, CHARGERS, HandClock, named, SimulatedBench } from '@lastmark/bench/sim';
import type { CaptureHead, CaptureKind, Trace } from '@lastmark/core/capture';
import { seededNormal } from '@lastmark/core/random';
import { CAR_STOPS, type Mains, type Output } from '@lastmark/core/reading';
import { storeCapture, writeCapture } from '../captures/store.ts';
import { newId } from '../db/ids.ts';
import { storePoints, type TakenPoint } from '../readings/store.ts';
import { loadingFor } from '../setups/store.ts';
import type { DemoWork } from './shelf.ts';
import { meter } from './simulate.ts';

/** Serials whose supply side was recorded, with their model on the simulated bench. */
const RECORDED: readonly { readonly serial: string; readonly charger: string }[] = [
  { serial: 'TE-45-0117', charger: 'Ember 45' },
  { serial: 'OB-18-0092', charger: 'Monolith 180' },
  { serial: 'SH-0441', charger: 'Shuttle 75' },
];

const EU: Mains = { kind: 'ac', volts: 230, hertz: 50 };
const CAR: Mains = { kind: 'dc', volts: 13.8 };
/** A 12 V system all through, a 24 V one in part: that is left to do. */
const STOPS = [...CAR_STOPS['12 V'], 24, 27.6];

interface DemoCapture {
  readonly head: Pick<CaptureHead, 'kind' | 'mains' | 'port' | 'load'>;
  readonly outputs?: readonly Output[];
  readonly trace: Trace;
}

interface Stand {
  readonly bench: SimulatedBench;
  readonly clock: HandClock;
}

function standOf(charger: string): Stand | null {
  const truth = named(CHARGERS, charger);
  const [cable] = CABLES;
  if (!truth || !cable) return null;
  const clock = new HandClock();
  return { bench: new SimulatedBench(truth, cable, clock), clock };
}

const supply = (mains: Mains) => ({ on: true, volts: mains.volts, hertz: mains.kind === 'ac' ? mains.hertz : 0 });

/** Plug a load in at a level and let it settle. @param position of the level in the offers */
function draw({ bench, clock }: Stand, mains: Mains, port: string, position: number, amps: number): void {
  bench.setSupply(supply(mains));
  bench.plug(port, true);
  bench.request(port, position, null);
  bench.setLoad(port, { amps, on: true });
  clock.advance(60);
}

/** Samples taken one after the other on the bench's clock. */
function watch({ clock }: Stand, samples: number, interval: number, look: (index: number) => number): Float64Array {
  return Float64Array.from({ length: samples }, (_, index) => {
    const value = look(index);
    clock.advance(interval);
    return value;
  });
}

function waveform(stand: Stand, output: Output, position: number, load: number): DemoCapture {
  draw(stand, EU, output.port, position, output.amps * load);
  const interval = 2e-5;
  return {
    head: { kind: 'waveform', mains: EU, port: null, load },
    outputs: [output],
    trace: { interval, columns: stand.bench.mainsWave(10_000, interval) },
  };
}

function inrush({ bench, clock }: Stand): DemoCapture {
  const surges = Array.from({ length: 5 }, () => {
    bench.setSupply({ on: false });
    clock.advance(30);
    bench.setSupply(supply(EU));
    return bench.inrush(4000, 1e-6);
  });
  const peak = (amps: Float64Array) => amps.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  const amps = surges.reduce((highest, one) => (peak(one) > peak(highest) ? one : highest));
  return { head: { kind: 'inrush', mains: EU, port: null, load: 0 }, trace: { interval: 1e-6, columns: { amps } } };
}

function idle(stand: Stand, normal: () => number): DemoCapture {
  stand.bench.setSupply(supply(EU));
  stand.clock.advance(120);
  const watts = watch(stand, 6000, 0.1, () => stand.bench.input().watts * 1.0003 + normal() * 0.0004);
  return { head: { kind: 'idle', mains: EU, port: null, load: 0 }, trace: { interval: 0.1, columns: { watts } } };
}

function fading(stand: Stand, port: string): DemoCapture {
  stand.bench.setSupply(supply(EU));
  stand.bench.plug(port, true);
  stand.clock.advance(60);
  const volts = watch(stand, 700, 0.1, (index) => {
    if (index === 100) stand.bench.setSupply({ on: false });
    return stand.bench.port(port).volts;
  });
  return { head: { kind: 'fading', mains: EU, port, load: 0 }, trace: { interval: 0.1, columns: { volts } } };
}

/** The supply down to 8 V and up again in steps of 0.1 V. */
function sweep(stand: Stand, port: string, position: number, amps: number): DemoCapture {
  draw(stand, CAR, port, position, amps);
  const stops = Array.from({ length: 117 }, (_, index) => (index <= 58 ? 13.8 - index * 0.1 : 8 + (index - 58) * 0.1));
  const volts = watch(stand, stops.length, 0.3, (index) => {
    stand.bench.setSupply({ volts: stops[index] ?? 13.8 });
    return stand.bench.port(port).volts;
  });
  return {
    head: { kind: 'sweep', mains: CAR, port, load: 0.5 },
    trace: { interval: 0.3, columns: { supply: Float64Array.from(stops), volts } },
  };
}

/** A dip of the supply for 200 ms. @param to V */
function dip(stand: Stand, port: string, position: number, amps: number, to: number): DemoCapture {
  draw(stand, CAR, port, position, amps);
  const volts = watch(stand, 1000, 1e-3, (index) => {
    if (index === 300) stand.bench.setSupply({ volts: to });
    if (index === 500) stand.bench.setSupply({ volts: CAR.volts });
    return stand.bench.port(port).volts;
  });
  return { head: { kind: 'dip', mains: CAR, port, load: 1 }, trace: { interval: 1e-3, columns: { volts } } };
}

function capturesOf(charger: string, normal: () => number): DemoCapture[] {
  const stand = () => standOf(charger) as Stand;
  const output = { port: 'C1', volts: 36, amps: 5 };
  if (charger === 'Monolith 180')
    return [
      waveform(stand(), output, 8, 0.25),
      waveform(stand(), output, 8, 1),
      inrush(stand()),
      fading(stand(), 'C1'),
    ];
  if (charger === 'Ember 45') {
    const own = { port: 'C1', volts: 20, amps: 2.25 };
    return [waveform(stand(), own, 4, 1), inrush(stand()), idle(stand(), normal), fading(stand(), 'C1')];
  }
  return [sweep(stand(), 'C1', 5, 1.5), dip(stand(), 'C1', 5, 3, 9.8), dip(stand(), 'C1', 5, 3, 8)];
}

/** Load points of a car charger from the lowest supply to the highest, and its idle drain. */
function carPoints(
  stand: Stand,
  setupId: string,
  rigId: string,
  random: () => number,
  moment: () => string,
): TakenPoint[] {
  const watts = meter(random, 0.08, 0.004, 3);
  const volts = meter(random, 0.015, 0.0008, 3);
  const amps = meter(random, 0.05, 0.0004, 4);
  const reading = (
    quantity: 'power' | 'voltage' | 'current' | 'energy' | 'duration',
    port: string | null,
    typed: string,
  ) => ({
    id: newId(),
    quantity,
    place: port ? ('port' as const) : ('mains' as const),
    port,
    typed,
  });
  const loaded = STOPS.flatMap((at) =>
    [1, 0.5].map((load): TakenPoint => {
      const mains: Mains = { kind: 'dc', volts: at };
      draw(stand, mains, 'C1', 5, 3 * load);
      const { volts: out, amps: current } = stand.bench.port('C1');
      return {
        id: newId(),
        setupId,
        mains,
        load,
        attached: 'nothing',
        rigId,
        takenAt: moment(),
        readings: [
          reading('power', null, watts(stand.bench.input().watts)),
          reading('voltage', 'C1', volts(out)),
          reading('current', 'C1', amps(current)),
        ],
      };
    }),
  );
  stand.bench.plug('C1', false);
  const drains = [13.8, 27.6].map((at): TakenPoint => {
    stand.bench.setSupply({ on: true, volts: at, hertz: 0 });
    stand.clock.advance(60);
    const before = stand.bench.energy();
    stand.clock.advance(900);
    return {
      id: newId(),
      mains: { kind: 'dc', volts: at },
      load: 0,
      attached: 'nothing',
      rigId,
      takenAt: moment(),
      readings: [
        reading('energy', null, `${(stand.bench.energy() - before).toFixed(3)} J`),
        reading('duration', null, '15 min'),
      ],
    };
  });
  return [...loaded, ...drains];
}

/** Record a sample's supply side, through the same doors a person's captures take. */
const seed: DemoWork['seed'] = async ({ db, rigs, moment }, sampleId, serial, random) => {
  const charger = RECORDED.find((one) => one.serial === serial)?.charger ?? '';
  const rigId = rigs.load;
  const normal = seededNormal(random);
  for (const { head, outputs, trace } of capturesOf(charger, normal)) {
    const setup = outputs ? await db.transaction((tx) => loadingFor(tx, sampleId, outputs, rigId, 'efficiency')) : null;
    const kind: CaptureKind = head.kind;
    const whole: CaptureHead = {
      ...head,
      id: newId(),
      setupId: setup?.id ?? null,
      attached: 'nothing',
      rigId,
      takenAt: moment(),
      source: `${kind}.csv`,
      note: '',
      supersedes: null,
      withdrawn: false,
    };
    const kept = await writeCapture(db, whole, trace);
    // The idle readings of the shelf stand already; the record only shows their bursts.
    await db.transaction((tx) => storeCapture(tx, sampleId, whole, kept, false));
  }
  await db.transaction(async (tx) => {
    const stand = charger === 'Shuttle 75' ? standOf(charger) : null;
    if (!stand) return;
    const setup = await loadingFor(tx, sampleId, [{ port: 'C1', volts: 20, amps: 3 }], rigId, 'efficiency');
    await storePoints(tx, sampleId, carPoints(stand, setup.id, rigId, random, moment), 'keypad');
  });
};

export const CAPTURES: DemoWork = { serials: RECORDED.map(({ serial }) => serial), seed };
