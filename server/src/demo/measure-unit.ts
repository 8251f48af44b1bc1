// A unit on the demo's benches: loaded, idle and proved, as its meters show it.
import type { ReadingInput, StoredRig, StoredSetup } from '@lastmark/contract';
import type { Mains, Taken } from '@lastmark/core/reading';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { storePoints, type TakenPoint } from '../readings/store.ts';
import { createSetup } from '../setups/store.ts';
import { type ProofBench, seedProof } from './seed-proof.ts';
import { type ChargerPhysics, meter, operate } from './simulate.ts';
import type { DemoLoading, DemoUnit } from './world.ts';

const MAINS: Record<115 | 230, Mains> = {
  115: { kind: 'ac', volts: 115, hertz: 60 },
  230: { kind: 'ac', volts: 230, hertz: 50 },
};

export interface DemoBench {
  readonly load: StoredRig;
  readonly idle: StoredRig;
  readonly desk: StoredRig;
  readonly proof: ProofBench;
  readonly random: () => number;
  /** Demo time of the next reading. */
  readonly moment: () => string;
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

export async function measureUnit(
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
