// The spectrum of a stretch of a ripple record, and the lines in it: from just the samples its picture shows.
import type { TraceSpectrum } from '@lastmark/contract';
import { namedLines } from '@lastmark/core/ripple';
import { linesOf, spectrumPicture } from '@lastmark/core/spectrum';
import type { Queries } from '../db/database.ts';
import { refused } from '../http/problem.ts';
import { readSamples } from './pieces.ts';
import { traceHead } from './store.ts';

/** Samples a spectrum is made of: a longer stretch tells nothing new. */
const MOST_SAMPLES = 4_000_000;
const LEAST_SAMPLES = 64;
const BUCKETS = 500;

export interface SpectrumOf {
  readonly from: number | null;
  readonly to: number | null;
  /** Mains frequency, Hz; 0 for none, null where not known. */
  readonly mains: number | null;
}

export async function traceSpectrum(db: Queries, id: string, { from, to, mains }: SpectrumOf): Promise<TraceSpectrum> {
  const { samples, interval, timed } = await traceHead(db, id);
  if (timed) throw refused('from', 'Its times are not evenly spaced: no spectrum can be made of it.');
  const first = Math.max(0, Math.floor((from ?? 0) / interval));
  const last = Math.min(samples, Math.ceil((to ?? samples * interval) / interval));
  if (last - first < LEAST_SAMPLES)
    throw refused('from', `Fewer than ${LEAST_SAMPLES} samples: no spectrum can be made of them. Go wider.`);
  const values = await readSamples(db, id, 0, first, Math.min(last, first + MOST_SAMPLES));
  if (values.some((value) => Number.isNaN(value)))
    throw refused('from', 'Samples are missing in this stretch: no spectrum can be made across a gap.');
  return {
    points: [...spectrumPicture(values, 1 / interval, BUCKETS)],
    lines: [...namedLines(linesOf(values, 1 / interval), mains)],
    from: first * interval,
    to: Math.min(last, first + MOST_SAMPLES) * interval,
  };
}
