// The drop along what sits in the line, current by current, in one plugging.
import type { CableRunInput } from '@lastmark/contract';
import { bendsOf } from '@lastmark/core/cable';
import type { ResistanceStep } from '@lastmark/core/plan';
import { fixed } from '@lastmark/core/quantity';
import { listCableRuns, storeCableRun } from '../../cables/store.ts';
import { newId } from '../../db/ids.ts';
import type { Hands } from '../hands.ts';
import { StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { freshLooks, setUp, wait } from './set-up.ts';

type Drop = (CableRunInput & { kind: 'resistance' })['steps'][number];

/** Looks behind each current. */
const LOOKS = 10;

/** One current, as both meters see it. @throws StepFailed when a meter tells nothing */
async function dropAt(hands: Hands, step: ResistanceStep, amps: number): Promise<Drop> {
  const { looks } = hands;
  const [output] = step.outputs;
  if (!output) throw new StepFailed('The step names no end to load.');
  const each = step.dwell / Math.max(1, step.currents.length);
  const loaded = { ...step, outputs: [{ ...output, amps }], load: amps > 0 ? 1 : 0 };
  await setUp(hands, loaded, step.dwell);
  await wait(hands, each, `At ${fixed(amps, 2)} A`);
  const from = await freshLooks(hands, loaded, `At ${fixed(amps, 2)} A`, LOOKS);
  const mean = (quantity: 'voltage' | 'current', place: 'port' | 'load-end') =>
    looks.mean({ quantity, place, port: output.port }, from)?.value ?? null;
  const near = mean('voltage', 'port');
  const far = mean('voltage', 'load-end');
  const drawn = mean('current', 'port');
  if (near === null || far === null || drawn === null)
    throw new StepFailed('A meter told nothing at this current: both ends and the current are needed.');
  return { amps: Math.max(0, drawn), near, far, drop: null, temperature: looks.heat().room };
}

export async function resistanceStep(hands: Hands, step: ResistanceStep): Promise<void> {
  const { driver, rig, run, db, outputs } = hands;
  if (rig.outputPlace !== 'port' || !rig.meters.loadEnd)
    throw new StepFailed('A drop needs a meter at both ends. Choose a rig that reads at the port and at the load end.');
  if (step.replug) {
    outputs.rest();
    await driver.off();
    await hands.person('Loads are off. Pull both plugs and put them in again, then go on.');
    driver.forgetLevels();
  }
  const steps: Drop[] = [];
  for (const amps of step.currents) steps.push(await dropAt(hands, step, amps));
  outputs.rest();
  await driver.off();
  const top = steps.at(-1);
  await db.transaction(async (tx) => {
    const id = newId();
    await storeCableRun(tx, run.sample.id, {
      id,
      kind: 'resistance',
      takenAt: new Date().toISOString(),
      bends: bendsOf(await listCableRuns(tx, run.sample.id)),
      note: sourceOf(hands),
      supersedes: null,
      withdrawn: false,
      rigId: rig.id,
      how: 'two meters',
      side: 'loop',
      steps,
    });
    const says = top && `${fixed((top.near ?? 0) - (top.far ?? 0), 4)} V lost at ${fixed(top.amps, 3)} A`;
    await hands.finish(tx, { state: 'done', says: `${steps.length} currents: ${says}`, madeIds: [id] });
  });
}
