// Reads a recording away from the screen, as a stream: figures and a picture before it is kept, and its samples packed.
import { type CaptureFigures, type CaptureHead, type KeptCapture, keptOf, minMax } from '@lastmark/core/capture';
import { type Settled, settledOf } from '@lastmark/core/charge';
import {
  type Channel,
  onlyChannels,
  packTrace,
  readDescribed,
  TraceReader,
  type TraceReading,
  timeAt,
} from '@lastmark/core/trace';
import { expose, transfer } from 'comlink';

export type PreviewHead = Pick<CaptureHead, 'kind' | 'mains' | 'soak' | 'charge'>;

export interface PreviewColumn extends Pick<Channel, 'name' | 'quantity' | 'unit'> {
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

export type CapturePreview = (
  | {
      readonly ok: true;
      readonly figures: CaptureFigures;
      readonly samples: number;
      readonly columns: readonly PreviewColumn[];
    }
  | { readonly ok: false; readonly reason: string }
) & {
  /** Every column of values the file has. */
  readonly all: readonly string[];
};

const BUCKETS = 500;
/** How often progress is told, bytes. */
const TOLD_EVERY = 4 << 20;

/** What was looked at last, to be sent without reading it again. */
let last: KeptCapture | null = null;

/** Text of any dialect, piece by piece. */
async function readAsText(file: Blob, progress: (read: number) => void): Promise<TraceReading> {
  const reader = new TraceReader({ bytes: file.size });
  const stream = file.stream().getReader();
  let read = 0;
  let told = 0;
  for (let piece = await stream.read(); !piece.done && !reader.failed; piece = await stream.read()) {
    reader.push(piece.value);
    read += piece.value.length;
    if (read - told < TOLD_EVERY) continue;
    told = read;
    progress(read);
  }
  return reader.result();
}

const readAsSamples = async (file: Blob, description: Blob): Promise<TraceReading> =>
  readDescribed(new Uint8Array(await file.arrayBuffer()), await description.text());

interface Recorded {
  readonly file: Blob;
  readonly description: Blob | null;
  /** Names of the columns that count; null for all. */
  readonly only: readonly string[] | null;
}

const work = {
  /** @param progress told the bytes that were read */
  preview: async (
    head: PreviewHead,
    { file, description, only }: Recorded,
    progress: (read: number) => void,
  ): Promise<CapturePreview> => {
    last = null;
    const reading = description ? await readAsSamples(file, description) : await readAsText(file, progress);
    const all = reading.ok ? reading.trace.channels.map(({ name }) => name) : [];
    const kept = keptOf(head, only ? onlyChannels(reading, only) : reading);
    if ('reason' in kept) return { ok: false, reason: kept.reason, all };
    last = kept;
    const { trace, figures } = kept;
    const columns = trace.channels.map(({ name, quantity, unit, values }) => {
      const drawn = minMax(Float64Array.from(values), trace.interval, BUCKETS);
      const points = trace.times
        ? drawn.map(({ x, y }) => ({ x: timeAt(trace, Math.round(x / trace.interval)), y }))
        : drawn;
      return { name, quantity, unit, points: points.filter(({ y }) => Number.isFinite(y)) };
    });
    return { ok: true, figures, samples: trace.samples, columns, all };
  },
  /** Peak, plateau and mean of what a device took, from the log of an inline meter. */
  settled: async (file: Blob): Promise<Settled | { readonly reason: string }> => {
    const read = await readAsText(file, () => undefined);
    if (!read.ok) return { reason: read.line === null ? read.reason : `Line ${read.line}: ${read.reason}` };
    return settledOf(read.trace);
  },
  /** The samples of what was looked at last, as they are sent; null without any. */
  packed: (): Uint8Array | null => {
    if (!last) return null;
    const bytes = packTrace(last.trace);
    return transfer(bytes, [bytes.buffer]);
  },
};

export type CaptureWork = typeof work;

expose(work);
