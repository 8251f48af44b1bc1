// Adding checks of the safety look, and taking them back.
import { currentRuns } from '@lastmark/core/run';
import type { SafetyCheck } from '@lastmark/core/safety';
import { useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { type KeptChanges, useKept } from '../../parts/useKept.ts';
import { useSample } from '../../state/sample.tsx';
import type { CheckFields } from './checkForm.ts';

export function useChecks(): { readonly current: readonly SafetyCheck[]; readonly kept: KeptChanges<SafetyCheck> } {
  const { sample, checks } = useSample().dossier;
  const send = (check: SafetyCheck) =>
    api<SafetyCheck>(`/samples/${sample.id}/checks`, { method: 'POST', body: { check } });
  const kept = useKept(checks, send, () => refreshSample(sample.id));
  return { current: currentRuns(checks), kept };
}

/** Adds one check; sent again after a lost answer it keeps its id, so that it counts once. */
export function useAddCheck(corrects: SafetyCheck | null) {
  const { sample } = useSample().dossier;
  const [id] = useState(ulid);
  return async (fields: CheckFields, takenAt: Date): Promise<void> => {
    const head = { id, takenAt: takenAt.toISOString(), supersedes: corrects?.id ?? null, withdrawn: false };
    await api<SafetyCheck>(`/samples/${sample.id}/checks`, { method: 'POST', body: { check: { ...fields, ...head } } });
    await refreshSample(sample.id);
  };
}
