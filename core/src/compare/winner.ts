// Who is first, and whether that can be said: only where the lead exceeds the uncertainty.
import type { Better } from '../measure/index.ts';
import { drawing } from './draws.ts';
import { asLess } from './edge.ts';
import type { Compared } from './values.ts';

/** From here on a lead is called. */
export const CALLED = 0.95;
const DRAWS = 20_000;

export interface First {
  /** The one that is first as read; null where nothing is known. */
  readonly leader: string | null;
  /** Probability of being first, by id, of those with a known uncertainty. */
  readonly chances: ReadonlyMap<string, number>;
  /** Whether the lead is more than the uncertainty: probability 95 % or more, and nobody whose uncertainty is not known. */
  readonly called: boolean;
  /** Who the leader is level with: the fewest that are first together in 95 % of the draws, the leader left out. */
  readonly level: readonly string[];
  /** Those whose uncertainty nobody stated: they can be neither first nor beaten. */
  readonly unknown: readonly string[];
}

/**
 * Who is first among values of one measure under one condition.
 * @param better which way; null answers with nobody
 * @param draws how many times all are drawn @param seed of the chance
 * @example firstOf([{ id: 'a', value: 90, u: 0.1, … }, { id: 'b', value: 92, u: 0.1, … }], 'more').leader // 'b', called
 */
export function firstOf(values: readonly Compared[], better: Better, draws = DRAWS, seed?: number): First {
  const usable = values.filter(({ value }) => Number.isFinite(value));
  const known = usable.filter(({ u }) => u !== null);
  const unknown = usable.filter(({ u }) => u === null).map(({ id }) => id);
  if (better === null || known.length === 0)
    return { leader: null, chances: new Map(), called: false, level: [], unknown };
  const wins = new Float64Array(known.length);
  const draw = drawing(known, seed);
  for (let round = 0; round < draws; round += 1) {
    const drawn = draw();
    let best = 0;
    let ties = 1;
    for (let at = 1; at < drawn.length; at += 1) {
      const [one, first] = [asLess(drawn[at] ?? 0, better), asLess(drawn[best] ?? 0, better)];
      if (one < first) {
        best = at;
        ties = 1;
      } else if (one === first) ties += 1;
    }
    if (ties === 1) wins[best] = (wins[best] ?? 0) + 1;
    // Equals share the place.
    else
      for (let at = 0; at < drawn.length; at += 1) if (drawn[at] === drawn[best]) wins[at] = (wins[at] ?? 0) + 1 / ties;
  }
  const chances = new Map(known.map(({ id }, at) => [id, (wins[at] ?? 0) / draws]));
  const asRead = known.reduce((first, one) => (asLess(one.value, better) < asLess(first.value, better) ? one : first));
  const [most = asRead.id] = [...chances].sort((a, b) => b[1] - a[1]).map(([id]) => id);
  // Of two that are as likely, the one that is better as read.
  const leader = (chances.get(asRead.id) ?? 0) === (chances.get(most) ?? 0) ? asRead.id : most;
  const chance = chances.get(leader) ?? 0;
  const level: string[] = [];
  let together = chance;
  for (const [id, own] of [...chances].sort((a, b) => b[1] - a[1])) {
    if (together >= CALLED - 1e-12) break;
    if (id === leader) continue;
    level.push(id);
    together += own;
  }
  return { leader, chances, called: chance >= CALLED && unknown.length === 0, level, unknown };
}
