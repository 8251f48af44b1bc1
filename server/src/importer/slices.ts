// Keeps the server answering while a long file is read.
import {
  type FileContext,
  type FilePlan,
  type FileReading,
  MeterFileReader,
  slicesOf,
} from '@lastmark/core/meter-file';

const pause = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Read a meter file with a pause for other requests after every slice. */
export async function readInSlices(text: string, plan: FilePlan, context: FileContext): Promise<FileReading> {
  const reader = new MeterFileReader(plan, context);
  for (const slice of slicesOf(text)) {
    reader.add(slice);
    await pause();
  }
  return reader.result();
}
