// The order of a trial, drawn once and the same ever after; and what may not be taken as a run of it.
import { seededRandom } from '../random/index.ts';
import { type Slot, sameCell, standingRuns, type Trial, type TrialRun } from './types.ts';

const shuffled = <T>(of: readonly T[], random: () => number): readonly T[] => {
  const all = [...of];
  for (let at = all.length - 1; at > 0; at -= 1) {
    const other = Math.floor(random() * (at + 1));
    [all[at], all[other]] = [all[other] as T, all[at] as T];
  }
  return all;
};

/** Every cell of a table. */
const cellsOf = (sizes: readonly number[]): readonly (readonly number[])[] =>
  sizes.reduce<readonly (readonly number[])[]>(
    (cells, size) => cells.flatMap((cell) => Array.from({ length: size }, (_, at) => [...cell, at])),
    [[]],
  );

/** How many there are to choose from, of each thing that is changed. */
export const sizesOf = (trial: Trial): readonly number[] =>
  trial.kind === 'blocks' ? [trial.arms.length] : trial.factors.map(({ levels }) => levels.length);

/**
 * The runs of a trial in the order they are to be taken. Within each block the order is drawn; of two arms each goes first as
 * often as the other, so that what comes first and what drifts hits both alike.
 * @example trialOrder(trial).map(({ cell }) => cell[0]) // [1, 0, 0, 1]
 */
export function trialOrder(trial: Trial): readonly Slot[] {
  const random = seededRandom(trial.seed);
  const cells = cellsOf(sizesOf(trial));
  const blocks = Array.from({ length: Math.max(0, Math.floor(trial.blocks)) }, (_, block) => block);
  if (trial.kind === 'blocks' && cells.length === 2) {
    const half = blocks.map((block) => block % 2);
    // An odd one over is drawn as well.
    if (half.length % 2 === 1 && random() < 0.5) half[half.length - 1] = 1;
    const first = shuffled(half, random);
    return blocks.flatMap((block) => {
      const one = first[block] as number;
      return [one, 1 - one].map((arm) => ({ block, cell: [arm] }));
    });
  }
  return blocks.flatMap((block) => shuffled(cells, random).map((cell) => ({ block, cell })));
}

/** What is to be run next; null when all is done. */
export const nextSlot = (trial: Trial, runs: readonly TrialRun[]): Slot | null => {
  const standing = standingRuns(runs);
  return trialOrder(trial).find((slot) => !standing.some((run) => sameCell(run, slot))) ?? null;
};

const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * Why a run is none of this trial, in a sentence; null when it is. A run in which a second thing was another than is held cannot
 * tell which of both made the difference.
 */
export function trialRunRefusal(trial: Trial, runs: readonly TrialRun[], run: TrialRun): string | null {
  if (run.withdrawn) return null;
  if (!trialOrder(trial).some((slot) => sameCell(slot, run))) return 'This trial has no such run.';
  if (!Number.isFinite(run.value)) return 'Type what was measured.';
  const other = standingRuns(runs).find((one) => one.id !== run.supersedes && sameCell(one, run));
  if (other) return 'This run is there already. Correct it, or take it back first.';
  for (const { name, value } of trial.held) {
    const was = run.held.find((one) => plain(one.name) === plain(name));
    if (!was) return `It does not say how “${name}” was: the trial holds it at ${value}.`;
    if (plain(was.value) !== plain(value))
      return `“${name}” was ${was.value}, and the trial holds it at ${value}: with two things changed nobody can tell which of them it was. Take the run again at ${value}, or make it a trial of its own.`;
  }
  return null;
}
