// Writing claims: checked here first, then by the server; what was removed can be brought back, from any browser.
import { claimInput } from '@lastmark/contract/schemas';
import type { ClaimInput, RemovedClaim, StoredClaim } from '@lastmark/contract/types';
import { validate } from '@lastmark/contract/validate';
import { describePromise } from '@lastmark/core/claim';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useRef } from 'react';
import { api, versionTag } from '../../api/client.ts';
import { queryClient, refreshSample } from '../../api/queries.ts';
import { useNotify } from '../../state/notices.tsx';

function checked(input: ClaimInput): ClaimInput {
  const result = validate<ClaimInput>(claimInput, input);
  if (result.ok) return result.value;
  throw new Error(result.errors.map(({ message }) => message).join(' · '));
}

export function useClaims(sampleId: string) {
  const notify = useNotify();
  const removed = useQuery({
    queryKey: ['removed-claims', sampleId],
    queryFn: ({ signal }) => api<{ items: RemovedClaim[] }>(`/samples/${sampleId}/removed-claims`, { signal }),
  });
  const settled = async () => {
    await refreshSample(sampleId);
    await queryClient.invalidateQueries({ queryKey: ['removed-claims', sampleId] });
  };
  /** What a line that failed half-way has brought already: sent again it counts once. */
  const kept = useRef<ReadonlySet<string>>(new Set());
  const add = useMutation({
    mutationFn: async (inputs: readonly ClaimInput[]) => {
      const ready = inputs.map(checked);
      for (const body of ready) {
        const key = JSON.stringify(body);
        if (kept.current.has(key)) continue;
        await api<StoredClaim>(`/samples/${sampleId}/claims`, { method: 'POST', body });
        kept.current = new Set([...kept.current, key]);
      }
      kept.current = new Set();
    },
    onSettled: settled,
  });
  const back = useMutation({
    mutationFn: (id: string) => api<StoredClaim>(`/samples/${sampleId}/claims/${id}/back`, { method: 'POST' }),
    onError: (error) => notify(error.message),
    onSettled: settled,
  });
  const change = useMutation({
    mutationFn: async ({ claim, input }: { claim: StoredClaim; input: ClaimInput }) =>
      api<StoredClaim>(`/claims/${claim.id}`, { method: 'PUT', body: checked(input), ifMatch: versionTag(claim) }),
    onSettled: settled,
  });
  const remove = useMutation({
    mutationFn: (claim: StoredClaim) =>
      api<void>(`/claims/${claim.id}`, { method: 'DELETE', ifMatch: versionTag(claim) }),
    onSuccess: (_nothing, { id, promise }) => notify(`Removed “${describePromise(promise)}”.`, () => back.mutate(id)),
    onError: (error) => notify(error.message),
    onSettled: settled,
  });
  return { add, change, remove, removed: removed.data?.items ?? [], back };
}
