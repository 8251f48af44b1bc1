import { decodeText } from '@lastmark/core/table';

/** The text of a file, in whatever letters its program wrote it. */
export const fileText = async (file: Blob): Promise<string> => decodeText(new Uint8Array(await file.arrayBuffer()));
