// Storing what is done with cables, and taking it back.
import type { CableRunInput, StoredCableRun } from '@lastmark/contract/types';
import { useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { queryClient, refreshSample } from '../api/queries.ts';
import { type KeptChanges, useKept } from '../parts/useKept.ts';
import { useSample } from '../state/sample.tsx';

type Fields<K extends CableRunInput['kind']> = Omit<
  Extract<CableRunInput, { kind: K }>,
  'id' | 'kind' | 'takenAt' | 'supersedes' | 'withdrawn'
>;

const inputOf = (run: StoredCableRun): CableRunInput => {
  if (run.kind !== 'resistance') return run;
  const { accuracy: _, ...rest } = run;
  return rest;
};

function useSend() {
  const { sample } = useSample().dossier;
  return {
    send: (run: CableRunInput) =>
      api<StoredCableRun>(`/samples/${sample.id}/cable-runs`, { method: 'POST', body: { run } }),
    settle: async () => {
      await refreshSample(sample.id);
      await queryClient.invalidateQueries({ queryKey: ['fates', sample.id] });
    },
  };
}

/** Adds one run; sent again after a lost answer it keeps its id, so that it counts once. @param corrects the one it takes the place of */
export function useAddCableRun<K extends CableRunInput['kind']>(kind: K, corrects: StoredCableRun | null = null) {
  const { send, settle } = useSend();
  const [id] = useState(ulid);
  return async (fields: Fields<K>, takenAt: Date = new Date()): Promise<void> => {
    const head = { id, takenAt: takenAt.toISOString(), supersedes: corrects?.id ?? null, withdrawn: false };
    // The fields of a kind are those of that kind.
    await send({ ...fields, kind, ...head } as unknown as CableRunInput);
    await settle();
  };
}

/** Taking runs of a kind back, and putting them back. */
export function useKeptCableRuns(kind: StoredCableRun['kind']): KeptChanges<StoredCableRun> {
  const { send, settle } = useSend();
  const { cableRuns } = useSample().dossier;
  return useKept(
    cableRuns.filter((run) => run.kind === kind),
    (run) => send(inputOf(run)),
    settle,
  );
}

/** Adds copies, one after the other: what was kept when one fails stays, and is not kept twice when all are sent again. */
export function useAddCopies(corrects: StoredCableRun | null = null) {
  const { send, settle } = useSend();
  return async (copies: readonly (Fields<'copy'> & { readonly id: string })[], takenAt: Date): Promise<void> => {
    for (const copy of copies)
      await send({
        ...copy,
        kind: 'copy',
        takenAt: takenAt.toISOString(),
        supersedes: corrects?.id ?? null,
        withdrawn: false,
      });
    await settle();
  };
}
