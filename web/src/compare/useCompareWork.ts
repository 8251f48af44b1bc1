// Work of a comparison on a thread of its own: asked again when what it is of changes, the last answer shown meanwhile.
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { type Remote, wrap } from 'comlink';
import type { CompareWork } from '../workers/compare.worker.ts';

let shared: Remote<CompareWork> | null = null;

/** One thread for all comparisons; it is cheap to keep. */
function work(): Remote<CompareWork> {
  shared ??= wrap<CompareWork>(
    new Worker(new URL('../workers/compare.worker.ts', import.meta.url), { type: 'module' }),
  );
  return shared;
}

const KEPT_MILLISECONDS = 60_000;

/**
 * @param of what it is of: the same is not asked again
 * @returns undefined before the first answer, or where it could not be worked out
 */
export function useCompareWork<T>(
  of: readonly (string | number | null)[],
  ask: (work: Remote<CompareWork>) => Promise<T>,
): T | undefined {
  const { data } = useQuery({
    queryKey: ['compare work', ...of],
    queryFn: () => ask(work()),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: KEPT_MILLISECONDS,
    retry: false,
  });
  return data;
}
