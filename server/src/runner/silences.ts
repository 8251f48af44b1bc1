// What is done about an output that fell silent: it is written down as found, and proved again before anything counts.
import { mainsOf, portsOf, type SheetStep } from '@lastmark/core/plan';
import { fixed } from '@lastmark/core/quantity';
import { newId } from '../db/ids.ts';
import { ProblemError } from '../http/problem.ts';
import { storeRun } from '../runs/store.ts';
import type { Hands } from './hands.ts';
import { setSupply, wait } from './steps/set-up.ts';
import { Silent, StepFailed } from './turns.ts';

/** After a plug goes in, s. */
const CALM_SECONDS = 2;
/** The lowest voltage any port gives that is there, V: 5 V less what USB allows it to sag. */
const THERE_VOLTS = 4;
const PROVING_LOOKS = 3;
/** How long the supply stays off, so that bulk and latches forget, s. */
const CYCLE_SECONDS = 10;

/** Keep a cut-off or a dropped level as a run of its own. @returns its id, none where nothing was loaded */
export async function recordSilence(hands: Hands, { finding }: Silent): Promise<string[]> {
  if (!finding) return [];
  const id = newId();
  try {
    await hands.db.transaction(async (tx) => {
      await hands.mine(tx);
      await storeRun(tx, hands.run.sample.id, {
        ...finding,
        id,
        rigId: hands.rig.id,
        takenAt: new Date().toISOString(),
      });
    });
    return [id];
  } catch (error) {
    // What cannot be kept as a run still stands in what the run says.
    if (!(error instanceof ProblemError)) throw error;
    hands.log.warn({ err: error, run: hands.run.id }, 'a silence could not be kept as a run');
    return [];
  }
}

/** Voltage of a port alone, freshly plugged and without load; null where the rig does not tell. */
async function voltsAlone(hands: Hands, port: string): Promise<number | null> {
  const { driver } = hands;
  await driver.occupy([]);
  await driver.occupy([port]);
  await wait(hands, CALM_SECONDS, `Is ${port} there?`);
  return freshVolts(hands, port);
}

/** Voltage of a port from looks that began after now; null where the rig does not tell. */
async function freshVolts(hands: Hands, port: string): Promise<number | null> {
  const { looks, rig } = hands;
  const spot = { quantity: 'voltage', place: rig.outputPlace, port } as const;
  const meter = looks.meterAt(spot);
  if (meter === null || !hands.telling.includes(meter)) return null;
  const { mark } = looks;
  await hands.until(
    () => looks.after(spot, mark).count >= PROVING_LOOKS,
    () => ({ doing: `Is ${port} there?`, share: 0, left: null }),
  );
  return looks.newest(spot);
}

/** Ports of a step that fell silent are looked at alone. @throws Silent while one is */
export async function proveOutputs(hands: Hands, step: SheetStep): Promise<void> {
  const { driver, outputs } = hands;
  const ports = portsOf(step).filter((port) => outputs.isUnproved(port));
  if (ports.length === 0) return;
  const mains = mainsOf(step);
  await driver.off();
  if (mains) await setSupply(hands, { mains });
  for (const port of ports) {
    const volts = await voltsAlone(hands, port);
    if (volts !== null && volts < THERE_VOLTS)
      throw new Silent([port], 'cut off', `${port} is still silent: ${fixed(volts, 1)} V.`);
    outputs.proved([port]);
  }
  driver.forgetLevels();
}

/**
 * Whether the charger lives at all: the first port that gives 5 V shows it. Everything is unplugged again.
 * @returns false where nobody can tell
 * @throws Silent when no port gives anything
 */
export async function proveAlive(hands: Hands): Promise<boolean> {
  const { driver, ports } = hands;
  // Moving plugs by hand for it would disturb more than it tells.
  if (!driver.loads || driver.plugsByHand) return false;
  let told = false;
  for (const port of ports) {
    const volts = await voltsAlone(hands, port);
    if (volts === null) continue;
    told = true;
    if (volts < THERE_VOLTS) continue;
    await driver.occupy([]);
    return true;
  }
  if (told) throw new Silent(ports, 'cut off', `Nothing comes out of ${ports.join(', ')}: the charger is off.`);
  return false;
}

/** Supply off until the charger has forgotten, and on again with the next step. */
export async function cycleSupply(
  { driver, looks }: Hands,
  { tick, raiseEnd }: { readonly tick: () => Promise<void>; readonly raiseEnd: () => void },
): Promise<void> {
  await driver.mainsOff();
  const begun = { seconds: looks.seconds, at: Date.now() };
  // A bench whose clock is the meter's may stand still without supply.
  while (looks.seconds - begun.seconds < CYCLE_SECONDS && Date.now() - begun.at < CYCLE_SECONDS * 1000) {
    raiseEnd();
    await tick();
  }
}

/** A port that has to give something before what comes next means anything. @throws Silent when it does not */
export async function mustGive(hands: Hands, port: string): Promise<void> {
  const volts = await freshVolts(hands, port);
  if (volts !== null && volts < THERE_VOLTS)
    throw new Silent([port], 'cut off', `${port} gives nothing: ${fixed(volts, 1)} V.`);
}

/** A port that offers nothing: it is silent, or it knows no PD. @param where said behind the port */
export async function offersNothing(hands: Hands, port: string, where = ''): Promise<never> {
  const volts = await freshVolts(hands, port);
  if (volts !== null && volts < THERE_VOLTS)
    throw new Silent([port], 'cut off', `${port} gives nothing${where}: ${fixed(volts, 1)} V.`);
  throw new StepFailed(
    `${port} offers nothing${where}${volts === null ? ': no PD, or no power' : ': it gives 5 V without PD'}.`,
  );
}
