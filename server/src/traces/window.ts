// A stretch of a trace as a picture draws it: lowest and highest of each of some buckets, read from the level that fits.
import type { TraceWindow } from '@lastmark/contract';
import { stretchFor } from '@lastmark/core/trace';
import type { Queries } from '../db/database.ts';
import { readSamples, readStretches, readTimes } from './pieces.ts';
import { traceHead } from './store.ts';

interface Spot {
  x: number;
  y: number;
}

/** Samples themselves, or lowest and highest where there are more than fit. */
function spots(values: ArrayLike<number>, xOf: (index: number) => number, buckets: number): Spot[] {
  const all: Spot[] = [];
  if (values.length <= 2 * buckets) {
    for (let at = 0; at < values.length; at += 1) all.push({ x: xOf(at), y: values[at] as number });
    return all;
  }
  for (let bucket = 0; bucket < buckets; bucket += 1) {
    const from = Math.floor((bucket * values.length) / buckets);
    const to = Math.floor(((bucket + 1) * values.length) / buckets);
    let low = -1;
    let high = -1;
    for (let at = from; at < to; at += 1) {
      const value = values[at] as number;
      if (Number.isNaN(value)) continue;
      if (low < 0 || value < (values[low] as number)) low = at;
      if (high < 0 || value > (values[high] as number)) high = at;
    }
    if (low < 0) all.push({ x: xOf(from), y: Number.NaN });
    else for (const at of [low, high].sort((a, b) => a - b)) all.push({ x: xOf(at), y: values[at] as number });
  }
  return all;
}

/** Extremes of stretches, several of them joined where there are more than buckets. */
function fromStretches(triples: Float32Array, xOf: (index: number) => number, buckets: number): Spot[] {
  const count = triples.length / 3;
  const each = Math.max(1, Math.ceil(count / buckets));
  const all: Spot[] = [];
  for (let from = 0; from < count; from += each) {
    let low = Number.NaN;
    let high = Number.NaN;
    for (let at = from; at < Math.min(count, from + each); at += 1) {
      const least = triples[3 * at] as number;
      const most = triples[3 * at + 1] as number;
      if (!(least >= low)) low = Number.isNaN(least) ? low : least;
      if (!(most <= high)) high = Number.isNaN(most) ? high : most;
    }
    const x = xOf(from);
    all.push({ x, y: low }, { x: xOf(from + each / 2), y: high });
  }
  return all;
}

/**
 * @param from s from the first sample; null for the beginning
 * @param to s; null for the end
 * @param buckets how many stretches the picture has room for
 */
export async function traceWindow(
  db: Queries,
  id: string,
  from: number | null,
  to: number | null,
  buckets: number,
): Promise<TraceWindow> {
  const { samples, interval, timed, channels } = await traceHead(db, id);
  const times = timed ? await readTimes(db, id) : null;
  const length = times ? (times[samples - 1] ?? 0) : (samples - 1) * interval;
  const indexOf = (seconds: number): number => {
    if (!times) return Math.round(seconds / interval);
    let low = 0;
    let high = samples;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((times[middle] as number) < seconds) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const first = Math.max(0, Math.min(samples - 1, indexOf(from ?? 0) - 1));
  const last = Math.max(first + 1, Math.min(samples, indexOf(to ?? length) + 2));
  const timeOf = (index: number): number =>
    times ? (times[Math.min(samples - 1, Math.floor(index))] as number) : index * interval;
  const stretch = stretchFor(last - first, buckets);
  const columns: TraceWindow['columns'] = [];
  for (const [at, { name, quantity, unit }] of channels.entries()) {
    const begin = Math.floor(first / stretch);
    const level = stretch > 1 ? await readStretches(db, id, at, stretch, begin, Math.ceil(last / stretch)) : null;
    const points = level
      ? fromStretches(level, (place) => timeOf((begin + place) * stretch), buckets)
      : spots(await readSamples(db, id, at, first, last), (place) => timeOf(first + place), buckets);
    // What nobody told is a gap in the picture, and JSON has no word for it.
    columns.push({ name, quantity, unit, points: points.filter(({ y }) => Number.isFinite(y)) });
  }
  return { length, samples, columns };
}
