// Fills an empty database with the Fernwall shelf, through the same doors a person's entries take.
import type { ReadingInput, StoredRig, StoredSetup } from '@lastmark/contract';
import { seededRandom } from '@lastmark/core/random';
import type { Mains, Taken } from '@lastmark/core/reading';
import { sql } from 'drizzle-orm';
import { createInstrument, createRig } from '../bench/store.ts';
import { createClaim } from '../claims/store.ts';
import type { Database } from '../db/database.ts';
import { newId, withSeededIds } from '../db/ids.ts';
import { samples } from '../db/schema.ts';
import { storePoints, type TakenPoint } from '../readings/store.ts';
import { createSample, createUnit } from '../samples/store.ts';
import { createSetup } from '../setups/store.ts';
import { seedCables } from './cables.ts';
import { CAPTURES } from './captures.ts';
import { CHARGED } from './charges.ts';
import { INSTRUMENTS } from './instruments.ts';
import { DESK_LINE } from './proof-world.ts';
import { seedReports } from './reports.ts';
import { SAFETY } from './safety.ts';
import { createProofBench, type ProofBench, seedProof } from './seed-proof.ts';
import { type DemoWork, sampleOf } from './shelf.ts';
import { type ChargerPhysics, meter, operate } from './simulate.ts';
import { createSimulatedInstruments } from './simulated.ts';
import { SPLITS } from './splits.ts';
import { TRACES } from './traces.ts';
import { type DemoLoading, type DemoSample, type DemoUnit, SHELF } from './world.ts';

const SEED = 20_260_301;
const START = new Date('2026-03-02T08:00:00.000Z');
const MINUTE = 60_000;

/** Work done once the chargers stand on the shelf. A station adds its own at the end: each has chance of its own. */
const WORKS: readonly DemoWork[] = [SPLITS, CAPTURES, TRACES, CHARGED, SAFETY];

const MAINS: Record<115 | 230, Mains> = {
  115: { kind: 'ac', volts: 115, hertz: 60 },
  230: { kind: 'ac', volts: 230, hertz: 50 },
};

interface DemoBench {
  readonly load: StoredRig;
  readonly idle: StoredRig;
  readonly desk: StoredRig;
  readonly proof: ProofBench;
  readonly random: () => number;
  /** Demo time of the next reading. */
  readonly moment: () => string;
}

async function createBench(db: Database, random: () => number): Promise<DemoBench> {
  const ids: Record<string, string> = {};
  for (const [key, input] of Object.entries(INSTRUMENTS)) ids[key] = (await createInstrument(db, input)).id;
  const rig = (
    name: string,
    mains: string,
    volts: string,
    amps: string,
    note: string,
    elements: StoredRig['elements'] = [],
  ) =>
    createRig(db, {
      name,
      meters: { mains: ids[mains] ?? '', outputVolts: ids[volts] ?? '', outputAmps: ids[amps] ?? '', loadEnd: null },
      outputPlace: 'port',
      leadOhms: 0,
      leadUOhms: 0,
      elements: [...elements],
      note,
    });
  let clock = START.getTime();
  const moment = () => {
    clock += 6 * MINUTE;
    return new Date(clock).toISOString();
  };
  const load = await rig(
    'Load bench',
    'analyser',
    'volts',
    'amps',
    'Sensed at the receptacle, electronic load, 25 °C.',
  );
  const idle = await rig('Idle bench', 'lowRange', 'volts', 'amps', 'Analyser voltage tap on the supply side.');
  const desk = await rig(
    'Desk rig',
    'socket',
    'inline',
    'inline',
    'Wall meter and inline meter, open room.',
    DESK_LINE,
  );
  // Chance of its own, so that work added here leaves the first stations' readings as they are.
  const proof = await createProofBench(db, desk, ids.analyser ?? '', seededRandom(SEED + 1), moment);
  return { load, idle, desk, proof, random, moment };
}

const reading = (
  quantity: ReadingInput['quantity'],
  place: ReadingInput['place'],
  port: string | null,
  typed: string,
): ReadingInput => ({
  id: newId(),
  quantity,
  place,
  port,
  typed,
});

/** How a unit was taken: by the book, unless the demo says that nobody wrote it down or that it was hurried. */
function takenWith({ recorded = 'by the book' }: DemoUnit, mains: Mains, loaded: boolean): { taken?: Taken } {
  if (recorded === 'nothing') return {};
  const source = {
    volts: mains.volts * 1.001,
    hertz: mains.kind === 'ac' ? mains.hertz : null,
    distortion: mains.kind === 'ac' ? 0.006 : null,
    crest: mains.kind === 'ac' ? 1.41 : null,
  };
  const warmUp = recorded === 'hurried' ? 720 : 1800;
  return {
    taken: loaded
      ? { warmUp, rest: { drift: 0.004, over: 300, averaged: false }, source }
      : { warmUp: null, rest: null, source },
  };
}

