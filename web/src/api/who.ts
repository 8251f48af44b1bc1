// Who asks: whether people are told apart on this server, and which of them this browser is.
import type { Me, Who } from '@lastmark/contract/people';
import { queryOptions, useQuery } from '@tanstack/react-query';
import { api } from './client.ts';
import { queryClient } from './queries.ts';

/** A session may end elsewhere; whoever asks for something else then is told at once, ms. */
const FRESH_MILLISECONDS = 60_000;

export const whoQuery = queryOptions({
  queryKey: ['who'],
  queryFn: ({ signal }) => api<Who>('/me', { signal, real: true }),
  staleTime: FRESH_MILLISECONDS,
});

/** Whoever sits here; null where people are not told apart, nobody is signed in, or it is not known yet. */
export const useMe = (): Me | null => useQuery(whoQuery).data?.me ?? null;

/** Somebody came in, went out or changed their name. */
export const refreshWho = () => queryClient.invalidateQueries({ queryKey: whoQuery.queryKey });
