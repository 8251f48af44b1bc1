// Lowest, highest and mean of ever longer stretches: what a picture of any stretch of any trace is drawn from.
import type { Values } from './types.ts';

/** Samples of one stretch of the first level, and stretches of a level in one of the next. */
export const FIRST_STRETCH = 64;
export const NEXT_STRETCH = 16;

/** Stretches of one level, three numbers each: lowest, highest, mean; NaN where nothing was told. */
export interface TraceLevel {
  /** Samples in each stretch. */
  readonly stretch: number;
  readonly triples: Float32Array;
}

/** Levels above the samples, the finest first; none for a trace that needs none. */
export function levelsAbove(values: Values): readonly TraceLevel[] {
  if (values.length <= FIRST_STRETCH) return [];
  const levels: TraceLevel[] = [{ stretch: FIRST_STRETCH, triples: joined(values, 1, 0, FIRST_STRETCH) }];
  for (let last = levels[0]; last && last.triples.length / 3 > 4 * NEXT_STRETCH; last = levels.at(-1))
    levels.push({ stretch: last.stretch * NEXT_STRETCH, triples: joined(last.triples, 3, 2, NEXT_STRETCH) });
  return levels;
}

/**
 * So many entries as one each: lowest of their first, highest of their second, mean of their last number.
 * @param size numbers of an entry: 1 for samples, 3 for stretches @param meanAt where its mean stands
 */
function joined(entries: Values, size: 1 | 3, meanAt: 0 | 2, together: number): Float32Array {
  const all = entries.length / size;
  const count = Math.ceil(all / together);
  const highAt = size === 3 ? 1 : 0;
  const triples = new Float32Array(3 * count);
  for (let index = 0; index < count; index += 1) {
    let low = Number.POSITIVE_INFINITY;
    let high = Number.NEGATIVE_INFINITY;
    let sum = 0;
    let told = 0;
    for (let at = index * together; at < Math.min(all, (index + 1) * together); at += 1) {
      const mean = entries[at * size + meanAt] as number;
      if (Number.isNaN(mean)) continue;
      const least = entries[at * size] as number;
      const most = entries[at * size + highAt] as number;
      if (least < low) low = least;
      if (most > high) high = most;
      sum += mean;
      told += 1;
    }
    triples[3 * index] = told > 0 ? low : Number.NaN;
    triples[3 * index + 1] = told > 0 ? high : Number.NaN;
    triples[3 * index + 2] = told > 0 ? sum / told : Number.NaN;
  }
  return triples;
}

/** The samples of one stretch a picture of so many samples in so many buckets is drawn from; 1 for the samples themselves. */
export function stretchFor(samples: number, buckets: number): number {
  const each = samples / buckets;
  if (each < FIRST_STRETCH) return 1;
  let stretch = FIRST_STRETCH;
  while (stretch * NEXT_STRETCH <= each) stretch *= NEXT_STRETCH;
  return stretch;
}
