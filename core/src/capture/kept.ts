// From whatever was recorded to what is kept of it and its figures, by kind.
import { chargeOf, thinned, withPower } from '../charge/index.ts';
import { soakOf } from '../heat/index.ts';
import { rippleChannel, rippleOf } from '../ripple/index.ts';
import type { ChannelQuantity, Trace as LongTrace, TraceReading } from '../trace/index.ts';
import type { ScopeSpecs } from './accuracy.ts';
import { captureFigures } from './figures.ts';
import { captureFrom } from './file.ts';
import type { CaptureFigures, CaptureHead, ColumnName, Trace } from './types.ts';

/** What is known of what recorded it. */
export interface RecordedWith {
  /** Accuracy of probe and scope. */
  readonly specs?: ScopeSpecs;
  /** Analogue bandwidth of probe and scope, Hz. */
  readonly bandwidth?: number | null;
}

export interface KeptCapture {
  readonly trace: LongTrace;
  readonly figures: CaptureFigures;
}

type Head = Pick<CaptureHead, 'kind' | 'mains' | 'soak' | 'charge'>;

/** Points of a level curve that are kept with the figures. */
const MOST_POINTS = 200;

const QUANTITY: Readonly<Record<ColumnName, ChannelQuantity>> = {
  volts: 'voltage',
  amps: 'current',
  watts: 'power',
  supply: 'voltage',
};
const UNIT = { voltage: 'V', current: 'A', power: 'W', energy: 'Wh', temperature: '°C', level: '' } as const;

/** Columns of a capture as a trace. */
export function longTrace({ interval, columns }: Trace): LongTrace {
  const names = Object.keys(columns) as ColumnName[];
  return {
    samples: Math.max(0, ...names.map((name) => columns[name]?.length ?? 0)),
    interval,
    times: null,
    began: null,
    channels: names.map((name) => ({
      name,
      quantity: QUANTITY[name],
      unit: UNIT[QUANTITY[name]],
      values: columns[name] ?? new Float64Array(),
    })),
    facts: { bandwidth: null, envelope: false, coupling: null },
    remarks: [],
  };
}

/** Columns of a capture out of a kept trace. */
export const columnsIn = ({ channels }: LongTrace): Trace['columns'] =>
  Object.fromEntries(channels.map(({ name, values }) => [name, Float64Array.from(values)]));

/** In single precision, as it is kept: figures are worked out from just that. */
const single = (trace: LongTrace): LongTrace => ({
  ...trace,
  channels: trace.channels.map((channel) => ({ ...channel, values: Float32Array.from(channel.values) })),
});

function ripple(
  { mains }: Head,
  trace: LongTrace,
  { bandwidth = null }: RecordedWith,
): KeptCapture | { readonly reason: string } {
  const channel = rippleChannel(trace);
  if ('reason' in channel) return channel;
  // What was taken for granted goes along where its samples are sent alone.
  const remarks = [...channel.remarks, ...trace.remarks];
  const kept = single({
    ...trace,
    remarks,
    samples: channel.values.length,
    channels: [
      { name: 'volts', quantity: 'voltage', unit: 'V', values: channel.values },
      ...(channel.amps ? [{ name: 'amps', quantity: 'current' as const, unit: 'A', values: channel.amps }] : []),
    ],
  });
  const figures = rippleOf(kept.channels[0]?.values ?? new Float32Array(), kept.interval, {
    mains: mains.kind === 'ac' ? mains.hertz : 0,
    bandwidth: trace.facts.bandwidth ?? bandwidth,
    envelope: trace.facts.envelope,
    amps: kept.channels[1]?.values ?? null,
  });
  if ('reason' in figures) return figures;
  return {
    trace: kept,
    figures: { kind: 'ripple', ...figures, findings: [...figures.findings, ...remarks] },
  };
}

function soak({ soak: setting }: Head, trace: LongTrace): KeptCapture | { readonly reason: string } {
  const kept = single(trace);
  const figures = soakOf(kept, { ambient: setting?.ambient ?? null });
  if ('reason' in figures) return figures;
  return { trace: kept, figures: { kind: 'soak', ...figures, findings: [...figures.findings, ...trace.remarks] } };
}

function charge({ charge: setting }: Head, trace: LongTrace): KeptCapture | { readonly reason: string } {
  const kept = single(withPower(trace));
  const session = chargeOf(kept, { startLevel: setting?.startLevel ?? null, end: setting?.end ?? null });
  if ('reason' in session) return session;
  const { curve, findings } = session;
  return {
    trace: kept,
    figures: {
      kind: 'charge',
      ...session,
      curve: curve && thinned(curve, MOST_POINTS),
      findings: [...findings, ...trace.remarks],
    },
  };
}

/**
 * What is kept of a recording, and its figures, worked out from just what is kept.
 * @param from a file or a log as it was read, or what an instrument told
 * @returns or why it cannot be taken, in a sentence that says what to do
 */
export function keptOf(
  head: Head,
  from: TraceReading | Trace,
  recorded: RecordedWith = {},
): KeptCapture | { readonly reason: string } {
  if ('ok' in from && !from.ok)
    return { reason: from.line === null ? from.reason : `Line ${from.line}: ${from.reason}` };
  const long = 'ok' in from ? from.trace : longTrace(from);
  if (head.kind === 'ripple') return ripple(head, long, recorded);
  if (head.kind === 'soak') return soak(head, long);
  if (head.kind === 'charge') return charge(head, long);
  const read = 'ok' in from ? captureFrom(head.kind, from) : { ok: true as const, trace: from, remarks: [] };
  if (!read.ok) return read;
  const trace = single({ ...longTrace(read.trace), remarks: read.remarks });
  const { gaps } = read.trace;
  const figures = captureFigures(
    head.kind,
    { interval: trace.interval, columns: columnsIn(trace), ...(gaps ? { gaps } : {}) },
    recorded.specs,
  );
  if ('reason' in figures) return figures;
  return { trace, figures: { ...figures, findings: [...figures.findings, ...read.remarks] } };
}

/** Ripple read off by eye: its peak to peak, and nothing more. */
export const typedRipple = (volts: number): CaptureFigures => ({
  kind: 'ripple',
  samples: 0,
  sampleRate: 0,
  peakToPeak: volts,
  peakToPeak9999: null,
  rms: null,
  mean: 0,
  drift: 0,
  lines: [],
  findings: ['Read off by eye: peak to peak only.'],
});
