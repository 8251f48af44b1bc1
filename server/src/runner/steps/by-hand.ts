// Steps a person does: set it up, read the meters, type; or use a real device and say what it took.
import type { Ask } from '@lastmark/contract';
import type { DeviceStep, IdleStep, PointStep, SheetStep } from '@lastmark/core/plan';
import { parseQuantity } from '@lastmark/core/quantity';
import { newId } from '../../db/ids.ts';
import { listDevices } from '../../devices/store.ts';
import { refused } from '../../http/problem.ts';
import { storePoints } from '../../readings/store.ts';
import { storeRun } from '../../runs/store.ts';
import { loadingFor } from '../../setups/store.ts';
import type { Hands } from '../hands.ts';
import { StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';

type Recorded = Ask & { kind: 'record' };

async function keepPoint(hands: Hands, step: PointStep | IdleStep, { readings }: Recorded): Promise<void> {
  const sampleId = hands.run.sample.id;
  await hands.db.transaction(async (tx) => {
    const setup =
      step.kind === 'idle' ? null : await loadingFor(tx, sampleId, step.outputs, hands.rig.id, step.station);
    const id = newId();
    await storePoints(
      tx,
      sampleId,
      [
        {
          id,
          setupId: setup?.id ?? null,
          mains: step.mains,
          load: step.kind === 'idle' ? 0 : step.load,
          attached: step.kind === 'idle' ? step.attached : 'nothing',
          rigId: hands.rig.id,
          takenAt: new Date().toISOString(),
          readings: readings.map((one) => ({ ...one, id: newId() })),
        },
      ],
      `${sourceOf(hands)}, keypad`,
    );
    await hands.finish(tx, {
      state: 'done',
      says: readings.map(({ port, typed }) => `${port ?? 'mains'} ${typed}`).join(' · '),
      madeIds: [id],
    });
  });
}

const numberOf = (recorded: Recorded, quantity: 'voltage' | 'power'): number | null => {
  const typed = recorded.readings.find((one) => one.quantity === quantity)?.typed;
  if (typed === undefined) return null;
  const parsed = parseQuantity(typed, quantity);
  if (!parsed.ok) throw refused('readings', parsed.reason);
  return parsed.value;
};

async function keepDevice(hands: Hands, step: DeviceStep, recorded: Recorded): Promise<void> {
  const device = (await listDevices(hands.db)).find(({ id }) => id === step.deviceId);
  const { port } = step;
  if (!device || !hands.ports.includes(port))
    throw new StepFailed('The device or the port of this step is not there any more.');
  const atPort = recorded.readings.some(({ quantity, place }) => quantity === 'power' && place === 'port');
  const watts = numberOf(recorded, 'power');
  if (watts === null || !recorded.device) throw refused('readings', 'Type the power it took, and say what it does.');
  const [ceiling] = device.ceilings;
  const { outcome, message } = recorded.device;
  await hands.db.transaction(async (tx) => {
    const id = newId();
    await storeRun(tx, hands.run.sample.id, {
      id,
      kind: 'device',
      port,
      rigId: hands.rig.id,
      takenAt: new Date().toISOString(),
      note: sourceOf(hands),
      supersedes: null,
      withdrawn: false,
      deviceId: device.id,
      connector: ceiling?.connector ?? 'C',
      lead: ceiling?.lead ?? 'not stated',
      workload: 'idle',
      charge: null,
      settled: step.dwell,
      place: atPort ? 'port' : 'mains',
      volts: numberOf(recorded, 'voltage'),
      watts,
      outcome,
      message,
    });
    await hands.finish(tx, { state: 'done', says: `${device.name}: ${watts} W, ${outcome}`, madeIds: [id] });
  });
}

/** Says what to do, waits for what was typed; a refusal stays on screen and nothing is lost. */
export async function keypadStep(hands: Hands, step: SheetStep): Promise<void> {
  if (step.kind === 'point' || step.kind === 'idle' || step.kind === 'device') {
    let says = 'Type what the meters show.';
    for (;;) {
      const recorded = await hands.typed(says);
      try {
        if (step.kind === 'device') await keepDevice(hands, step, recorded);
        else await keepPoint(hands, step, recorded);
        return;
      } catch (error) {
        if (error instanceof StepFailed || !(error instanceof Error) || !('problem' in error)) throw error;
        says = `Not taken: ${error.message}`;
      }
    }
  }
  await hands.person(
    step.kind === 'rig' ? 'Check zero of the meters, the cable and the lead, then go on.' : 'Do this, then go on.',
  );
  await hands.finish(hands.db, { state: 'done', says: 'Done by hand.', madeIds: [] });
}
