// A change that counts: more than its uncertainty.

export interface Change {
  /** Difference of the last to the first, and its expanded uncertainty; null while one is not known. */
  readonly value: number;
  readonly expanded: number | null;
  /** Beyond its uncertainty. */
  readonly changed: boolean;
  readonly from: string;
  readonly to: string;
}

/** How one sample changed over its life: the newest value against the oldest, each of a day. @returns null of fewer than two days */
export function changeOf(
  days: readonly { readonly at: string; readonly value: number; readonly u: number | null }[],
): Change | null {
  const sorted = days.filter(({ value }) => Number.isFinite(value)).sort((a, b) => (a.at < b.at ? -1 : 1));
  const [first, last] = [sorted[0], sorted.at(-1)];
  if (!first || !last || first.at === last.at) return null;
  const value = last.value - first.value;
  const expanded = first.u === null || last.u === null ? null : 2 * Math.hypot(first.u, last.u);
  return { value, expanded, changed: expanded !== null && Math.abs(value) > expanded, from: first.at, to: last.at };
}
