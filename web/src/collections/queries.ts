// Collections whoever sits here sees, and the people that can be named for them; always of the real world.
import type { Collection } from '@lastmark/contract/collections';
import type { Person } from '@lastmark/contract/people';
import { queryOptions, useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { type Items, queryClient } from '../api/queries.ts';
import { useMe } from '../api/who.ts';
import { momentText } from '../parts/moment.ts';

export const collectionsQuery = queryOptions({
  queryKey: ['collections'],
  queryFn: ({ signal }) => api<Items<Collection>>('/collections', { signal, real: true }),
});
export const namesQuery = queryOptions({
  queryKey: ['people', 'names'],
  queryFn: ({ signal }) => api<Items<Person>>('/people/names', { signal, real: true }),
});

/** Collections, where people are told apart; none elsewhere. */
export function useCollections(): readonly Collection[] {
  const me = useMe();
  return useQuery({ ...collectionsQuery, enabled: me !== null }).data?.items ?? [];
}

/** Who sees it, in a line. @example seenWords({ closed: true, embargo, people }) // 'under embargo until 2027-03-01 09:00' */
export function seenWords({ closed, embargo, people }: Pick<Collection, 'closed' | 'embargo' | 'people'>): string {
  if (closed && embargo) return `under embargo until ${momentText(embargo)}`;
  return people.length > 0 ? `the lab and ${people.length} named` : 'the lab';
}

export const refreshCollections = () =>
  Promise.all([
    queryClient.invalidateQueries({ queryKey: ['collections'] }),
    queryClient.invalidateQueries({ queryKey: ['samples'] }),
  ]);
