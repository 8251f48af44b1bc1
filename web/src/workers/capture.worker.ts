// Reads a capture file away from the screen: figures and a few points to look at before it is kept.
import {
  type CaptureFigures,
  type CaptureKind,
  type ColumnName,
  captureFigures,
  minMax,
  readCapture,
} from '@lastmark/core/capture';
import { expose } from 'comlink';

export type CapturePreview =
  | {
      readonly ok: true;
      readonly figures: CaptureFigures;
      readonly samples: number;
      readonly columns: { name: ColumnName; points: { x: number; y: number }[] }[];
    }
  | { readonly ok: false; readonly reason: string };

const BUCKETS = 500;

const work = {
  preview: (kind: CaptureKind, text: string): CapturePreview => {
    const read = readCapture(kind, text);
    if (!read.ok) return read;
    const figures = captureFigures(kind, read.trace);
    if ('reason' in figures) return { ok: false, reason: figures.reason };
    const { interval, columns } = read.trace;
    const names = Object.keys(columns) as ColumnName[];
    return {
      ok: true,
      figures,
      samples: read.samples,
      columns: names.map((name) => ({ name, points: minMax(columns[name] ?? new Float64Array(), interval, BUCKETS) })),
    };
  },
};

export type CaptureWork = typeof work;

expose(work);
