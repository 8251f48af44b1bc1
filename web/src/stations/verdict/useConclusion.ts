// The conclusion of the sample at hand: what somebody kept, against what the rules draft now.
import type { ConclusionInput, StoredConclusion } from '@lastmark/contract/types';
import { type ConclusionLine, draftConclusion, type StandingLine, standing } from '@lastmark/core/conclusion';
import { queryOptions, useMutation, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { ulid } from 'ulid';
import { api, versionTag } from '../../api/client.ts';
import { queryClient } from '../../api/queries.ts';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';
import { useSettings } from '../../state/settings.tsx';

export const conclusionQuery = (sampleId: string) =>
  queryOptions({
    queryKey: ['conclusion', sampleId],
    queryFn: ({ signal }) => api<StoredConclusion>(`/samples/${sampleId}/conclusion`, { signal }),
  });

/** Ids of drafts nobody kept yet: the same as long as the page stands. */
const draftIds = new Map<string, string>();

function idOf(sampleId: string, key: string): string {
  const name = `${sampleId} ${key}`;
  const id = draftIds.get(name) ?? ulid();
  draftIds.set(name, id);
  return id;
}

export function useConclusion() {
  const { dossier, verdict } = useSample();
  const { id } = dossier.sample;
  const query = useQuery(conclusionQuery(id));
  const notify = useNotify();
  const { reportLanguage } = useSettings();
  const lines = useMemo((): readonly StandingLine[] => {
    const judged = { ...dossier, sample: dossier.sample.model };
    const drafts = draftConclusion(judged, verdict, dossier.sample.unit);
    return standing(query.data?.lines ?? [], drafts, ({ key }) => idOf(id, key));
  }, [dossier, verdict, query.data, id]);
  const keep = useMutation({
    mutationFn: (next: readonly ConclusionLine[]) =>
      api<StoredConclusion>(`/samples/${id}/conclusion`, {
        method: 'PUT',
        body: { lines: [...next] } satisfies ConclusionInput,
        ifMatch: versionTag({ version: queryClient.getQueryData(conclusionQuery(id).queryKey)?.version ?? 0 }),
      }),
    // Shown at once: it can be undone, and a refusal puts back what stands.
    onMutate: (next) => {
      const before = query.data;
      queryClient.setQueryData(conclusionQuery(id).queryKey, {
        lines: [...next],
        version: before?.version ?? 0,
      });
      return { before };
    },
    // Lines may be newer by now: only the version is news.
    onSuccess: ({ version, lines: stored }) =>
      queryClient.setQueryData(conclusionQuery(id).queryKey, (now) => ({ lines: now?.lines ?? stored, version })),
    onError: (error, _next, context) => {
      notify(error.message);
      queryClient.setQueryData(conclusionQuery(id).queryKey, context?.before);
      void queryClient.invalidateQueries({ queryKey: ['conclusion', id] });
    },
    // One after the other: each needs the version the one before left.
    scope: { id: `conclusion ${id}` },
  });
  return { lines, keep, query, language: reportLanguage };
}
