// Read-outs, proof steps and runs of the demo, through the same doors a person's entries take.
import type { PointInput, ReadingInput, ReadOutInput, RunInput, StoredRig } from '@lastmark/contract';
import { encodeInfo, encodeSource, type FixedFlag, parseOffer, wordText } from '@lastmark/core/pd';
import { markerIn } from '@lastmark/core/read-out';
import type { Mains } from '@lastmark/core/reading';
import { createInstrument, createRig } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { createDevice } from '../devices/store.ts';
import { etagOf } from '../http/versions.ts';
import { DEFAULT_PROFILE, getProfile, updateProfile } from '../profile/store.ts';
import { addReadOut } from '../read-outs/store.ts';
import { addReadings } from '../readings/store.ts';
import { addRun } from '../runs/store.ts';
import { celsius } from './proof-steps.ts';
import { WORK } from './proof-work.ts';
import {
  type AnalyserKey,
  DEVICES,
  type DemoProof,
  type DemoReadOut,
  type DemoRun,
  PROOF_INSTRUMENTS,
  PROOF_LINE,
  PROOF_LINE_OHMS,
} from './proof-world.ts';
import { type ChargerPhysics, meter, operate } from './simulate.ts';

/** What proof needs of the bench: rigs, analysers, devices. */
export interface ProofBench {
  readonly rigs: Readonly<Record<'proof' | 'desk', StoredRig>>;
  readonly analysers: Readonly<Record<AnalyserKey, string>>;
  readonly devices: ReadonlyMap<string, string>;
  readonly random: () => number;
  readonly moment: () => string;
}

export async function createProofBench(
  db: Database,
  desk: StoredRig,
  mainsMeterId: string,
  random: () => number,
  moment: () => string,
): Promise<ProofBench> {
  const ids = {
    analyserNew: (await createInstrument(db, PROOF_INSTRUMENTS.analyserNew)).id,
    analyserOld: (await createInstrument(db, PROOF_INSTRUMENTS.analyserOld)).id,
  };
  const load = (await createInstrument(db, PROOF_INSTRUMENTS.load)).id;
  const inline = (await createInstrument(db, PROOF_INSTRUMENTS.inlineGood)).id;
  const proof = await createRig(db, {
    name: 'Proof bench',
    meters: { mains: mainsMeterId, outputVolts: inline, outputAmps: inline, loadEnd: load },
    outputPlace: 'port',
    leadOhms: 0,
    leadUOhms: 0,
    elements: PROOF_LINE,
    note: 'Inline meter at the receptacle, electronic load behind a marked cable.',
  });
  const devices = new Map<string, string>();
  for (const device of DEVICES) devices.set(device.name, (await createDevice(db, device)).id);
  return { rigs: { proof, desk }, analysers: ids, devices, random, moment };
}

/** One offer as a word; the first, 5 V one says what the whole source is. */
function wordOf(offer: string, epr: boolean): string {
  if (offer === '–') return wordText(0);
  const parsed = parseOffer(offer);
  if (!parsed.ok) throw new Error(`Demo offer "${offer}": ${parsed.reason}`);
  const { object } = parsed;
  const first = object.kind === 'fixed' && object.volts === 5;
  const flags: readonly FixedFlag[] = epr ? ['unconstrained', 'unchunked', 'eprCapable'] : ['unconstrained'];
  return wordText(encodeSource(first ? { ...object, flags } : object));
}

function toReadOut(bench: ProofBench, demo: DemoReadOut): ReadOutInput {
  return {
    id: newId(),
    port: demo.port,
    instrumentId: bench.analysers[demo.analyser],
    takenAt: bench.moment(),
    occupied: demo.occupied ?? [],
    // The marker its reply tells.
    marker: demo.marker ?? (demo.cable ? markerIn(demo.cable) : '5 A'),
    askedWith: demo.askedWith ?? null,
    temperature: demo.celsius === undefined ? null : celsius(demo.celsius),
    elapsed: demo.elapsed ?? null,
    words: demo.offers.map((offer) => wordOf(offer, demo.epr ?? false)),
    epr: demo.epr ?? false,
    declared: demo.declared ?? null,
    cableWords: demo.cable ?? [],
    info: demo.info ? wordText(encodeInfo(demo.info)) : null,
    extended: demo.extended ?? null,
    signals: Object.entries(demo.signals ?? {}).map(([mode, result]) => ({ mode, result })),
    unreachable: demo.unreachable ?? [],
    note: demo.note ?? '',
    source: 'keypad',
    supersedes: null,
    withdrawn: false,
  };
}

