// Which runs stand.
import { memoOf } from '../memo/index.ts';
import type { Run } from './types.ts';

/** Runs that stand: neither corrected nor withdrawn; oldest first. */
export const currentRuns: <T extends Run>(runs: readonly T[]) => readonly T[] = memoOf(
  <T extends Run>(runs: readonly T[]): readonly T[] => {
    const superseded = new Set(runs.map(({ supersedes }) => supersedes));
    return runs
      .filter(({ id, withdrawn }) => !superseded.has(id) && !withdrawn)
      .sort((a, b) => a.takenAt.localeCompare(b.takenAt));
  },
);
