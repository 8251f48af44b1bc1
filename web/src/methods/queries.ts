// Methods of the bench, as they are now and as they were.
import type { StoredMethod } from '@lastmark/contract/plan';
import { METHODS, type Method } from '@lastmark/core/plan';
import { queryOptions } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import type { Items } from '../api/queries.ts';

/** Those that ship are known before anybody is asked: nothing moves when the bench's own come. */
const SHIPPED: StoredMethod[] = METHODS.map(({ id, ...method }) => ({
  id,
  version: 1,
  builtIn: true,
  retired: false,
  method,
  note: '',
  createdAt: null,
}));

export const methodsQuery = queryOptions({
  queryKey: ['methods'],
  queryFn: ({ signal }) => api<Items<StoredMethod>>('/methods', { signal }),
  placeholderData: { items: SHIPPED },
});

export const methodVersionsQuery = (methodId: string) =>
  queryOptions({
    queryKey: ['methods', methodId],
    queryFn: ({ signal }) => api<Items<StoredMethod>>(`/methods/${methodId}/versions`, { signal }),
  });

/** As the calculation takes it. */
export const asMethod = ({ id, method }: StoredMethod): Method => ({ ...method, id });

/** Those a kind of sample can be measured by. */
export const methodsOfKind = (all: readonly StoredMethod[], kind: Method['kinds'][number]): readonly StoredMethod[] =>
  all.filter(({ retired, method }) => !retired && method.kinds.includes(kind));

/** Which version, and of when. */
export const versionWords = ({ builtIn, version, createdAt }: StoredMethod): string =>
  builtIn ? 'ships with Lastmark' : `version ${version} of ${createdAt?.slice(0, 10)}`;
