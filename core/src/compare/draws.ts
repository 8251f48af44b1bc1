// Values as they might be: drawn from their uncertainties, what the same meters read together.
import { seededNormal, seededRandom } from '../random/index.ts';
import type { Compared } from './values.ts';

/** Chance that is the same each time it is asked for the same set. */
const SEED = 20_260_302;

/**
 * Draws every value anew, into an array of its own that is used again.
 * The part common to one set of meters is drawn once for all it read, in proportion to each value's own; the rest for each alone
 * (JCGM 101:2008, 6.4). A value that is surely below a bound is anywhere from nought to it. A value whose uncertainty is not known
 * stays as it is: whoever asks must leave it out.
 */
export function drawing(values: readonly Compared[], seed = SEED): () => Float64Array {
  const random = seededRandom(seed);
  const normal = seededNormal(random);
  const groups = [...new Set(values.map(({ meters }) => meters).filter((meters) => meters !== ''))];
  const of = values.map(({ meters }) => groups.indexOf(meters));
  const own = values.map(({ u, common, meters }) => {
    const total = u ?? 0;
    const shared = meters === '' ? 0 : Math.min(common, total);
    return { shared, alone: Math.sqrt(Math.max(0, total * total - shared * shared)) };
  });
  const errors = new Float64Array(groups.length);
  const drawn = new Float64Array(values.length);
  return () => {
    for (let at = 0; at < errors.length; at += 1) errors[at] = normal();
    values.forEach(({ value, below }, at) => {
      const { shared, alone } = own[at] ?? { shared: 0, alone: 0 };
      drawn[at] = below
        ? value * random()
        : value + shared * (errors[of[at] ?? -1] ?? 0) + (alone > 0 ? alone * normal() : 0);
    });
    return drawn;
  };
}
