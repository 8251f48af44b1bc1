// Comparisons and their sets, as they are asked for.
import type { ComparisonBody, SetAnswer, StoredComparison, WantedMeasure } from '@lastmark/contract/types';
import { EVERYTHING, type SetRule } from '@lastmark/core/compare';
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api } from '../api/client.ts';

/** How often values that are being worked out are asked for again, ms. */
const PENDING_MILLISECONDS = 1000;

export const comparisonsQuery = queryOptions({
  queryKey: ['comparisons'],
  queryFn: ({ signal }) => api<{ items: StoredComparison[] }>('/comparisons', { signal }),
});

export const comparisonQuery = (id: string) =>
  queryOptions({
    queryKey: ['comparisons', id],
    queryFn: ({ signal }) => api<StoredComparison>(`/comparisons/${id}`, { signal }),
  });

export const setQuery = (rule: SetRule, measures: readonly WantedMeasure[]) =>
  queryOptions({
    queryKey: ['comparison set', rule, measures],
    queryFn: ({ signal }) =>
      api<SetAnswer>('/comparison-set', { method: 'POST', body: { rule, measures: [...measures] }, signal }),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.pending ? PENDING_MILLISECONDS : false),
  });

/** What a new comparison begins with. */
export const NEW_COMPARISON: ComparisonBody = {
  title: 'New comparison',
  note: '',
  rule: { ...EVERYTHING, kinds: ['wall', 'desktop'] },
  measures: ['mass-per-watt', 'price-per-watt', 'idle', 'average-efficiency', 'full-load-loss', 'proven-share'].map(
    (measure) => ({ measure, condition: null }),
  ),
  own: [],
  weights: [],
};
