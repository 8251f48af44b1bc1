// Only like with like: one condition of a measure for all, the one most samples share first.

/** A value of one sample as it is compared. SI. */
export interface Compared {
  readonly id: string;
  readonly value: number;
  /** Standard uncertainty; null while not known, 0 where there is none to tell. */
  readonly u: number | null;
  /** The part of it common to all the same meters read. */
  readonly common: number;
  /** Meters behind it; empty for none. */
  readonly meters: string;
  /** It is somewhere from 0 to the value: the meter reads no lower. */
  readonly below: boolean;
  readonly at: string | null;
}

export interface ConditionCount {
  readonly condition: string;
  readonly count: number;
}

/**
 * Conditions of a measure by how many samples of a set have a value under each, the most shared first.
 * @example sharedConditions([{ id: 'a', condition: '230 V' }, { id: 'b', condition: '230 V' }, { id: 'a', condition: '115 V' }])[0]
 */
export function sharedConditions(
  values: readonly { readonly id: string; readonly condition: string }[],
): readonly ConditionCount[] {
  const ids = new Map<string, Set<string>>();
  for (const { id, condition } of values) {
    const known = ids.get(condition) ?? new Set<string>();
    ids.set(condition, known.add(id));
  }
  return [...ids]
    .map(([condition, own]) => ({ condition, count: own.size }))
    .sort((a, b) => b.count - a.count || (a.condition < b.condition ? -1 : 1));
}
