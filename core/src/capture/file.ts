// A capture as a file: volts, amps or watts against time.
import { isRead, type Table } from '../table/index.ts';
import {
  assumedSays,
  type Channel,
  type ChannelQuantity,
  doubtOf,
  MOST_MAINS,
  readTrace,
  type TraceReading,
} from '../trace/index.ts';
import { COLUMN_WORDS } from './figures.ts';
import { CAPTURE_COLUMNS, type CaptureKind, type ColumnName, type Trace } from './types.ts';

const NAMES: readonly (readonly [ColumnName, RegExp])[] = [
  ['supply', /^(supply|supplyvolts|supplyvoltage|vin|uin|vbat|battery|vsupply)$/],
  ['watts', /^(p|pin|power|watts|inputpower|inputwatts|mainspower|wall)$/],
  ['amps', /^(i|iin|current|amps|mainscurrent|inputcurrent|imains|ch2)$/],
  ['volts', /^(v|u|volts|voltage|vmains|umains|mainsvolts|mainsvoltage|vout|vbus|outputvolts|outputvoltage|ch1)$/],
];

const QUANTITY: Readonly<Record<ColumnName, ChannelQuantity>> = {
  volts: 'voltage',
  amps: 'current',
  watts: 'power',
  supply: 'voltage',
};

const USUAL: Readonly<Partial<Record<ChannelQuantity, string>>> = { voltage: 'V', current: 'A', power: 'W' };

const roleOf = (name: string): ColumnName | undefined => {
  const bare = name.toLowerCase().replace(/[^a-z0-9]/g, '');
  return NAMES.find(([, pattern]) => pattern.test(bare))?.[0];
};

export type CaptureReading =
  | {
      readonly ok: true;
      readonly trace: Trace;
      readonly samples: number;
      /** What was odd about the file, and what was taken for granted. */
      readonly remarks: readonly string[];
    }
  | { readonly ok: false; readonly reason: string };

const fail = (reason: string): CaptureReading => ({ ok: false, reason });

/**
 * The channel of a column: by its name, or as the only one of its quantity. What a supply is called is its volts where the
 * supply itself is looked at.
 */
function channelOf(column: ColumnName, kind: CaptureKind, channels: readonly Channel[]): Channel | undefined {
  const read = channels.filter(({ name }) => isRead(name));
  const named = read.find(({ name }) => roleOf(name) === column);
  if (named) return named;
  const alike = read.filter(({ quantity, name }) => {
    const role = roleOf(name);
    return quantity === QUANTITY[column] && (role === undefined || (role === 'supply' && kind === 'waveform'));
  });
  return alike.length === 1 ? alike[0] : undefined;
}

/** The columns a kind of capture needs, out of whatever was recorded. */
export function captureFrom(kind: CaptureKind, reading: TraceReading): CaptureReading {
  if (!reading.ok) return fail(reading.line === null ? reading.reason : `Line ${reading.line}: ${reading.reason}`);
  const { trace } = reading;
  const found = CAPTURE_COLUMNS[kind].map((column) => ({ column, channel: channelOf(column, kind, trace.channels) }));
  const missing = found.find(({ channel }) => !channel);
  if (missing)
    return fail(
      `No column of ${COLUMN_WORDS[missing.column]}. Its columns are ${trace.channels.map(({ name }) => `"${name}"`).join(', ')}; name one "${missing.column}".`,
    );
  const unread = found.find(({ channel }) => channel && channel.quantity === null && channel.unit !== '');
  if (unread?.channel)
    return fail(`"${unread.channel.unit}" is not a unit of its column. Use s, ms, V, A, mA, W or mW.`);
  if (trace.times) {
    const { times, interval } = trace;
    const mean = (times[times.length - 1] as number) / (times.length - 1);
    const uneven = times.findIndex((time, index) => Math.abs(time - index * mean) > UNEVEN * mean);
    const at = `${Number((times[Math.max(0, uneven)] as number).toPrecision(4))} s`;
    return fail(
      `Times are not evenly spaced from ${at} on (mostly ${Number(interval.toPrecision(3))} s apart). Export it with a fixed sample rate.`,
    );
  }
  const columns = Object.fromEntries(
    found.map(({ column, channel }) => [column, Float64Array.from(channel?.values ?? [])]),
  );
  const assumed = found.flatMap(({ column, channel }) =>
    channel?.quantity === null ? [[channel.name, USUAL[QUANTITY[column]] ?? ''] as const] : [],
  );
  const doubts = found.flatMap(({ column, channel }) => {
    const quantity = QUANTITY[column];
    const known = quantity === 'voltage' || quantity === 'current' || quantity === 'power';
    return (known && channel && doubtOf(channel, quantity, MOST_MAINS[quantity])) || [];
  });
  return {
    ok: true,
    trace: { interval: trace.interval, columns },
    samples: trace.samples,
    remarks: [...trace.remarks, ...assumedSays(assumed), ...doubts],
  };
}

/** How far samples may stray from an even spacing, as a fraction of it. */
const UNEVEN = 0.1;

/**
 * Read a capture at once: a column of time, and volts, amps or watts against it, as any program writes them.
 * See {@link readTrace}.
 */
export const readCapture = (kind: CaptureKind, content: Uint8Array | string): CaptureReading =>
  captureFrom(kind, readTrace(content));

/** A trace as a table in SI, heads first. */
export function captureTable({ interval, columns }: Trace): Table {
  const names = Object.keys(columns) as ColumnName[];
  const length = Math.max(0, ...names.map((name) => columns[name]?.length ?? 0));
  const units: Readonly<Record<ColumnName, string>> = { volts: 'V', amps: 'A', watts: 'W', supply: 'V' };
  return [
    ['time [s]', ...names.map((name) => `${name} [${units[name]}]`)],
    ...Array.from({ length }, (_, index) => [
      Number((index * interval).toPrecision(9)),
      ...names.map((name) => {
        const value = columns[name]?.[index] ?? 0;
        return Number.isNaN(value) ? null : Number(value.toPrecision(7));
      }),
    ]),
  ];
}
