// Columns of a log with uneven times or empty cells, made even for what is told by means and moments.
import type { Trace as Recording } from '../trace/index.ts';
import { evenly } from './evenly.ts';
import { COLUMN_WORDS } from './figures.ts';
import type { CaptureKind, ColumnName, Trace } from './types.ts';

/** Told by means and moments: between two samples they go on straight. A wave does not. */
const SLOW: readonly CaptureKind[] = ['idle', 'fading', 'dip', 'sweep'];
/** Whether a capture of a kind needs samples at a fixed rate: what is a wave cannot be made of others. */
export const needsFixedRate = (kind: CaptureKind): boolean => !SLOW.includes(kind);

/** Most samples a log is made even to: one that was left out for years has no spacing. */
const MOST_SAMPLES = 20_000_000;
/** How far samples may stray from an even spacing, as a fraction of it. */
const UNEVEN = 0.1;
/** How far a logger that left lines out may be early or late, as a fraction of its spacing. */
const STRAY = 0.3;

export interface Evened {
  readonly trace: Trace;
  readonly remarks: readonly string[];
}

const exactly = (seconds: number): string => `${Number(seconds.toPrecision(4))} s`;
const short = (seconds: number): string => `${Number(seconds.toPrecision(3))} s`;

/** Where times leave an even spacing, in a sentence that says what to do. */
function unevenSays(times: Float64Array, interval: number): string {
  const [first = 0] = times;
  const step = (index: number): number => (times[index] as number) - (times[index - 1] ?? first - interval);
  const odd = times.findIndex((_, index) => Math.abs(step(index) - interval) > UNEVEN * interval);
  // Without a step of its own that is odd it strays little by little.
  const at = exactly(times[Math.max(0, odd - 1)] as number);
  return `Times are not evenly spaced from ${at} on (mostly ${short(interval)} apart). Export it with a fixed sample rate.`;
}

/**
 * Times of a logger that leaves lines out now and then: which of its evenly spaced moments each is of.
 * @returns null where the times are of no such moments
 */
function momentsOf(
  times: Float64Array,
  usual: number,
): { readonly at: Float64Array; readonly interval: number } | null {
  const at = new Float64Array(times.length);
  for (let index = 1; index < times.length; index += 1) {
    const step = (times[index] as number) - (times[index - 1] as number);
    at[index] = (at[index - 1] as number) + Math.max(1, Math.round(step / usual));
  }
  const last = at[at.length - 1] as number;
  const interval = ((times[times.length - 1] as number) - (times[0] as number)) / last;
  const strays = times.some(
    (time, index) => Math.abs(time - (times[0] as number) - (at[index] as number) * interval) > STRAY * interval,
  );
  return strays ? null : { at, interval };
}

/**
 * Columns of a recording, evenly spaced. Those of what is told by means and moments may come with lines left out, empty
 * cells or uneven times: what lies between two samples is on a straight line, where nothing was read for long there is a
 * gap, and what was done is said. Waves stay as they are.
 * @param found the values of each column the capture needs
 * @returns or why it cannot be taken, in a sentence that says what to do
 */
export function evened(
  kind: CaptureKind,
  recording: Pick<Recording, 'times' | 'interval' | 'samples'>,
  found: readonly { readonly column: ColumnName; readonly values: ArrayLike<number> }[],
): Evened | { readonly reason: string } {
  const { times, samples } = recording;
  const columns = Object.fromEntries(found.map(({ column, values }) => [column, Float64Array.from(values)]));
  const holed = Object.values(columns).some((values) => values.some((one) => Number.isNaN(one)));
  if (times && needsFixedRate(kind)) return { reason: unevenSays(times, recording.interval) };
  if (needsFixedRate(kind) || (!times && !holed))
    return { trace: { interval: recording.interval, columns }, remarks: [] };
  const moments = times && momentsOf(times, recording.interval);
  const interval = moments?.interval ?? recording.interval;
  const [first = 0] = times ?? [];
  const seconds =
    moments?.at.map((moment) => moment * interval) ??
    times?.map((time) => time - first) ??
    Float64Array.from({ length: samples }, (_, at) => at * interval);
  const count = Math.floor((seconds.at(-1) ?? Number.NaN) / interval + 1e-9) + 1;
  if (!(count <= MOST_SAMPLES)) return { reason: 'Its times reach too far for their spacing. Take in a part of it.' };
  const gaps: { readonly from: number; readonly to: number }[] = [];
  const even: Partial<Record<ColumnName, Float64Array>> = {};
  for (const [column, values] of Object.entries(columns) as [ColumnName, Float64Array][]) {
    const known = Array.from(values, (value, at) => ({ seconds: seconds[at] as number, value })).filter(({ value }) =>
      Number.isFinite(value),
    );
    const made = evenly(known, { from: 0, interval, count });
    if (!made) return { reason: `Its column of ${COLUMN_WORDS[column]} has hardly a value.` };
    even[column] = made.values;
    gaps.push(...made.gaps);
  }
  return {
    trace: { interval, columns: even, ...(gaps.length > 0 ? { gaps } : {}) },
    remarks: [
      ...(moments ? ['Lines are left out in it: in their place the values lie on straight lines.'] : []),
      ...(times && !moments
        ? [
            `Its times are uneven, mostly ${short(interval)} apart: between them the values lie on straight lines, and what lasted a sample or two shows lower than it was.`,
          ]
        : []),
    ],
  };
}
