// Keeps the server answering while a long file is read.
import { type CaptureKind, CaptureReader, type CaptureReading } from '@lastmark/core/capture';
import {
  type FileContext,
  type FilePlan,
  type FileReading,
  MeterFileReader,
  slicesOf,
} from '@lastmark/core/meter-file';

/** Lets other requests have their turn. */
export const pause = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Read a meter file with a pause for other requests after every slice. */
export async function readInSlices(text: string, plan: FilePlan, context: FileContext): Promise<FileReading> {
  const reader = new MeterFileReader(plan, context);
  for (const slice of slicesOf(text)) {
    reader.add(slice);
    await pause();
  }
  return reader.result();
}

/** Characters of a slice of a capture: its lines are short, so there are many in it. */
const CAPTURE_SLICE = 60_000;

/** Read a capture file with a pause for other requests after every slice. */
export async function readCaptureInSlices(kind: CaptureKind, text: string): Promise<CaptureReading> {
  const reader = new CaptureReader(kind, text);
  for (const slice of slicesOf(text, CAPTURE_SLICE)) {
    reader.add(slice);
    await pause();
  }
  return reader.result();
}
