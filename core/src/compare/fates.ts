// What became of units after they were reported on: how long each was in use, and whether it failed then.
import type { Fate } from '../survival/index.ts';

/** What was told of a unit on a day. */
export interface Told {
  readonly id: string;
  /** ISO day it was bought, or taken in. */
  readonly since: string;
  /** ISO day it was told. */
  readonly on: string;
  readonly failed: boolean;
}

export interface UnitFate extends Fate {
  readonly id: string;
}

const DAY = 86_400_000;

/**
 * A fate a unit: the day it first failed, or the last on which it was told to be well. Units nobody followed up are left out: nobody knows.
 * @returns days in use in `at`; what was told before the unit was bought counts as day 0
 * @example fatesOf([{ id: 'a', since: '2025-01-01', on: '2025-07-01', failed: true }]) // [{ id: 'a', at: 181, failed: true }]
 */
export function fatesOf(all: readonly Told[]): readonly UnitFate[] {
  const fates = new Map<string, UnitFate>();
  for (const { id, since, on, failed } of all) {
    const days = Math.round((Date.parse(on) - Date.parse(since)) / DAY);
    if (!Number.isFinite(days)) continue;
    const at = Math.max(0, days);
    const before = fates.get(id);
    const takesOver = !before || (failed ? !before.failed || at < before.at : !before.failed && at > before.at);
    if (takesOver) fates.set(id, { id, at, failed });
  }
  return [...fates.values()];
}
