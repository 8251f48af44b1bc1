// A window of a trace, as every picture of one asks for it. A trace never changes.
import type { TraceWindow } from '@lastmark/contract/types';
import { queryOptions } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import type { Stretch } from './stretch.ts';

/** A stretch as the address says it; nothing for all of it. */
export const asked = (stretch: Stretch | null): string =>
  stretch ? `&from=${Math.max(0, stretch.from)}&to=${stretch.to}` : '';

/** @param stretch null for all of it */
export const traceQuery = (id: string, buckets: number, stretch: Stretch | null = null) =>
  queryOptions({
    queryKey: ['capture-trace', id, buckets, stretch],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: ({ signal }) => api<TraceWindow>(`/captures/${id}/trace?buckets=${buckets}${asked(stretch)}`, { signal }),
  });
