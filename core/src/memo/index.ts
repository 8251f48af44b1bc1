// Remembers what was worked out of the very same objects. What is immutable and the same gives the same: still pure.

type Kept = WeakMap<object, unknown>;

/**
 * A function that works a result out once for the same objects, for as long as they are there.
 * @param work pure, and its arguments are never changed
 * @example const twice = memoOf((point: Point) => slow(point)); twice(a) === twice(a) // true
 */
export function memoOf<A extends readonly object[], R>(work: (...of: A) => R): (...of: A) => R {
  const root: Kept = new WeakMap();
  return (...of) => {
    let at = root;
    for (const part of of.slice(0, -1)) {
      let next = at.get(part) as Kept | undefined;
      if (!next) {
        next = new WeakMap();
        at.set(part, next);
      }
      at = next;
    }
    const last = of.at(-1) ?? of;
    if (!at.has(last)) at.set(last, work(...of));
    return at.get(last) as R;
  };
}

const sameItems = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((item, index) => Object.is(item, b[index]));

/**
 * A function that keeps, for each owner, its last result: lists of the same items count as the same.
 * @param work pure; what it is given beside the owner is lists of things that are never changed
 * @example const mean = memoOfLists((setup: Setup, points: readonly Point[]) => slow(points));
 */
export function memoOfLists<O extends object, A extends readonly (readonly unknown[])[], R>(
  work: (owner: O, ...lists: A) => R,
): (owner: O, ...lists: A) => R {
  const kept = new WeakMap<O, { readonly lists: A; readonly result: R }>();
  return (owner, ...lists) => {
    const last = kept.get(owner);
    if (last && lists.every((list, index) => sameItems(list, last.lists[index] ?? []))) return last.result;
    const result = work(owner, ...lists);
    kept.set(owner, { lists, result });
    return result;
  };
}

/** Items by a key, in their order: what would be looked for again and again is found at once. */
export function groupsBy<T, K>(items: readonly T[], keyOf: (item: T) => K): ReadonlyMap<K, readonly T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}