function loadedPoints(
  bench: DemoBench,
  setup: StoredSetup,
  loading: DemoLoading,
  physics: ChargerPhysics,
  unit: DemoUnit,
): TakenPoint[] {
  const watts = meter(bench.random, 0.08, 0.004, 3);
  const volts = meter(bench.random, 0.015, 0.0008, 3);
  const amps = meter(bench.random, 0.05, 0.0004, 4);
  const factor = meter(bench.random, 0.2, 0.002, 3);
  const nameplate = loading.outputs.reduce((total, output) => total + output.volts * output.amps, 0);
  return loading.measured.flatMap(({ mains, loads }) =>
    loads.map((load): TakenPoint => {
      const truth = operate(physics, loading.outputs, nameplate, load, mains);
      return {
        id: newId(),
        setupId: setup.id,
        mains: MAINS[mains],
        load,
        attached: 'nothing',
        rigId: setup.rigId,
        takenAt: bench.moment(),
        ...takenWith(unit, MAINS[mains], true),
        readings: [
          reading('power', 'mains', null, watts(truth.inputWatts)),
          reading('power-factor', 'mains', null, factor(truth.powerFactor)),
          ...truth.outputs.flatMap((output) => [
            reading('voltage', 'port', output.port, volts(output.volts)),
            reading('current', 'port', output.port, amps(output.amps)),
          ]),
        ],
      };
    }),
  );
}

/** Idle by energy over ten minutes on the bench, or a flicker of the wall meter at the desk. */
function idlePoints(bench: DemoBench, unit: DemoUnit, physics: ChargerPhysics): TakenPoint[] {
  const { idle } = unit;
  if (!idle) return [];
  const rig = bench[idle.rig];
  const show = idle.rig === 'desk' ? meter(bench.random, 1, 0.02, 1) : meter(bench.random, 0.15, 0.0004, 4);
  return idle.mains.map((mains): TakenPoint => {
    const watts = physics.idle * (mains === 115 ? 0.72 : 1);
    const byEnergy = [
      reading('energy', 'mains', null, `${((Number(show(watts)) * 1000) / 6).toFixed(3)} mWh`),
      reading('duration', 'mains', null, '10 min'),
    ];
    return {
      id: newId(),
      mains: MAINS[mains],
      load: 0,
      attached: 'nothing',
      rigId: rig.id,
      takenAt: bench.moment(),
      ...(idle.rig === 'desk' ? {} : takenWith(unit, MAINS[mains], false)),
      readings: idle.rig === 'desk' ? [reading('power', 'mains', null, show(watts))] : byEnergy,
    };
  });
}

async function measureUnit(
  db: Database,
  bench: DemoBench,
  sampleId: string,
  unit: DemoUnit,
  physics: ChargerPhysics,
): Promise<void> {
  const keep = (points: readonly TakenPoint[]) => db.transaction((tx) => storePoints(tx, sampleId, points, 'keypad'));
  for (const loading of unit.loadings) {
    const setup = await createSetup(db, sampleId, {
      name: loading.name,
      purpose: 'efficiency',
      outputs: [...loading.outputs],
      evidence: 'load',
      rigId: bench.load.id,
      nameplateClass: null,
    });
    await keep(loadedPoints(bench, setup, loading, physics, unit));
  }
  const idle = idlePoints(bench, unit, physics);
  if (idle.length > 0) await keep(idle);
  await seedProof(db, bench.proof, sampleId, unit.unit.serial, physics);
}

async function seedSample(
  db: Database,
  bench: DemoBench,
  { model, claims, units, physics }: DemoSample,
): Promise<void> {
  const [first, ...others] = units;
  if (!first) return;
  const sample = await createSample(db, { model, unit: first.unit });
  for (const claim of claims) await createClaim(db, sample.id, claim);
  for (const other of others) {
    const { id } = await createUnit(db, sample.id, other.unit);
    // No two units are alike: this one loses a little more.
    await measureUnit(db, bench, id, other, { ...physics, proportionalLoss: physics.proportionalLoss * 1.05 });
  }
  await measureUnit(db, bench, sample.id, first, physics);
}

async function fill(db: Database, benchPort: number | null): Promise<void> {
  const random = seededRandom(SEED);
  await withSeededIds(seededRandom(SEED + 2), START, async () => {
    const bench = await createBench(db, random);
    await seedCables({
      db,
      rigId: bench.load.id,
      analyserId: bench.proof.analysers.analyserNew,
      chance: seededRandom(SEED + 40),
    });
    for (const sample of SHELF) await seedSample(db, bench, sample);
    const rigs = { load: bench.load.id, proof: bench.proof.rigs.proof.id };
    for (const [index, { serials, seed }] of WORKS.entries()) {
      const chance = seededRandom(SEED + 3 + index);
      for (const serial of serials) {
        const sampleId = await sampleOf(db, serial);
        if (sampleId) await seed({ db, rigs, moment: bench.moment }, sampleId, serial, chance);
      }
    }
    await seedReports(db);
    if (benchPort) await createSimulatedInstruments(db, benchPort);
    // There was nothing before: all there is is the demo's.
    await db.update(samples).set({ demo: 'shown' });
  });
}

/**
 * Fill the database unless someone has used it: all of it, or nothing.
 * @param benchPort first port of the simulated bench, whose instruments then stand at Bench with their addresses
 * @returns whether it was filled
 */
export async function seedDemo(db: Database, benchPort: number | null = null): Promise<boolean> {
  const [rows] = (await db.execute(
    sql`SELECT (SELECT COUNT(*) FROM samples) + (SELECT COUNT(*) FROM instruments) AS used`,
  )) as unknown as [{ used: number }[]];
  if (Number(rows[0]?.used ?? 0) > 0) return false;
  // The stores' own transactions become parts of this one.
  await db.transaction((tx) => fill(tx as unknown as Database, benchPort));
  return true;
}
