// The set of a comparison. A large one comes twice: first with what the picture shows, so that it is there at once, then whole.
import type { ComparisonBody, WantedMeasure } from '@lastmark/contract/types';
import type { SetRule } from '@lastmark/core/compare';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { setQuery } from './queries.ts';

/** The rest is asked for after this, whatever is being drawn, ms. */
const LONGEST_DRAWING = 1500;

/** Ids a picture looks at where the address names none: the first, and the third from the end. */
export const usualPair = (ids: readonly string[]): readonly [string | undefined, string | undefined] => [
  ids[0],
  ids[Math.min(Math.max(1, ids.length - 3), ids.length - 1)],
];

/**
 * What the picture needs, of all that is wanted; null where that is no less, or where it is worked out of others.
 * @param params the address, which names what is looked at
 */
export function soonestOf({ measures }: ComparisonBody, params: URLSearchParams): readonly WantedMeasure[] | null {
  const view = params.get('view');
  if (view !== null && view !== 'Picture') return null;
  const [x, y] = usualPair(measures.map(({ measure }) => measure));
  const named = [params.get('x') ?? x, params.get('y') ?? y, params.get('size')];
  const seen = measures.filter(({ measure }) => named.includes(measure));
  const all = named.every((id) => id == null || seen.some(({ measure }) => measure === id));
  return all && seen.length < measures.length && seen.every(({ measure }) => !measure.startsWith('own-')) ? seen : null;
}

/** @param wanted undefined while it is not known yet @returns the query to show, and whether it brought everything */
export function useSet(
  rule: SetRule,
  wanted: readonly WantedMeasure[] | undefined,
  soonest: readonly WantedMeasure[] | null,
) {
  const all = setQuery(rule, wanted ?? []);
  const there = useQueryClient().getQueryData(all.queryKey) !== undefined;
  const soon = useQuery({ ...setQuery(rule, soonest ?? []), enabled: soonest !== null && !there });
  // The rest once the picture stands: working it out and reading it takes as long as drawing does.
  const [drawn, setDrawn] = useState(soonest === null || there);
  const { isPending } = soon;
  useEffect(() => {
    if (isPending) return;
    const idle = requestIdleCallback(() => setDrawn(true), { timeout: LONGEST_DRAWING });
    return () => cancelIdleCallback(idle);
  }, [isPending]);
  const whole = useQuery({ ...all, enabled: wanted !== undefined && drawn });
  const early = whole.data === undefined && !whole.isError && soonest !== null && soon.data !== undefined;
  return { query: early ? soon : whole, complete: !early };
}
