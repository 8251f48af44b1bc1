// What most steps begin with: the supply, the level of each port, the load; and what they wait for.
import type { Progress } from '@lastmark/contract';
import type { LongStep, PointStep } from '@lastmark/core/plan';
import { formatPlain } from '@lastmark/core/quantity';
import { bestReadOut } from '@lastmark/core/read-out';
import { type Mains, mainsLabel, type Output } from '@lastmark/core/reading';
import { listReadOuts } from '../../read-outs/store.ts';
import { NoOffers, SettingProblem } from '../driver-problems.ts';
import type { Hands } from '../hands.ts';
import type { Spot } from '../looks.ts';
import { offersNothing } from '../silences.ts';
import { StepFailed } from '../turns.ts';

/** After the supply comes on or a port renegotiates nothing is asked for so long, s of instrument time. */
const CALM_SECONDS = 2;
/** Looks behind a figure that needs no settling. */
const LEAST_LOOKS = 5;
/** An output this far from its level stands at another. */
const WRONG_LEVEL = 0.12;

/** A step that sets a supply, levels and a load. */
export type LoadedStep = Pick<PointStep | LongStep, 'mains' | 'outputs' | 'load' | 'attended'>;

/** Wait some seconds of the instruments' time. */
export async function wait(hands: Hands, seconds: number, doing: string): Promise<void> {
  const begun = hands.looks.seconds;
  const passed = () => hands.looks.seconds - begun;
  await hands.until(
    () => passed() >= seconds,
    (): Progress => ({
      doing,
      share: seconds > 0 ? Math.min(1, passed() / seconds) : 1,
      left: Math.max(0, seconds - passed()),
    }),
  );
}

/** Wait until looks newer than now are there. @returns time the newest-born of them begin at, s */
export async function freshLooks(
  hands: Hands,
  { outputs }: { readonly outputs: readonly Output[] },
  doing: string,
  wantedLooks = LEAST_LOOKS,
): Promise<number> {
  const { looks, rig } = hands;
  const { mark } = looks;
  const place = rig.outputPlace;
  const spots: readonly Spot[] = [
    { quantity: 'power', place: 'mains', port: null },
    ...outputs.map(({ port }) => ({ quantity: 'voltage' as const, place, port })),
  ];
  const least = () => Math.min(...spots.map((spot) => looks.after(spot, mark).count));
  await hands.until(
    () => least() >= wantedLooks,
    () => ({ doing, share: Math.min(1, least() / wantedLooks), left: null }),
  );
  return Math.max(...spots.map((spot) => looks.after(spot, mark).from));
}

/** The supply of a step; a rig without a source asks for it. */
export async function setSupply(hands: Hands, { mains }: { readonly mains: Mains }): Promise<void> {
  const { driver } = hands;
  if (driver.hasMains(mains)) return;
  if (driver.setsMains) {
    await driver.mains(mains);
    await wait(hands, CALM_SECONDS, `Supply ${mainsLabel(mains)}`);
  } else {
    await driver.off();
    await hands.person(`Set the supply to ${mainsLabel(mains)}, then go on.`);
    driver.mainsByHand(mains);
  }
}

/** How long a meter may take to show a level that was just asked for, ms: many show a number or two a second. */
const SHOWS_MILLISECONDS = 3000;

/**
 * No load goes onto a level nobody has seen: a meter still shows the old one for a while. One that never shows it says so
 * once the load is on, as an output that dropped a level.
 */
export async function levelShown(hands: Hands, step: Pick<LoadedStep, 'outputs'>): Promise<void> {
  const { looks, rig } = hands;
  await freshLooks(hands, step, 'Level asked for', 1);
  const begun = looks.clock;
  const passed = () => (looks.clock - begun) / SHOWS_MILLISECONDS;
  const shown = () =>
    step.outputs.every(({ port, volts }) => {
      const now = looks.newest({ quantity: 'voltage', place: rig.outputPlace, port });
      return now === null || Math.abs(now - volts) <= WRONG_LEVEL * volts;
    });
  await hands.until(
    () => shown() || passed() > 1,
    () => ({ doing: 'Level asked for', share: Math.min(1, passed()), left: null }),
  );
}

/** Levels set by a person are looked at before a load goes on: a trigger may stand at another. */
async function seeLevels(hands: Hands, step: LoadedStep): Promise<void> {
  const { looks, rig } = hands;
  for (const { port, volts } of step.outputs)
    for (;;) {
      const now = looks.newest({ quantity: 'voltage', place: rig.outputPlace, port });
      if (now === null || Math.abs(now - volts) <= WRONG_LEVEL * volts) break;
      await hands.person(
        `${port} stands at ${formatPlain(Number(now.toFixed(1)), 'voltage')}, not at ${formatPlain(volts, 'voltage')}. Set the trigger, then go on.`,
      );
      await freshLooks(hands, step, 'Level set', 1);
    }
}

/**
 * Supply, plugs, levels and load of a step, which from then on are to be there. A level that cannot be had ends the step,
 * not the sheet.
 * @param planned how long the load will be on, s
 * @throws Silent when a port gives nothing
 */
export async function setUp(hands: Hands, step: LoadedStep, planned: number): Promise<void> {
  const { driver, db, run } = hands;
  await setSupply(hands, step);
  if (step.attended && step.load > 0) await hands.attend();
  if (await driver.occupy(step.outputs.map(({ port }) => port))) await wait(hands, CALM_SECONDS, 'Plugged in');
  const readOuts = driver.analyser.id ? [] : await listReadOuts(db, run.sample.id);
  let moved = false;
  for (const output of step.outputs) {
    try {
      moved = (await driver.level(output, bestReadOut(readOuts, output.port)?.words ?? [])) || moved;
    } catch (error) {
      if (error instanceof NoOffers) await offersNothing(hands, output.port);
      if (error instanceof SettingProblem) throw new StepFailed(error.message);
      // The charger's own refusal, told by the sink.
      if (error instanceof Error && /refused/i.test(error.message))
        throw new StepFailed(`${output.port} refused ${formatPlain(output.volts, 'voltage')}.`);
      throw error;
    }
  }
  if (moved) await levelShown(hands, step);
  if (moved && driver.levelsByHand) await seeLevels(hands, step);
  if (step.load === 0) await driver.off();
  else for (const { port, amps } of step.outputs) await driver.draw(port, Number((amps * step.load).toFixed(4)));
  hands.outputs.expect(step, planned);
}
