// The rig proves itself: calibration, what load and line can take, zero of every meter, the cable between the meters.
import {
  calibrations,
  lineCapacity,
  loadCapacity,
  mainsOf,
  meterZero,
  type RigLine,
  referenceCable,
} from '@lastmark/core/plan';
import { specFor } from '@lastmark/core/reading';
import { specLimit } from '@lastmark/core/uncertainty';
import type { Hands } from '../hands.ts';
import type { Spot } from '../looks.ts';
import { Fault } from '../turns.ts';
import { freshLooks, setUp, wait } from './set-up.ts';

const CALM_SECONDS = 3;
/** The line is measured with this much, A. */
const REFERENCE_AMPS = 1;

function zeroSpots({ rig, ports }: Hands): Spot[] {
  const [port = null] = ports;
  const place = rig.outputPlace;
  return [
    { quantity: 'power', place: 'mains', port: null },
    { quantity: 'voltage', place, port },
    { quantity: 'current', place, port },
    ...(place === 'port' && rig.meters.loadEnd ? [{ quantity: 'voltage', place: 'load-end', port } as const] : []),
  ];
}

async function zeros(hands: Hands): Promise<RigLine[]> {
  const { driver, looks, rig, own } = hands;
  await driver.mainsOff();
  if (!driver.setsMains)
    await hands.person('Switch the supply off and pull the charger from it: the meters are read at zero. Then go on.');
  await driver.unplugAll();
  await wait(hands, CALM_SECONDS, 'Everything off');
  const from = await freshLooks(hands, { outputs: [] }, 'Zero of the meters');
  return zeroSpots(hands).map((spot) => {
    const { mains, outputVolts, outputAmps, loadEnd } = rig.meters;
    const id =
      spot.place === 'mains'
        ? mains
        : spot.place === 'load-end'
          ? rig.outputPlace === 'load-end'
            ? outputVolts
            : loadEnd
          : spot.quantity === 'current'
            ? outputAmps
            : outputVolts;
    const name = `${own.find((one) => one.id === id)?.name ?? 'the meter'}, ${spot.quantity}`;
    return meterZero(
      name,
      spot.quantity,
      looks.mean(spot, from)?.value ?? null,
      specFor(spot.quantity, spot.place, rig, own),
    );
  });
}

/** One ampere at 5 V through the line: what is lost between the two voltmeters is its resistance. */
async function line(hands: Hands): Promise<RigLine> {
  const { rig, ports, run, looks, own } = hands;
  if (hands.inLine) return { what: 'Reference cable', state: 'know', says: 'The sample takes its place.' };
  const stated = rig.leadOhms || 0;
  const port = ports[0];
  const mains = run.steps.map(mainsOf).find((one) => one !== null);
  if (rig.outputPlace !== 'port' || !rig.meters.loadEnd || !port || !mains) return referenceCable(stated, null, 0);
  const step = { mains, outputs: [{ port, volts: 5, amps: REFERENCE_AMPS }], load: 1, attended: false };
  await setUp(hands, step, CALM_SECONDS);
  await wait(hands, CALM_SECONDS, 'Reference cable at 5 V 1 A');
  const from = await freshLooks(hands, step, 'Reference cable at 5 V 1 A');
  const near = looks.mean({ quantity: 'voltage', place: 'port', port }, from);
  const far = looks.mean({ quantity: 'voltage', place: 'load-end', port }, from);
  const amps = looks.mean({ quantity: 'current', place: 'port', port }, from);
  hands.outputs.rest();
  await hands.driver.off();
  if (!near || !far || !amps || amps.value < 0.5) return referenceCable(stated, null, 0);
  const limits = (['port', 'load-end'] as const).map((place) => {
    const spec = specFor('voltage', place, rig, own);
    return spec ? specLimit(spec, near.value) : 0;
  });
  return referenceCable(stated, (near.value - far.value) / amps.value, Math.hypot(...limits) / amps.value);
}

export async function rigStep(hands: Hands): Promise<void> {
  const { own, run, rig, ports } = hands;
  const today = new Date().toISOString().slice(0, 10);
  const load = own.find(({ id }) => id === rig.drives?.load);
  const lines = [
    calibrations(own, today),
    loadCapacity(load?.name ?? 'the load', load?.ratings, ports.length, run.steps),
    lineCapacity(rig, run.steps),
    ...(await zeros(hands)),
    await line(hands),
  ];
  const stops = lines.filter(({ state }) => state === 'stop');
  if (stops.length > 0)
    throw new Fault(`The rig does not prove itself. ${stops.map(({ what, says }) => `${what}: ${says}`).join(' ')}`);
  await hands.finish(hands.db, {
    state: 'done',
    says: lines.map(({ what, says }) => `${what}: ${says}`).join('\n'),
    madeIds: [],
  });
}
