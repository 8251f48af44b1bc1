// What is said of a sample, and by whom.
import type { Person } from '@lastmark/contract/people';
import type { OpenRemark, Remark, RemarkInput } from '@lastmark/contract/together';
import { queryOptions } from '@tanstack/react-query';
import { api } from './client.ts';
import { type Items, queryClient } from './queries.ts';

const LONG_MILLISECONDS = 60_000;

export const remarksQuery = (sampleId: string) =>
  queryOptions({
    queryKey: ['remarks', sampleId],
    queryFn: ({ signal }) => api<Items<Remark>>(`/samples/${sampleId}/remarks`, { signal }),
  });

export const openRemarksQuery = queryOptions({
  queryKey: ['remarks', 'open'],
  queryFn: ({ signal }) => api<Items<OpenRemark>>('/remarks/open', { signal }),
});

/** Who is here, by name; nobody where people are not told apart. */
export const namesQuery = queryOptions({
  queryKey: ['names'],
  queryFn: ({ signal }) => api<Items<Person>>('/people/names', { signal, real: true }),
  staleTime: LONG_MILLISECONDS,
});

export async function sayRemark(sampleId: string, remark: RemarkInput): Promise<void> {
  await api<Remark>(`/samples/${sampleId}/remarks`, { method: 'POST', body: { remark } });
  await queryClient.invalidateQueries({ queryKey: ['remarks'] });
}
