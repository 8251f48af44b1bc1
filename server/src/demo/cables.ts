// The Fernwall cables, measured: markers, drops, copies and bends, and two trials, through the doors a person's entries take.
import { CABLES, LaidCable, named } from '@lastmark/bench/sim';
import type { CableRunInput } from '@lastmark/contract';
import { type Side, wiggleOf } from '@lastmark/core/cable';
import { markerReadOut } from '@lastmark/core/marker';
import { seededNormal } from '@lastmark/core/random';
import { type Trial, trialOrder } from '@lastmark/core/trial';
import { addCableRun } from '../cables/store.ts';
import { createClaim } from '../claims/store.ts';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { addReadOut } from '../read-outs/store.ts';
import { createSample, createUnit } from '../samples/store.ts';
import { addTrialRun, createTrial } from '../trials/store.ts';
import { CABLE_SHELF, type DemoCable, type DemoCableUnit } from './cable-world.ts';

const START = Date.parse('2026-02-09T08:00:00.000Z');
const MINUTE = 60_000;
const ROOM = 23;
/** Ground has the thicker conductor: it may drop half as much. */
const VBUS_PART = 0.64;
/** The multimeter as it is: a gain within its spec, and an offset. */
const METER = { gain: 1.00006, offset: 0.0007, noise: 0.00004 } as const;

export interface CableBench {
  readonly db: Database;
  /** Rig whose meter reads drops by four wires. */
  readonly rigId: string;
  readonly analyserId: string;
  readonly chance: () => number;
}

interface Hands extends CableBench {
  readonly normal: () => number;
  readonly moment: () => string;
}

const head = (hands: Hands, bends: number) => ({
  id: newId(),
  takenAt: hands.moment(),
  bends,
  note: '',
  supersedes: null,
  withdrawn: false,
});

/** Drops of one plugging as the multimeter shows them, current by current. */
function series(hands: Hands, cable: LaidCable, side: Side, amps: readonly number[]): CableRunInput {
  cable.plug();
  const part = side === 'loop' ? 1 : side === 'vbus' ? VBUS_PART : 1 - VBUS_PART;
  return {
    ...head(hands, cable.bends),
    kind: 'resistance',
    rigId: hands.rigId,
    how: 'four wires',
    side,
    steps: amps.map((one) => {
      const drop = one * cable.ohms(one, ROOM) * part;
      const shown = drop * METER.gain + METER.offset + METER.noise * hands.normal();
      return {
        amps: one,
        near: null,
        far: null,
        drop: Number(shown.toFixed(5)),
        temperature: Number((273.15 + Math.round(cable.celsius(one, ROOM) * 10) / 10).toFixed(2)),
      };
    }),
  };
}

async function readMarker(hands: Hands, sampleId: string, words: readonly string[]): Promise<void> {
  for (const port of ['near', 'far']) {
    const input = markerReadOut({
      id: newId(),
      port,
      instrumentId: hands.analyserId,
      takenAt: hands.moment(),
      cableWords: words,
      source: words.length > 0 ? words.join(' ') : 'no answer',
    });
    await addReadOut(hands.db, sampleId, input);
  }
}

async function copyOver(hands: Hands, sampleId: string, { copies }: DemoCable, bends: number): Promise<void> {
  if (!copies) return;
  for (const direction of ['to the device', 'from the device'] as const)
    for (let again = 0; again < 3; again += 1) {
      const rate = (direction === 'to the device' ? copies.to : copies.from) * (1 + 0.012 * hands.normal());
      await addCableRun(hands.db, sampleId, {
        ...head(hands, bends),
        kind: 'copy',
        mix: 'one file of 2 GB',
        direction,
        bytes: 2e9,
        seconds: Number((2000 / rate).toFixed(1)),
        host: 'warden’s laptop, inner drive, left port',
        link: copies.link,
        hostLink: 10e9,
        errors: 0,
        fellBack: false,
      });
    }
}

/** What is true of it at the simulated bench. */
function truthOf({ model: { model } }: DemoCable) {
  const truth = named(CABLES, model);
  if (!truth) throw new Error(`The simulated bench has no ${model}.`);
  return truth;
}

/** A meter at its far end for twenty seconds, twenty times a second, while it is wiggled. */
function wiggled(cable: LaidCable) {
  const samples = Array.from({ length: 401 }, (_, at) => {
    const seconds = at / 20;
    return { seconds, value: Math.round((cable.open(seconds) ? 0.02 : 5.02 + 0.004 * Math.sin(at)) * 1000) / 1000 };
  });
  return wiggleOf(samples, 'voltage');
}

