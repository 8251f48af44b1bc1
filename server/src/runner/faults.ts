// What switches loads off by itself: looked at again and again while a load draws.
import { type Limits, limitPassed, type SheetStep } from '@lastmark/core/plan';
import { formatPlain } from '@lastmark/core/quantity';
import { within } from '../wait/wait.ts';
import type { RigDriver } from './driver.ts';
import type { Looks } from './looks.ts';
import { type DrawsNothing, Fault } from './turns.ts';

/** How long loads stay on with nobody at the console, ms. */
const EMPTY_MILLISECONDS = 10_000;

/** How often a watched step is confirmed, and how long that is waited for, ms. */
export interface ConfirmRule {
  readonly every: number;
  readonly grace: number;
}
export const CONFIRM: ConfirmRule = { every: 10 * 60_000, grace: 60_000 };

interface Watched {
  readonly driver: RigDriver;
  readonly looks: Looks;
  readonly limits: Limits;
  readonly step: SheetStep | null;
  /** Instruments that should tell numbers; ids. */
  readonly telling: readonly string[];
  /** How long nobody has been at the console of a run that is not to be left alone, ms; 0 for one that is. */
  readonly unwatchedSince: number;
}

/** How long a load that draws nothing may take to say whether it is on, ms: another of its channels may draw meanwhile. */
const SAYS_MILLISECONDS = 500;

/** A load that draws nothing is asked whether it is on. @returns what it is then */
export async function whyNothing(driver: RigDriver, nothing: DrawsNothing): Promise<Fault> {
  if ((await within(SAYS_MILLISECONDS, driver.saysOff())) !== true) return nothing;
  return new Fault(
    `${nothing.found}: it is off, and nobody here switched it off. Its own watchdog, a protection or a hand at its keys did; see what it shows.`,
  );
}

/** Why loads must go off now, in a sentence; null while all is well. */
export function faultNow({ driver, looks, limits, step, telling, unwatchedSince }: Watched): string | null {
  if (driver.lost) return `The connection to "${driver.loadName}" was lost while it drew.`;
  const still = looks.stands();
  if (still)
    return `"${still.name}" tells the same moment again and again: it stands still. Switch it off and on, and see that its numbers move.`;
  if (!driver.isOn) return null;
  if (driver.switchedOff) return 'Loads were switched off.';
  const passed = limitPassed(limits, driver.asked, looks.moment());
  if (passed) return passed;
  const own = step?.hottest ?? null;
  const { hottest } = looks.heat();
  if (own !== null && hottest !== null && hottest > own)
    return `Hottest spot ${formatPlain(hottest, 'temperature')}: above this step's limit.`;
  const minded = own ?? limits.hottest;
  const unminded = minded === null ? null : looks.unminded();
  if (minded !== null && unminded)
    return `${unminded}: nobody minds the limit of ${formatPlain(minded, 'temperature')}. See whether a sensor came off; to go on is to go on without it.`;
  const lost = looks.lost(telling);
  if (lost) return `"${lost.name}" tells nothing any more.`;
  if (looks.suspicion) return looks.suspicion;
  return unwatchedSince > EMPTY_MILLISECONDS ? 'Nobody is at the console, and this run is not to be left alone.' : null;
}
