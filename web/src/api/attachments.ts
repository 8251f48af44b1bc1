// Files on their way to what they belong to.
import type { AttachmentInfo } from '@lastmark/contract/types';
import { api } from './client.ts';

const LARGEST = 20 * 1024 * 1024;

export const sizeWords = (bytes: number): string =>
  bytes < 1024 * 1024 ? `${Math.max(1, Math.round(bytes / 1024))} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;

/** @throws Error in words for one that is too large, ApiProblem for one the server refuses */
export async function uploadAttachment(
  owner: AttachmentInfo['owner'],
  ownerId: string,
  file: File,
): Promise<AttachmentInfo> {
  if (file.size > LARGEST) throw new Error(`${file.name} has ${sizeWords(file.size)}; 20 MB is the most.`);
  const query = new URLSearchParams({ owner, ownerId, name: file.name });
  return api<AttachmentInfo>(`/attachments?${query}`, { method: 'POST', body: file });
}

/**
 * Attach several: one that is refused keeps none of the others back.
 * @param onStored told of each as it is attached
 * @throws Error that names each that was not attached, with why
 */
export async function uploadAttachments(
  owner: AttachmentInfo['owner'],
  ownerId: string,
  files: readonly File[],
  onStored: (stored: AttachmentInfo) => void = () => undefined,
  upload = uploadAttachment,
): Promise<void> {
  const refused: string[] = [];
  for (const file of files)
    await upload(owner, ownerId, file)
      .then(onStored)
      .catch((error: Error) => {
        refused.push(error.message.includes(file.name) ? error.message : `${file.name}: ${error.message}`);
      });
  if (refused.length > 0) throw new Error(refused.join(' '));
}
