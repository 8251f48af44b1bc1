// Requests: what a device asked for. USB Power Delivery R3.2, 6.4.2 (request data objects).
import { explain, flag, type Layout, number, pack, reserved, reservedPart, steps, unpack } from './layout.ts';
import type { SourceObject } from './source.ts';

/** How a request is laid out; it follows from the object it asks for. */
export type RequestKind = 'fixed' | 'battery' | 'pps' | 'avs';

const HEAD = [
  number('position', 31, 28, 'Object position'),
  flag('giveBack', 27, 'Give back (to R3.0)'),
  flag('mismatch', 26, 'Capability mismatch'),
  flag('comms', 25, 'USB communications capable'),
  flag('noSuspend', 24, 'No USB suspend'),
  flag('unchunked', 23, 'Unchunked extended messages'),
  flag('epr', 22, 'EPR capable'),
] as const;

const FIXED_REQUEST = [
  ...HEAD,
  reserved(21, 20),
  steps('operating', 19, 10, 'Operating current', 0.01, 'A'),
  steps('most', 9, 0, 'Maximum current', 0.01, 'A'),
] as const;
const BATTERY_REQUEST = [
  ...HEAD,
  reserved(21, 20),
  steps('operating', 19, 10, 'Operating power', 0.25, 'W'),
  steps('most', 9, 0, 'Maximum power', 0.25, 'W'),
] as const;
const [position, , ...flags] = HEAD;
const ADJUSTED_HEAD = [position, reserved(27), ...flags, reserved(21)] as const;
const PPS_REQUEST = [
  ...ADJUSTED_HEAD,
  steps('volts', 20, 9, 'Output voltage', 0.02, 'V'),
  reserved(8, 7),
  steps('amps', 6, 0, 'Operating current', 0.05, 'A'),
] as const;
const AVS_REQUEST = [
  ...ADJUSTED_HEAD,
  steps('volts', 20, 9, 'Output voltage', 0.025, 'V'),
  reserved(8, 7),
  steps('amps', 6, 0, 'Operating current', 0.05, 'A'),
] as const;

const LAYOUTS = { fixed: FIXED_REQUEST, battery: BATTERY_REQUEST, pps: PPS_REQUEST, avs: AVS_REQUEST } as const;

export const requestLayout = (kind: RequestKind): Layout => LAYOUTS[kind];

/** Flags of a request as they are set. */
export const REQUEST_FLAGS = ['giveBack', 'mismatch', 'comms', 'noSuspend', 'unchunked', 'epr'] as const;
export type RequestFlag = (typeof REQUEST_FLAGS)[number];

/** A decoded request. Amps for fixed, PPS and AVS; watts for a battery supply. */
export interface Request {
  readonly kind: RequestKind;
  /** 1-based position in the list of offers. */
  readonly position: number;
  readonly flags: readonly RequestFlag[];
  /** V; null where the object fixes it. */
  readonly volts: number | null;
  /** A, or W for a battery supply. */
  readonly operating: number;
  /** A or W; null for PPS and AVS, which have none. */
  readonly most: number | null;
  readonly reserved: number;
}

/** The layout of a request for an object. A place holder is asked for like a fixed supply. */
export function requestKind(object: SourceObject | undefined): RequestKind {
  if (object?.kind === 'battery') return 'battery';
  if (object?.kind === 'pps') return 'pps';
  return object?.kind === 'epr-avs' || object?.kind === 'spr-avs' ? 'avs' : 'fixed';
}

const rounded = (raw: number, step: number): number => Number((raw * step).toFixed(3));
const UNIT = { fixed: 0.01, battery: 0.25 } as const;
const VOLT_STEP = { pps: 0.02, avs: 0.025 } as const;

/** Decode a request. @param kind as the object asked for wants it, see {@link requestKind} */
export function decodeRequest(word: number, kind: RequestKind): Request {
  const layout: Layout = LAYOUTS[kind];
  const raw = unpack(layout, word) as Readonly<Record<string, number>>;
  const at = (id: string) => raw[id] ?? 0;
  const head = {
    kind,
    position: at('position'),
    flags: REQUEST_FLAGS.filter((name) => raw[name] === 1),
    reserved: reservedPart(layout, word),
  };
  if (kind === 'fixed' || kind === 'battery') {
    const unit = UNIT[kind];
    return { ...head, volts: null, operating: rounded(at('operating'), unit), most: rounded(at('most'), unit) };
  }
  return { ...head, volts: rounded(at('volts'), VOLT_STEP[kind]), operating: rounded(at('amps'), 0.05), most: null };
}

/** Encode a request: the exact inverse of {@link decodeRequest}. @throws RangeError for a value that does not fit */
export function encodeRequest({
  kind,
  position: at,
  flags: set,
  volts,
  operating,
  most,
  reserved: rest,
}: Request): number {
  const head = { position: at, ...Object.fromEntries(set.map((name) => [name, 1])) };
  const layout: Layout = LAYOUTS[kind];
  if (kind === 'fixed' || kind === 'battery') {
    const unit = UNIT[kind];
    return (
      pack(layout, { ...head, operating: Math.round(operating / unit), most: Math.round((most ?? 0) / unit) }) + rest
    );
  }
  const volt = Math.round((volts ?? 0) / VOLT_STEP[kind]);
  return pack(layout, { ...head, volts: volt, amps: Math.round(operating / 0.05) }) + rest;
}

export const explainRequest = (word: number, kind: RequestKind) => explain(LAYOUTS[kind], word);
