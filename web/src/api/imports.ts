// Takes a whole meter file back: every reading that came with it.
import type { ImportTakenBack } from '@lastmark/contract/types';
import { api } from './client.ts';
import { queryClient, refreshSample } from './queries.ts';

export async function takeBackImport(sampleId: string, fileId: string): Promise<ImportTakenBack> {
  const done = await api<ImportTakenBack>(`/samples/${sampleId}/imports/${fileId}/take-back`, { method: 'POST' });
  await refreshSample(sampleId);
  await queryClient.invalidateQueries({ queryKey: ['attachments', sampleId] });
  return done;
}
