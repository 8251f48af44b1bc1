// Where one sample stands among others: its rank, the mean of them, and how far up, with an interval.
import type { Better } from '../measure/index.ts';
import { drawing } from './draws.ts';
import { asLess } from './edge.ts';
import type { Compared } from './values.ts';

const DRAWS = 4000;

export interface Standing {
  /** 1 for the best; equals share a rank. */
  readonly rank: number;
  readonly of: number;
  /** Mean of all, this one included. */
  readonly mean: number;
  /** Share of the others it is better than, equals counted half, 0…1; null of one alone. */
  readonly ahead: number | null;
  /**
   * 95 % of the same by draws from the uncertainties; null of one alone, or while its own uncertainty is not known. Others whose
   * uncertainty nobody knows may lie on either side: the interval holds both.
   */
  readonly interval: readonly [number, number] | null;
}

/** How many of the others it is better than, equals counted half. */
const beatenBy = (own: number, others: readonly number[], better: Better): number =>
  others.reduce((sum, other) => {
    const [a, b] = [asLess(own, better), asLess(other, better)];
    return sum + (a < b ? 1 : a === b ? 0.5 : 0);
  }, 0);

/**
 * Where one stands among values of one measure under one condition.
 * @returns null where it has no value among them
 */
export function standingOf(id: string, values: readonly Compared[], better: Better, draws = DRAWS): Standing | null {
  const all = values.filter(({ value }) => Number.isFinite(value));
  const own = all.find((one) => one.id === id);
  if (!own) return null;
  const mean = all.reduce((sum, { value }) => sum + value, 0) / all.length;
  const rank = 1 + all.filter((one) => asLess(one.value, better) < asLess(own.value, better)).length;
  const others = all.filter((one) => one !== own).map(({ value }) => value);
  if (others.length === 0) return { rank, of: all.length, mean, ahead: null, interval: null };
  const ahead = beatenBy(own.value, others, better) / others.length;
  if (own.u === null) return { rank, of: all.length, mean, ahead, interval: null };
  const known = all.filter(({ u }) => u !== null);
  const here = known.indexOf(own);
  const draw = drawing(known);
  const told: number[] = [];
  for (let round = 0; round < draws; round += 1) {
    const drawn = draw();
    told.push(
      beatenBy(
        drawn[here] ?? own.value,
        [...drawn].filter((_one, index) => index !== here),
        better,
      ),
    );
  }
  told.sort((a, b) => a - b);
  const part = (share: number) => told[Math.min(draws - 1, Math.floor(share * draws))] ?? 0;
  const unknown = all.length - known.length;
  const interval = [part(0.025) / others.length, (part(0.975) + unknown) / others.length] as const;
  return { rank, of: all.length, mean, ahead, interval };
}
