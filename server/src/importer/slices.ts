// Keeps the server answering while a long file is read.
import { type FileContext, type FilePlan, type FileReading, MeterFileReader } from '@lastmark/core/meter-file';

/** Characters read between two pauses: some tens of milliseconds. */
const SLICE = 500_000;

const pause = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Read a meter file in slices that end at line ends; a file with quoted cells, which may span lines, in one. */
export async function readInSlices(text: string, plan: FilePlan, context: FileContext): Promise<FileReading> {
  const reader = new MeterFileReader(plan, context);
  const slice = text.includes('"') ? text.length : SLICE;
  for (let from = 0; from < text.length; ) {
    const end = text.indexOf('\n', from + slice);
    const to = end < 0 ? text.length : end + 1;
    reader.add(text.slice(from, to));
    from = to;
    await pause();
  }
  return reader.result();
}
