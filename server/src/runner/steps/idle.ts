// Idle draw: nothing drawn, energy counted over minutes, since idle comes in bursts.
import { type CaptureHead, evenly } from '@lastmark/core/capture';
import type { IdleStep } from '@lastmark/core/plan';
import { fixed } from '@lastmark/core/quantity';
import type { Attached } from '@lastmark/core/reading';
import { storeCapture, writeCapture } from '../../captures/store.ts';
import { newId } from '../../db/ids.ts';
import { storePoints, type TakenReading } from '../../readings/store.ts';
import type { Hands } from '../hands.ts';
import { proveAlive } from '../silences.ts';
import { StepFailed } from '../turns.ts';
import { energyProblem, mainsOff } from './energy.ts';
import { sourceOf, takenOf, takenReading } from './point.ts';
import { setSupply, wait } from './set-up.ts';

/** Outputs are left to empty themselves before counting, s. */
const CALM_SECONDS = 30;

/** What a person does before idle is read with something attached. */
const ATTACH: Readonly<Record<Exclude<Attached, 'nothing'>, string>> = {
  cable: 'Attach only a cable',
  'cable and meter': 'Attach only a cable and a meter',
  'screen on': 'Attach nothing and switch its screen on',
  'wireless pad on': 'Attach nothing and leave its wireless pad on',
};

/** Looks further apart than this cannot show bursts, s; fewer than this show none. */
const MOST_INTERVAL = 1;
const LEAST_LOOKS = 100;

const exactly = (value: number) => ({ value, count: 1, spread: 0 });

export async function idleStep(hands: Hands, step: IdleStep): Promise<void> {
  const { driver, looks } = hands;
  await driver.off();
  await driver.occupy([]);
  await setSupply(hands, step);
  // A charger that is off draws nothing, and that is no idle draw.
  const seen = await proveAlive(hands);
  if (step.attached !== 'nothing') await hands.person(`${ATTACH[step.attached]}, then go on.`);
  await wait(hands, CALM_SECONDS, 'Outputs empty themselves');
  const begun = looks.begin();
  const readings: TakenReading[] = [];
  if (driver.countsEnergy) {
    await driver.startEnergy();
    await wait(hands, step.dwell, 'Counting energy');
    const { joules, seconds } = await driver.energy();
    const problem = energyProblem(joules, seconds, mainsOff(hands));
    if (problem) throw new StepFailed(problem);
    readings.push(
      takenReading('energy', 'mains', null, exactly(Math.max(0, joules))),
      takenReading('duration', 'mains', null, exactly(seconds)),
    );
  } else {
    await wait(hands, step.dwell, 'Averaging input power');
    const mean = looks.mean({ quantity: 'power', place: 'mains', port: null }, begun);
    const problem = mean && energyProblem(mean.value * step.dwell, step.dwell, mainsOff(hands));
    if (problem) throw new StepFailed(problem);
    if (mean)
      readings.push(
        takenReading('power', 'mains', null, mean),
        takenReading('duration', 'mains', null, exactly(step.dwell)),
      );
  }
  if (readings.length === 0) throw new StepFailed('The meter at the mains told nothing.');
  const [first, time] = readings.map(({ typed }) => Number.parseFloat(typed));
  const watts = readings[0]?.quantity === 'energy' ? (first ?? 0) / (time ?? 1) : (first ?? 0);
  const even = evenly(looks.input(begun));
  // Seldom looks would miss the bursts; then the energy counted says all there is.
  const record = even && even.interval <= MOST_INTERVAL && even.values.length >= LEAST_LOOKS ? even : null;
  const taken = await takenOf(hands, step, begun, null);
  // What a person attached stays where it is.
  if (seen && step.attached === 'nothing') await proveAlive(hands);
  const head: CaptureHead = {
    id: newId(),
    kind: 'idle',
    mains: step.mains,
    setupId: null,
    load: 0,
    port: null,
    attached: step.attached,
    rigId: hands.rig.id,
    takenAt: new Date().toISOString(),
    source: sourceOf(hands),
    note: '',
    supersedes: null,
    withdrawn: false,
  };
  const kept =
    record &&
    (await writeCapture(hands.db, head, {
      interval: record.interval,
      columns: { watts: record.values },
      gaps: record.gaps,
    }));
  await hands.db.transaction(async (tx) => {
    const id = newId();
    await storePoints(
      tx,
      hands.run.sample.id,
      [
        {
          id,
          mains: step.mains,
          load: 0,
          attached: step.attached,
          rigId: hands.rig.id,
          takenAt: new Date().toISOString(),
          taken,
          readings,
        },
      ],
      sourceOf(hands),
    );
    if (kept) await storeCapture(tx, hands.run.sample.id, head, kept, false);
    await hands.finish(tx, {
      state: 'done',
      says: `${fixed(watts * 1000, 1)} mW over ${fixed(step.dwell / 60, 0)} min${seen ? '' : '; that the charger was on, nobody saw'}`,
      madeIds: [id],
    });
  });
}
