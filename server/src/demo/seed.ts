// Fills an empty database with the Fernwall shelf, through the same doors a person's entries take.
import type { StoredRig } from '@lastmark/contract';
import { seededRandom } from '@lastmark/core/random';
import { sql } from 'drizzle-orm';
import { createInstrument, createRig } from '../bench/store.ts';
import { createClaim } from '../claims/store.ts';
import type { Database, Queries } from '../db/database.ts';
import { withSeededIds } from '../db/ids.ts';
import { samples } from '../db/schema.ts';
import { createSample, createUnit } from '../samples/store.ts';
import { seedCables } from './cables.ts';
import { CAPTURES } from './captures.ts';
import { CHARGED } from './charges.ts';
import { seedComparisons } from './comparisons.ts';
import { INSTRUMENTS } from './instruments.ts';
import { type DemoBench, measureUnit } from './measure-unit.ts';
import { DESK_LINE } from './proof-world.ts';
import { seedReports } from './reports.ts';
import { SAFETY } from './safety.ts';
import { seedPeers } from './seed-peers.ts';
import { createProofBench } from './seed-proof.ts';
import { type DemoWork, sampleOf } from './shelf.ts';
import { createSimulatedInstruments } from './simulated.ts';
import { SPLITS } from './splits.ts';
import { TRACES } from './traces.ts';
import { type DemoSample, SHELF } from './world.ts';

const SEED = 20_260_301;
const START = new Date('2026-03-02T08:00:00.000Z');
const MINUTE = 60_000;

/** Work done once the chargers stand on the shelf. A station adds its own at the end: each has chance of its own. */
const WORKS: readonly DemoWork[] = [SPLITS, CAPTURES, TRACES, CHARGED, SAFETY];

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
    await seedPeers(db, bench, SEED + 60);
    await seedReports(db);
    if (benchPort) await createSimulatedInstruments(db, benchPort);
    // There was nothing before: all there is is the demo's.
    await db.update(samples).set({ demo: 'shown' });
    await seedComparisons(db);
  });
}

/** Transactions of the stores become parts of the one around them: whatever fails, nothing of it stays. */
function within(tx: Queries): Database {
  const own: Database = Object.create(tx, { transaction: { value: (work: (tx: Queries) => unknown) => work(own) } });
  return own;
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
  await db.transaction((tx) => fill(within(tx), benchPort));
  return true;
}
