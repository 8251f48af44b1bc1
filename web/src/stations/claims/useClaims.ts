// Writing claims: checked here first, then by the server; removal can be undone.
import { claimInput } from '@lastmark/contract/schemas';
import type { ClaimInput, StoredClaim } from '@lastmark/contract/types';
import { validate } from '@lastmark/contract/validate';
import { describePromise } from '@lastmark/core/claim';
import { useMutation } from '@tanstack/react-query';
import { api, versionTag } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { useDraft } from '../../parts/useDraft.ts';
import { useNotify } from '../../state/notices.tsx';

function checked(input: ClaimInput): ClaimInput {
  const result = validate<ClaimInput>(claimInput, input);
  if (result.ok) return result.value;
  throw new Error(result.errors.map(({ message }) => message).join(' · '));
}

/** A claim removed in this browser, to be brought back. */
export interface Removed {
  readonly input: ClaimInput;
  readonly at: string;
}

const MOST_REMOVED = 20;

export function useClaims(sampleId: string) {
  const notify = useNotify();
  const settled = () => refreshSample(sampleId);
  const removed = useDraft<readonly Removed[]>(`removed-${sampleId}`, []);
  const add = useMutation({
    mutationFn: async (inputs: readonly ClaimInput[]) => {
      const ready = inputs.map(checked);
      for (const body of ready) await api<StoredClaim>(`/samples/${sampleId}/claims`, { method: 'POST', body });
    },
    onSettled: settled,
  });
  const bringBack = (input: ClaimInput) =>
    add.mutate([input], { onSuccess: () => removed.set(removed.value.filter((one) => one.input !== input)) });
  const change = useMutation({
    mutationFn: async ({ claim, input }: { claim: StoredClaim; input: ClaimInput }) =>
      api<StoredClaim>(`/claims/${claim.id}`, { method: 'PUT', body: checked(input), ifMatch: versionTag(claim) }),
    onSettled: settled,
  });
  const remove = useMutation({
    mutationFn: (claim: StoredClaim) =>
      api<void>(`/claims/${claim.id}`, { method: 'DELETE', ifMatch: versionTag(claim) }),
    onSuccess: (_nothing, { promise, duration, printed }) => {
      const input = { promise, duration, printed };
      removed.set([{ input, at: new Date().toISOString() }, ...removed.value].slice(0, MOST_REMOVED));
      notify(`Removed “${describePromise(promise)}”.`, () => bringBack(input));
    },
    onError: (error) => notify(error.message),
    onSettled: settled,
  });
  return { add, change, remove, removed: removed.value, bringBack };
}
