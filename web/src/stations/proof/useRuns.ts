// Storing runs, and taking one back.
import type { RunInput, StoredRun } from '@lastmark/contract/types';
import type { RunChange } from '@lastmark/core/proof';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';

type Fields<K extends RunInput['kind']> = Omit<
  Extract<RunInput, { kind: K }>,
  'id' | 'kind' | 'takenAt' | 'supersedes' | 'withdrawn'
>;

/**
 * Adds one run; sent again after a lost answer it keeps its id, so that it counts once.
 * @param corrects the run it takes the place of
 */
export function useAddRun<K extends RunInput['kind']>(kind: K, corrects: StoredRun | null = null) {
  const { sample } = useSample().dossier;
  const [id] = useState(ulid);
  return async (fields: Fields<K>, takenAt: Date = new Date()): Promise<void> => {
    const supersedes = corrects?.id ?? null;
    const run = { ...fields, kind, id, takenAt: takenAt.toISOString(), supersedes, withdrawn: false };
    await api<StoredRun>(`/samples/${sample.id}/runs`, { method: 'POST', body: { run } });
    await refreshSample(sample.id);
  };
}

/** Puts a run back that was corrected or taken back: once more, in the place of what stands there now. */
export function useRestoreRun() {
  const { sample } = useSample().dossier;
  const notify = useNotify();
  return useMutation({
    mutationFn: ({ was: { u: _, ...was }, now }: RunChange<StoredRun>) =>
      api(`/samples/${sample.id}/runs`, {
        method: 'POST',
        body: { run: { ...was, id: ulid(), supersedes: now.withdrawn ? null : now.id } },
      }),
    onError: (error) => notify(error.message),
    onSettled: () => refreshSample(sample.id),
  });
}

/** Takes a run back; the raw one stays, and undoing brings it back. */
export function useWithdrawRun() {
  const { sample } = useSample().dossier;
  const notify = useNotify();
  const send = ({ u: _, ...run }: StoredRun) => api(`/samples/${sample.id}/runs`, { method: 'POST', body: { run } });
  return useMutation({
    mutationFn: (run: StoredRun) => send({ ...run, id: ulid(), supersedes: run.id, withdrawn: true }),
    onSuccess: (_answer, run) =>
      notify('Taken back.', () => {
        void send({ ...run, id: ulid(), supersedes: null }).then(() => refreshSample(sample.id));
      }),
    onError: (error) => notify(error.message),
    onSettled: () => refreshSample(sample.id),
  });
}
