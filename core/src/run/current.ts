// Which runs stand.
import { memoOf } from '../memo/index.ts';
import type { Run } from './types.ts';

/** What is only ever added, and may be corrected or taken back. */
interface Kept {
  readonly id: string;
  readonly takenAt: string;
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

/** Runs that stand: neither corrected nor withdrawn; oldest first. */
export const currentRuns: <T extends Kept>(runs: readonly T[]) => readonly T[] = memoOf(
  <T extends Kept>(runs: readonly T[]): readonly T[] => {
    const superseded = new Set(runs.map(({ supersedes }) => supersedes));
    return runs
      .filter(({ id, withdrawn }) => !superseded.has(id) && !withdrawn)
      .sort((a, b) => a.takenAt.localeCompare(b.takenAt));
  },
);

/** A run that does not stand any more, and what took its place; a withdrawn one takes nothing's. */
export interface RunChange<T extends Kept = Run> {
  readonly was: T;
  readonly now: T;
  /** Whether nothing has taken the place of that since. */
  readonly standing: boolean;
}

/** Runs corrected or taken back, the newest change first. */
export function runChanges<T extends Kept>(runs: readonly T[]): readonly RunChange<T>[] {
  const superseded = new Set(runs.map(({ supersedes }) => supersedes));
  return runs
    .flatMap((now): RunChange<T>[] => {
      const was = now.supersedes === null ? undefined : runs.find(({ id }) => id === now.supersedes);
      return was ? [{ was, now, standing: !superseded.has(now.id) }] : [];
    })
    .reverse();
}
