// Which way a step is carried out.
import type { SheetStep, StepKind } from '@lastmark/core/plan';
import type { Hands } from '../hands.ts';
import { bendStep } from './bend.ts';
import { keypadStep } from './by-hand.ts';
import { captureStep } from './capture.ts';
import { chargeStep } from './charge.ts';
import { holdStep } from './hold.ts';
import { idleStep } from './idle.ts';
import { pointStep } from './point.ts';
import { readOutStep } from './read-out.ts';
import { resistanceStep } from './resistance.ts';
import { rigStep } from './rig.ts';
import { wait } from './set-up.ts';
import { splitStep } from './split.ts';

async function coolStep(hands: Hands, step: SheetStep<'cool'>): Promise<void> {
  await hands.driver.off();
  await wait(hands, step.dwell, 'Cooling down');
  await hands.finish(hands.db, { state: 'done', says: 'Loads off.', madeIds: [] });
}

type Way<Kind extends StepKind> = (hands: Hands, step: SheetStep<Kind>) => Promise<void>;

/** How the instruments carry out each kind of step; what they cannot do is done by hand. */
const WAYS: { readonly [Kind in StepKind]: Way<Kind> } = {
  rig: rigStep,
  idle: idleStep,
  'read-out': readOutStep,
  point: pointStep,
  split: splitStep,
  'warm-up': holdStep,
  hold: holdStep,
  capture: captureStep,
  cool: coolStep,
  device: keypadStep,
  charge: chargeStep,
  resistance: resistanceStep,
  bend: bendStep,
  'by hand': keypadStep,
};

/** Steps that are carried out the same way whoever reads the meters. */
const ALIKE: readonly StepKind[] = ['cool', 'bend'];

const carryOut = <Kind extends StepKind>(hands: Hands, kind: Kind, step: SheetStep<Kind>): Promise<void> =>
  WAYS[kind](hands, step);

/** Carry out a step to its outcome. @throws Turn, Fault, StepFailed and what instruments and database raise */
export const doStep = (hands: Hands, step: SheetStep): Promise<void> =>
  step.by === 'keypad' && !ALIKE.includes(step.kind) ? keypadStep(hands, step) : carryOut(hands, step.kind, step);
