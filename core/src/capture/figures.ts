// From a raw capture to its figures, by kind.
import { rippleOf } from '../ripple/index.ts';
import type { ScopeSpecs } from './accuracy.ts';
import { idleFigures } from './bursts.ts';
import { dipFigures, fadingFigures, inrushFigures, sweepFigures } from './events.ts';
import {
  CAPTURE_COLUMNS,
  type Capture,
  type CaptureFigures,
  type CaptureKind,
  type ColumnName,
  type Trace,
} from './types.ts';
import { waveformFigures } from './waveform.ts';

const LEAST_SAMPLES = 16;

/**
 * Figures of a capture.
 * @param specs accuracy of probe and scope, for what was taken on the mains side
 * @returns figures, or why it cannot be taken, in a sentence that says what to do
 */
export function captureFigures(
  kind: CaptureKind,
  trace: Trace,
  specs: ScopeSpecs = {},
): CaptureFigures | { readonly reason: string } {
  if (!(trace.interval > 0) || !Number.isFinite(trace.interval))
    return { reason: 'The time between samples is above zero.' };
  const own: Partial<Record<ColumnName, Float64Array>> = {};
  for (const name of CAPTURE_COLUMNS[kind]) {
    const column = trace.columns[name];
    if (!column) return { reason: `It has no column of ${COLUMN_WORDS[name]}.` };
    if (column.length < LEAST_SAMPLES)
      return { reason: `It has ${column.length} samples; ${LEAST_SAMPLES} or more are needed.` };
    if (hasGaps(column) && !trace.gaps?.length) return { reason: `Its column of ${COLUMN_WORDS[name]} has gaps.` };
    own[name] = column;
  }
  const lengths = new Set(Object.values(own).map(({ length }) => length));
  if (lengths.size > 1) return { reason: 'Its columns differ in length.' };
  const figures = figuresOf(kind, own, trace.interval, specs);
  if ('reason' in figures || !trace.gaps?.length) return figures;
  const said = [...new Set(trace.gaps.map(({ from, to }) => `${from.toFixed(1)} to ${to.toFixed(1)} s`))];
  const columns = Object.values(own);
  const unread = Array.from(columns[0]?.keys() ?? []).filter((at) => columns.some((one) => Number.isNaN(one[at])));
  return {
    ...figures,
    ...(unread.length > 0 ? { unread: unread.length * trace.interval } : {}),
    findings: [...figures.findings, `Nothing was read from ${said.join(', ')}: left out, not bridged.`],
  };
}

function figuresOf(
  kind: CaptureKind,
  own: Partial<Record<ColumnName, Float64Array>>,
  interval: number,
  specs: ScopeSpecs,
): CaptureFigures | { readonly reason: string } {
  const empty = new Float64Array();
  const { volts = empty, amps = empty, watts = empty, supply = empty } = own;
  switch (kind) {
    case 'waveform':
      return waveformFigures(volts, amps, interval, specs);
    case 'inrush':
      return inrushFigures(amps, interval, specs);
    case 'idle':
      return idleFigures(watts, interval);
    case 'fading':
      return fadingFigures(volts, interval);
    case 'dip':
      return dipFigures(volts, interval);
    case 'sweep':
      return sweepFigures(supply, volts);
    case 'ripple': {
      const figures = rippleOf(volts, interval);
      return 'reason' in figures ? figures : { kind: 'ripple', ...figures };
    }
    case 'soak':
      return { reason: 'A soak is worked out from its log.' };
    case 'charge':
      return { reason: 'A charge is worked out from its log.' };
  }
}

function hasGaps(column: Float64Array): boolean {
  for (let index = 0; index < column.length; index += 1) if (!Number.isFinite(column[index])) return true;
  return false;
}

/** Columns as people say them. */
export const COLUMN_WORDS: Readonly<Record<ColumnName, string>> = {
  volts: 'volts',
  amps: 'amps',
  watts: 'watts',
  supply: 'supply volts',
};

/** Captures that stand: neither replaced nor taken back. */
export function currentCaptures<T extends Pick<Capture, 'id' | 'supersedes' | 'withdrawn'>>(
  all: readonly T[],
): readonly T[] {
  const replaced = new Set(all.flatMap(({ supersedes }) => supersedes ?? []));
  return all.filter(({ id, withdrawn }) => !withdrawn && !replaced.has(id));
}

/**
 * Lowest and highest of each of some buckets: what a chart of any number of samples draws.
 * @returns pairs in time order, at most twice `buckets`; the samples themselves where they are fewer
 */
export function minMax(
  values: Float64Array,
  interval: number,
  buckets: number,
): { readonly x: number; readonly y: number }[] {
  if (values.length <= 2 * buckets) return Array.from(values, (y, index) => ({ x: index * interval, y }));
  return Array.from({ length: buckets }, (_, bucket) => {
    const from = Math.floor((bucket * values.length) / buckets);
    const to = Math.floor(((bucket + 1) * values.length) / buckets);
    let low = from;
    let high = from;
    for (let index = from; index < to; index += 1) {
      // Written so that a gap, which compares with nothing, gives way to any sample.
      if (!((values[index] ?? 0) >= (values[low] ?? 0))) low = Number.isNaN(values[index]) ? low : index;
      if (!((values[index] ?? 0) <= (values[high] ?? 0))) high = Number.isNaN(values[index]) ? high : index;
    }
    return [low, high].sort((a, b) => a - b).map((index) => ({ x: index * interval, y: values[index] ?? 0 }));
  }).flat();
}
