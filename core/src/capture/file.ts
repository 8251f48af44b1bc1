// A capture as a file: volts, amps or watts against time.
import { isRead, type Table } from '../table/index.ts';
import {
  assumedSays,
  type Channel,
  type ChannelQuantity,
  type Chosen,
  doubtOf,
  isAtWall,
  MOST_MAINS,
  readTrace,
  severalSay,
  type TraceReading,
  words,
} from '../trace/index.ts';
import { evened } from './evened.ts';
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

type Side = 'in' | 'out';

/** Which side of the charger each column is of. */
const SIDE: Readonly<Partial<Record<CaptureKind, Readonly<Partial<Record<ColumnName, Side>>>>>> = {
  waveform: { volts: 'in', amps: 'in' },
  inrush: { amps: 'in' },
  idle: { watts: 'in' },
  fading: { volts: 'out' },
  dip: { volts: 'out' },
  sweep: { supply: 'in', volts: 'out' },
};
/** What feeds a charger, whatever it puts out itself. */
const FEEDS = /\b(?:supply|source|battery|feed|primary)/i;
const GIVES_OUT = /\b(?:[uvip] ?)?out(?:put)?(?![a-z])/i;
/** No load is what idle is read at. */
const GIVES = /\b(?:ports?|(?<!no )load|(?:[uvip] ?)?(?:bus|dc)|usb|secondary)(?![a-z])|^[ac]\d\b/i;

/** The side of the charger a name says; null where it says none. */
function sideOf(channel: Channel): Side | null {
  const plain = words(channel.name);
  if (FEEDS.test(plain)) return 'in';
  if (GIVES_OUT.test(plain)) return 'out';
  if (isAtWall(channel)) return 'in';
  return GIVES.test(plain) ? 'out' : null;
}

/**
 * The channel of a column: of its side of the charger, by its name, or as the only one of its quantity.
 * @returns null where none is, or nobody knows which
 */
function channelOf(column: ColumnName, kind: CaptureKind, channels: readonly Channel[]): Chosen | null {
  const wanted = SIDE[kind]?.[column];
  const isAlike = ({ quantity }: Channel) => quantity === QUANTITY[column];
  const fits = channels.filter((one) => {
    const side = sideOf(one);
    const isOf = isAlike(one) || roleOf(one.name) === column;
    return isOf && isRead(one.name) && (wanted === undefined || side === null || side === wanted);
  });
  const sure = fits.filter((one) => sideOf(one) === wanted && isAlike(one));
  const list = sure.length > 0 ? sure : fits;
  const unnamed = list.filter(({ name }) => roleOf(name) === undefined);
  const only = unnamed.length === 1 ? unnamed[0] : undefined;
  const channel = list.find(({ name }) => roleOf(name) === column) ?? sure[0] ?? only;
  return channel ? { channel, others: list.filter((one) => isAlike(one) && one !== channel) } : null;
}

/** The columns a kind of capture needs, out of whatever was recorded. */
export function captureFrom(kind: CaptureKind, reading: TraceReading): CaptureReading {
  if (!reading.ok) return fail(reading.line === null ? reading.reason : `Line ${reading.line}: ${reading.reason}`);
  const { trace } = reading;
  const chosen = CAPTURE_COLUMNS[kind].map((column) => ({ column, one: channelOf(column, kind, trace.channels) }));
  const missing = chosen.find(({ one }) => !one);
  if (missing)
    return fail(
      `No column of ${COLUMN_WORDS[missing.column]}. Its columns are ${trace.channels.map(({ name }) => `"${name}"`).join(', ')}; name one "${missing.column}".`,
    );
  const found = chosen.map(({ column, one }) => ({ column, channel: one?.channel }));
  // What another column takes is no choice.
  const several = severalSay(
    chosen.map(
      ({ one }) =>
        one && { ...one, others: one.others.filter((other) => !found.some(({ channel }) => channel === other)) },
    ),
  );
  const unread = found.find(({ channel }) => channel && channel.quantity === null && channel.unit !== '');
  if (unread?.channel)
    return fail(`"${unread.channel.unit}" is not a unit of its column. Use s, ms, V, A, mA, W or mW.`);
  const even = evened(
    kind,
    trace,
    found.map(({ column, channel }) => ({ column, values: channel?.values ?? [] })),
  );
  if ('reason' in even) return fail(even.reason);
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
    trace: even.trace,
    samples: trace.samples,
    remarks: [...trace.remarks, ...even.remarks, ...several, ...assumedSays(assumed), ...doubts],
  };
}

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
