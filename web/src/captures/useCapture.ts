// Sends captures: from a file, from the scope, or one taken back.
import type { CaptureInput } from '@lastmark/contract/types';
import type { Capture, CaptureHead } from '@lastmark/core/capture';
import { useMutation } from '@tanstack/react-query';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { refreshSample } from '../api/queries.ts';
import { useSample } from '../state/sample.tsx';

/** What a person chooses of a capture; the rest follows. */
export type CaptureChoice = Omit<CaptureHead, 'id' | 'takenAt' | 'supersedes' | 'withdrawn'>;

export function useCapture() {
  const { dossier } = useSample();
  const sampleId = dossier.sample.id;
  const add = useMutation({
    mutationFn: ({ choice, file, scopeId }: { choice: CaptureChoice; file: Blob | null; scopeId: string | null }) => {
      const capture = { ...choice, id: ulid(), takenAt: new Date().toISOString(), supersedes: null, withdrawn: false };
      const body: CaptureInput = { capture, scopeId };
      return api<Capture>(`/samples/${sampleId}/captures`, { method: 'POST', body, file });
    },
    onSuccess: () => refreshSample(sampleId),
  });
  const takeBack = useMutation({
    mutationFn: ({ figures: _figures, interval: _interval, samples: _samples, ...head }: Capture) => {
      const capture = { ...head, id: ulid(), takenAt: new Date().toISOString(), supersedes: head.id, withdrawn: true };
      const body: CaptureInput = { capture, scopeId: null };
      return api<Capture>(`/samples/${sampleId}/captures`, { method: 'POST', body, file: null });
    },
    onSuccess: () => refreshSample(sampleId),
  });
  return { add, takeBack };
}
