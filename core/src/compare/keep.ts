// Keep what you have, or not: whether another is better in something, beyond the uncertainty, and worse in nothing.
import type { Better } from '../measure/index.ts';
import { stepBetween } from './bridge.ts';
import type { Compared } from './values.ts';

export interface Rival {
  readonly id: string;
  /** Measures in which it is better beyond the uncertainty. */
  readonly better: readonly string[];
  /** Measures in which neither can be told to be better. */
  readonly level: readonly string[];
}

/** Fewer measures in common say nothing of two samples. */
const FEWEST_COMMON = 3;

/**
 * Others that are better in something and worse in nothing of what both have, those better in most first.
 * @param columns measures with a better side; others are passed over
 * @example rivalsOf('own', columns) // [] : keep what you have
 */
export function rivalsOf(
  id: string,
  columns: readonly {
    readonly title: string;
    readonly better: Better;
    readonly values: ReadonlyMap<string, Compared>;
  }[],
): readonly Rival[] {
  const judged = columns.filter(({ better }) => better !== null);
  const ids = new Set(judged.flatMap(({ values }) => [...values.keys()]));
  ids.delete(id);
  return [...ids]
    .flatMap((other): Rival[] => {
      const better: string[] = [];
      const level: string[] = [];
      for (const { title, better: way, values } of judged) {
        const [own, theirs] = [values.get(id), values.get(other)];
        if (!own || !theirs) continue;
        const step = stepBetween(own, theirs, way);
        if (step?.better === 'first') return [];
        (step?.better === 'second' ? better : level).push(title);
      }
      return better.length > 0 && better.length + level.length >= FEWEST_COMMON ? [{ id: other, better, level }] : [];
    })
    .sort((a, b) => b.better.length - a.better.length || (a.id < b.id ? -1 : 1));
}
