// What a person does by hand at the simulated bench: put a charger on it, lay a cable, set how fast its clock runs.

import { ScpiClient } from '@lastmark/bench/scpi';
import { CLASSES } from '@lastmark/bench/sim';
import { overSocket } from '@lastmark/bench/ways';
import type { SheetRun, SimulatedBenchState, SimulatedDeviceInput, SimulatedInput } from '@lastmark/contract';
import { listRigs } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { conflict, ProblemError, refused } from '../http/problem.ts';
import { listLeases } from '../leases/leases.ts';
import { createSheet } from '../planning/make-sheet.ts';
import type { Runner } from '../runner/runner.ts';
import { getSample } from '../samples/store.ts';
import { SIMULATED_CABLE, SIMULATED_RIG } from './simulated.ts';

export const NO_SIMULATED_BENCH: SimulatedBenchState = {
  there: false,
  speed: null,
  chargers: [],
  cables: [],
  devices: [],
};

const noBench = () =>
  new ProblemError(503, 'No simulated bench', 'This start has no simulated bench. "npm start" runs it with the demo.');
const cannotPlay = (model: string, plays: readonly string[]) =>
  refused('sampleId', `The simulated bench has no ${model}. It plays ${plays.join(', ')}.`);

/** What feeds a cable under test: 5 A at 20 V, or what its marker lets through. */
const FEEDER = 'Six 210';

/** On the wire there are no other signs than those of ASCII. */
const quoted = (text: string): string[] => [...text.matchAll(/"([^"]*)"/g)].map(([, name = '']) => name);

export class Hand {
  readonly #client: ScpiClient;

  /** @param port the bench's first port */
  constructor(port: number) {
    this.#client = new ScpiClient({ way: overSocket('127.0.0.1', port) });
    this.#client.open();
  }

  async state(): Promise<SimulatedBenchState> {
    if (this.#client.state !== 'up') return NO_SIMULATED_BENCH;
    return {
      there: true,
      speed: Number(await this.#client.query('BENC:SPE?')),
      chargers: quoted(await this.#client.query('BENC:CAT?')),
      cables: quoted(await this.#client.query('BENC:CABL:CAT?')),
      devices: quoted(await this.#client.query('BENC:DEV:CAT?')).map((name) => name.replaceAll("'", '’')),
    };
  }

  /** Put a charger on the bench, cold, with a cable, and let the clock run. */
  async put(charger: string, speed: number, cable = SIMULATED_CABLE): Promise<void> {
    for (const command of [`BENC:CHAR "${charger}"`, `BENC:CABL "${cable}"`, `BENC:SPE ${speed}`])
      await this.#client.confirm(command);
  }

  /** What the display of the charger on the bench shows, W; null for one without. */
  async display(): Promise<number | null> {
    const shown = await this.#client.query('BENC:DISP?');
    return shown === 'NONE' ? null : Number(shown);
  }

  /** Switch the meters off and on: what stood still moves again. */
  async restartMeters(): Promise<void> {
    for (const kind of CLASSES) await this.#client.confirm(`BENC:FAUL ${kind},none`);
  }

  /** Plug a device into a port of a charger, which is put there first where another stands; null pulls the port. */
  async plug(charger: string, { port, device, level, speed }: SimulatedDeviceInput): Promise<void> {
    const [there] = quoted(await this.#client.query('BENC:CHAR?'));
    if (there !== charger) await this.put(charger, speed);
    else await this.#client.confirm(`BENC:SPE ${speed}`);
    await this.#client.confirm(
      `BENC:DEV "${port}"${device === null ? '' : `,"${device.replaceAll('’', "'")}",${level}`}`,
    );
  }

  close(): void {
    this.#client.close();
  }
}

/** Plug a device in at the simulated bench, as a person does where a run asks for it. */
export async function plugSimulated(
  db: Database,
  hand: Hand | null,
  sampleId: string,
  input: SimulatedDeviceInput,
): Promise<SimulatedBenchState> {
  const state = hand ? await hand.state() : NO_SIMULATED_BENCH;
  if (!hand || !state.there) throw noBench();
  const { model } = await getSample(db, sampleId);
  if (!state.chargers.includes(model.model)) throw cannotPlay(model.model, state.chargers);
  if (!model.ports.some(({ label }) => label === input.port))
    throw refused('port', `There is no port "${input.port}".`);
  if (input.device !== null && !state.devices.includes(input.device))
    throw refused('device', `The simulated bench has no ${input.device}. It has ${state.devices.join(', ')}.`);
  await hand.plug(model.model, input);
  return hand.state();
}

/** The demo's one button: the sample's namesake goes onto the simulated bench, a sheet is made and run. */
export async function runSimulated(
  db: Database,
  hand: Hand | null,
  runner: Runner,
  sampleId: string,
  { methodId, person, speed }: SimulatedInput,
): Promise<SheetRun> {
  const state = hand ? await hand.state() : NO_SIMULATED_BENCH;
  if (!hand || !state.there) throw noBench();
  const sample = await getSample(db, sampleId);
  const { kind, model } = sample.model;
  const plays = kind === 'cable' ? state.cables : state.chargers;
  if (!plays.includes(model)) throw cannotPlay(model, plays);
  const rig = (await listRigs(db)).find(({ name }) => name === SIMULATED_RIG);
  if (!rig) throw conflict(`The rig "${SIMULATED_RIG}" is not on the bench any more.`);
  const own = new Set<string | null | undefined>([...Object.values(rig.meters), ...Object.values(rig.drives ?? {})]);
  const taken = (await listLeases(db)).find(({ instrumentId }) => own.has(instrumentId));
  if (taken) throw conflict(`The simulated bench belongs to ${taken.person}'s run "${taken.title}".`);
  await (kind === 'cable' ? hand.put(FEEDER, speed, model) : hand.put(model, speed));
  const sheet = await createSheet(db, sampleId, { methodId, rigId: rig.id });
  return runner.start(sheet.id, { person, tag: sample.tag, watched: true });
}
