// What the pages of people ask for, always of the real world.
import type { AccessToken, Invitation, Session, StoredPerson } from '@lastmark/contract/people';
import { queryOptions } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { type Items, queryClient } from '../api/queries.ts';

const listOf = <T>(name: string, path: string) =>
  queryOptions({
    queryKey: ['people', name],
    queryFn: ({ signal }) => api<Items<T>>(path, { signal, real: true }),
  });

export const peopleQuery = listOf<StoredPerson>('all', '/people');
export const invitationsQuery = listOf<Invitation>('invitations', '/invitations');
export const sessionsQuery = listOf<Session>('sessions', '/me/sessions');
export const tokensQuery = listOf<AccessToken>('tokens', '/me/tokens');

export const refreshPeople = () => queryClient.invalidateQueries({ queryKey: ['people'] });
