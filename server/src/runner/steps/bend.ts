// A stretch at the bender: a person sets it, looks, and says that nothing is wrong; what is wrong is entered as seen.
import { bendsOf } from '@lastmark/core/cable';
import type { BendStep } from '@lastmark/core/plan';
import { listCableRuns, storeCableRun } from '../../cables/store.ts';
import { newId } from '../../db/ids.ts';
import type { Hands } from '../hands.ts';
import { StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';

const motion = ({ angle, radius, tension, rate }: BendStep): string =>
  [
    `${angle}° to each side`,
    `over ${Math.round(radius * 10_000) / 10} mm`,
    ...(tension === null ? [] : [`${tension} N`]),
    `${rate} a minute`,
  ].join(', ');

export async function bendStep(hands: Hands, step: BendStep): Promise<void> {
  const { db, run, driver } = hands;
  const before = bendsOf(await listCableRuns(db, run.sample.id));
  if (step.count <= before) throw new StepFailed(`It had ${before} bends already.`);
  hands.outputs.rest();
  await driver.off();
  await hands.person(
    `Unplug both ends. ${step.count - before} bends more, to ${step.count} altogether: ${motion(step)}. Then look for a loose head, a bump, a limp stretch, and wiggle it. Nothing of these? Go on. Otherwise leave this step out, and enter at Bends what you saw.`,
  );
  await db.transaction(async (tx) => {
    const id = newId();
    await storeCableRun(tx, run.sample.id, {
      id,
      kind: 'bend',
      takenAt: new Date().toISOString(),
      bends: before,
      note: sourceOf(hands),
      supersedes: null,
      withdrawn: false,
      count: step.count,
      angle: step.angle,
      radius: step.radius,
      tension: step.tension,
      rate: step.rate,
      fault: 'none',
      charging: 'not tried',
      wiggle: null,
    });
    await hands.finish(tx, { state: 'done', says: `${step.count} bends, nothing to be seen.`, madeIds: [id] });
  });
  // It was out of the line.
  driver.forgetLevels();
}
