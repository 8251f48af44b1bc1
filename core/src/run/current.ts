// Which runs stand.
import type { Run } from './types.ts';

/** Runs that stand: neither corrected nor withdrawn; oldest first. */
export function currentRuns<T extends Run>(runs: readonly T[]): readonly T[] {
  const superseded = new Set(runs.map(({ supersedes }) => supersedes));
  return runs
    .filter(({ id, withdrawn }) => !superseded.has(id) && !withdrawn)
    .sort((a, b) => a.takenAt.localeCompare(b.takenAt));
}