async function measureUnit(hands: Hands, sampleId: string, demo: DemoCable, unit: DemoCableUnit): Promise<void> {
  const { db } = hands;
  const truth = truthOf(demo);
  const cable = new LaidCable(truth);
  const five = truth.marks.startsWith('5 A');
  const amps = five ? [0, 1, 2, 3, 4, 5] : [0, 0.5, 1, 1.5, 2, 2.5, 3];
  const sides: readonly Side[] = unit.apart ? ['loop', 'vbus', 'ground'] : ['loop'];
  const read = async () => {
    for (const side of sides)
      for (let again = 0; again < unit.series; again += 1)
        await addCableRun(db, sampleId, series(hands, cable, side, amps));
  };
  await read();
  if (unit.series > 0) await copyOver(hands, sampleId, demo, 0);
  for (const [at, count] of unit.looks.entries()) {
    const before = cable.bends;
    cable.bend(count - before);
    const last = at === unit.looks.length - 1;
    const fault = last ? (unit.fault ?? 'none') : 'none';
    await addCableRun(db, sampleId, {
      ...head(hands, before),
      kind: 'bend',
      count,
      angle: 90,
      radius: 0.015,
      tension: 5,
      rate: 30,
      fault,
      charging: fault === 'open' ? 'not at all' : fault === 'none' ? 'as before' : 'slower',
      wiggle: fault === 'intermittent under wiggle' ? wiggled(cable) : null,
    });
    if (fault === 'none') await read();
  }
}

async function seedCable(hands: Hands, demo: DemoCable): Promise<readonly string[]> {
  const ids: string[] = [];
  for (const one of demo.units) {
    const [first] = ids;
    const sample =
      first === undefined
        ? await createSample(hands.db, { model: demo.model, unit: one.unit })
        : await createUnit(hands.db, first, one.unit);
    ids.push(sample.id);
    if (first === undefined) for (const claim of demo.claims) await createClaim(hands.db, sample.id, claim);
    if (demo.asked && one.series > 0) await readMarker(hands, sample.id, truthOf(demo).marker);
    await measureUnit(hands, sample.id, demo, one);
  }
  return ids;
}

const HELD = [
  { name: 'charger', value: 'Trio 75' },
  { name: 'device', value: 'Guest phone' },
  { name: 'port', value: 'C1' },
  { name: 'mains', value: '230 V 50 Hz' },
  { name: 'start level', value: '20 %' },
  { name: 'room', value: '23 °C' },
];

async function runTrial(
  hands: Hands,
  trial: Trial,
  runs: number,
  value: (cell: readonly number[]) => number,
): Promise<void> {
  const { id } = await createTrial(hands.db, { trial });
  for (const slot of trialOrder(trial).slice(0, runs))
    await addTrialRun(hands.db, id, {
      id: newId(),
      ...slot,
      value: Number(value(slot.cell).toPrecision(4)),
      held: trial.held,
      note: '',
      takenAt: hands.moment(),
      supersedes: null,
      withdrawn: false,
    });
}

/** A folk rule about braid, run to its end; and a table under way. */
async function seedTrials(hands: Hands, ids: ReadonlyMap<string, string>): Promise<void> {
  const arm = (name: string, serial: string | null = null) => ({
    name,
    sampleId: serial === null ? null : (ids.get(serial) ?? null),
  });
  let room = 0;
  const blocks: Trial = {
    kind: 'blocks',
    question: 'Does the braided cable charge quicker?',
    factor: 'cable',
    arms: [arm('plain, Tether 60', 'GT60-1041'), arm('braided, Hawser 240', 'QH-7715')],
    measure: { name: 'time from 20 to 50 %', quantity: 'duration', better: 'lower' },
    held: HELD,
    blocks: 10,
    seed: 4021,
    matters: 60,
    expected: 50,
    blind: false,
  };
  await runTrial(hands, blocks, 20, ([cell]) => {
    room += 1.5 * hands.normal();
    return 1512 + room + 26 * hands.normal() + (cell === 1 ? 7 : 0);
  });
  const level = (names: readonly string[]) => names.map((name) => arm(name));
  const matrix: Trial = {
    kind: 'matrix',
    question: 'Cable, device or port: what makes the difference?',
    factors: [
      {
        name: 'cable',
        levels: [arm('Tether 60', 'GT60-1041'), arm('Tether 240', 'GT240-0093'), arm('Long Line', 'PL3-0440')],
      },
      { name: 'device', levels: level(['Guest phone', 'Guest tablet']) },
      { name: 'port', levels: level(['C1', 'C2', 'A1']) },
    ],
    measure: { name: 'power after 3 min', quantity: 'power', better: 'higher' },
    held: [
      { name: 'charger', value: 'Trio 75' },
      { name: 'mains', value: '230 V 50 Hz' },
      { name: 'start level', value: '20 to 40 %' },
    ],
    blocks: 2,
    seed: 977,
  };
  const PORT = [6.2, 2.1, -8.3];
  await runTrial(hands, matrix, 27, ([cable = 0, device = 0, port = 0]) =>
    Math.max(2, 17.4 + (PORT[port] ?? 0) + (device === 1 ? 2.1 : -2.1) - 0.25 * cable + 0.45 * hands.normal()),
  );
}

/** Fill in the cables. They stand behind the chargers on the shelf. */
export async function seedCables(bench: CableBench): Promise<void> {
  let clock = START;
  const hands: Hands = {
    ...bench,
    normal: seededNormal(bench.chance),
    moment: () => {
      clock += 7 * MINUTE;
      return new Date(clock).toISOString();
    },
  };
  const ids = new Map<string, string>();
  for (const demo of CABLE_SHELF) {
    const made = await seedCable(hands, demo);
    demo.units.forEach(({ unit }, at) => {
      ids.set(unit.serial, made[at] ?? '');
    });
  }
  await seedTrials(hands, ids);
}