const supplyOf = (volts: DemoProof['mains']): Mains =>
  volts === 13.8 ? { kind: 'dc', volts } : { kind: 'ac', volts, hertz: volts === 115 ? 60 : 50 };

/** The readings of one sample's proof steps, as its meters would show them. */
function proofPoints(
  bench: ProofBench,
  { rig: key, mains, steps, display }: DemoProof,
  physics: ChargerPhysics,
): PointInput[] {
  const rig = bench.rigs[key];
  const fine = key === 'proof';
  const volts = fine ? meter(bench.random, 0.03, 0.0008, 3) : meter(bench.random, 0.08, 0.004, 2);
  const amps = fine ? meter(bench.random, 0.1, 0.0008, 3) : meter(bench.random, 0.2, 0.002, 3);
  const endVolts = meter(bench.random, 0.03, 0.0008, 3);
  const endAmps = meter(bench.random, 0.06, 0.0008, 3);
  const watts = meter(bench.random, 0.4, 0.02, 1);
  return steps.flatMap(({ outputs, loads }) =>
    loads.map((load): PointInput => {
      const nameplate = outputs.reduce((total, one) => total + one.volts * one.amps, 0);
      const truth = operate(physics, outputs, nameplate, load, mains);
      const at = (
        quantity: ReadingInput['quantity'],
        place: ReadingInput['place'],
        port: string | null,
        typed: string,
      ) => ({
        id: newId(),
        quantity,
        place,
        port,
        typed,
      });
      return {
        id: newId(),
        outputs: [...outputs],
        mains: supplyOf(mains),
        load,
        attached: 'nothing',
        rigId: rig.id,
        takenAt: bench.moment(),
        readings: [
          ...truth.outputs.flatMap((one) => {
            const loaded = load === 1;
            const end = one.volts - one.amps * PROOF_LINE_OHMS;
            return [
              at('voltage', 'port', one.port, volts(one.volts)),
              ...(loaded ? [at('current', 'port', one.port, amps(one.amps))] : []),
              ...(fine ? [at('voltage', 'load-end', one.port, endVolts(end))] : []),
              ...(fine && loaded ? [at('current', 'load-end', one.port, endAmps(one.amps))] : []),
              ...(display !== null && loaded
                ? [at('voltage', 'display', one.port, (one.volts + display).toFixed(1))]
                : []),
            ];
          }),
          ...(load === 1 ? [at('power', 'mains', null, watts(truth.inputWatts))] : []),
        ],
      };
    }),
  );
}

function toRun(bench: ProofBench, { rig, device, ...run }: DemoRun): RunInput {
  const head = {
    id: newId(),
    rigId: bench.rigs[rig].id,
    takenAt: bench.moment(),
    supersedes: null,
    withdrawn: false,
  };
  return run.kind === 'device'
    ? { ...run, ...head, deviceId: bench.devices.get(device ?? '') ?? '' }
    : { ...run, ...head };
}

/** A search over the rating is done with the rule turned on for it, and off again after. */
async function withOverRating(db: Database, work: () => Promise<unknown>): Promise<void> {
  const turn = async (on: boolean) => {
    const { version, ...settings } = await getProfile(db);
    const overRating = { ...DEFAULT_PROFILE.overRating, on };
    await updateProfile(db, { ...settings, overRating }, etagOf(version));
  };
  await turn(true);
  await work();
  await turn(false);
}

/** Everything the bench did on one unit beyond efficiency and idle. */
export async function seedProof(
  db: Database,
  bench: ProofBench,
  sampleId: string,
  serial: string,
  physics: ChargerPhysics,
): Promise<void> {
  const work = WORK[serial];
  if (!work) return;
  for (const readOut of work.readOuts) await addReadOut(db, sampleId, toReadOut(bench, readOut));
  for (const proof of work.proof) await addReadings(db, sampleId, proofPoints(bench, proof, physics));
  for (const run of work.runs) {
    const add = () => addRun(db, sampleId, toRun(bench, run));
    await (run.kind === 'over' ? withOverRating(db, add) : add());
  }
  if (work.again) await addReadings(db, sampleId, proofPoints(bench, work.again, physics));
}
