// What drills ask the real world for.
import type { DrillNow, DrillRow, DrillState } from '@lastmark/contract/practice';
import { queryOptions } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import type { Items } from '../api/queries.ts';
import { queryClient } from '../api/queries.ts';

/** A run goes on by itself while somebody looks. */
const EVERY_MILLISECONDS = 3000;

export const drillsQuery = queryOptions({
  queryKey: ['drills', 'list'],
  queryFn: ({ signal }) => api<Items<DrillRow>>('/drills', { signal, real: true }),
});

export const drillNowQuery = queryOptions({
  queryKey: ['drills', 'now'],
  queryFn: ({ signal }) => api<DrillNow>('/drills/now', { signal, real: true }),
  refetchInterval: EVERY_MILLISECONDS,
});

export const drillQuery = (id: string) =>
  queryOptions({
    queryKey: ['drills', id],
    queryFn: ({ signal }) => api<DrillState>(`/drills/${id}`, { signal, real: true }),
  });

export const refreshDrills = () => queryClient.invalidateQueries({ queryKey: ['drills'] });
