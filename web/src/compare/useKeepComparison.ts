// Keeping a comparison, and removing it.
import type { ComparisonBody, StoredComparison } from '@lastmark/contract/types';
import { useMutation } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, versionTag } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { useNotify } from '../state/notices.tsx';
import { comparisonQuery, comparisonsQuery } from './queries.ts';

/** @param id null for one that was never kept */
export function useKeepComparison(id: string | null, version: number) {
  const notify = useNotify();
  const navigate = useNavigate();
  const failed = (error: Error) => notify(error.message);
  const keep = useMutation({
    mutationFn: (body: ComparisonBody) =>
      id === null
        ? api<StoredComparison>('/comparisons', { method: 'POST', body })
        : api<StoredComparison>(`/comparisons/${id}`, { method: 'PUT', body, ifMatch: versionTag({ version }) }),
    onSuccess: (stored) => {
      queryClient.setQueryData(comparisonQuery(stored.id).queryKey, stored);
      void queryClient.invalidateQueries({ queryKey: comparisonsQuery.queryKey, exact: true });
      notify(`${stored.title} is kept with ${stored.members.length} samples.`);
      if (id === null)
        void navigate({ pathname: `/compare/${stored.id}`, search: window.location.search }, { replace: true });
    },
    onError: failed,
  });
  const remove = useMutation({
    mutationFn: () => api(`/comparisons/${id}`, { method: 'DELETE', ifMatch: versionTag({ version }) }),
    onSuccess: () => {
      void queryClient.invalidateQueries({ queryKey: comparisonsQuery.queryKey });
      void navigate('/compare');
    },
    onError: failed,
  });
  return { keep, remove };
}
