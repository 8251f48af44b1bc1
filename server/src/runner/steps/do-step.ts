// Which way a step is carried out.
import type { SheetStep } from '@lastmark/core/plan';
import type { Bench } from '../hands.ts';
import { keypadStep } from './by-hand.ts';
import { captureStep } from './capture.ts';
import { holdStep } from './hold.ts';
import { idleStep } from './idle.ts';
import { pointStep } from './point.ts';
import { readOutStep } from './read-out.ts';
import { rigStep } from './rig.ts';
import { wait } from './set-up.ts';
import { splitStep } from './split.ts';

async function coolStep(bench: Bench, step: SheetStep): Promise<void> {
  await bench.driver.off();
  await wait(bench, step.dwell, 'Cooling down');
  await bench.finish(bench.db, { state: 'done', says: 'Loads off.', madeIds: [] });
}

/** Carry out a step to its outcome. @throws Turn, Fault, StepFailed and what instruments and database raise */
export function doStep(bench: Bench, step: SheetStep): Promise<void> {
  if (step.by === 'keypad' && step.kind !== 'cool') return keypadStep(bench, step);
  switch (step.kind) {
    case 'rig':
      return rigStep(bench, step);
    case 'idle':
      return idleStep(bench, step);
    case 'read-out':
      return readOutStep(bench, step);
    case 'point':
      return pointStep(bench, step);
    case 'split':
      return splitStep(bench, step);
    case 'warm-up':
    case 'hold':
      return holdStep(bench, step);
    case 'capture':
      return captureStep(bench, step);
    case 'cool':
      return coolStep(bench, step);
    default:
      return keypadStep(bench, step);
  }
}
