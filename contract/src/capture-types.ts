// How recordings travel: as they are sent, and as pictures of them are drawn.
import type { CaptureHead } from '@lastmark/core/capture';
import type { RippleLine } from '@lastmark/core/ripple';
import type { ChannelQuantity } from '@lastmark/core/trace';

/** A capture as it is sent: from a file's text, from a scope, or neither to take one back. */
export interface CaptureInput {
  capture: CaptureHead;
  /** The oscilloscope to ask, for one taken now. */
  scopeId: string | null;
}

/** What a picture of a stretch of a trace draws: samples, or lowest and highest of each of some buckets. */
export interface TraceWindow {
  /** s from the first sample to the last. */
  length: number;
  samples: number;
  columns: { name: string; quantity: ChannelQuantity | null; unit: string; points: { x: number; y: number }[] }[];
}

/** What rides on an output in a stretch of its trace, by frequency. */
export interface TraceSpectrum {
  /** Hz; V peak to peak of a sine that would show so. */
  points: { x: number; y: number }[];
  lines: RippleLine[];
  /** The stretch it was made of, s. */
  from: number;
  to: number;
}
