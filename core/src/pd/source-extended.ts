// What a source says of how it is built: USB Power Delivery R3.2, 6.5.1 (extended source capabilities), a block of bytes.
import type { Finding } from './finding.ts';
import type { ExplainedField } from './layout.ts';

/** Bytes of the block: the power ratings came last, one by one. */
const WITHOUT_RATING = 23;
const WHOLE = 25;
/** Room for what later revisions add. */
const LONGEST = 32;
/** Most a source without EPR gives, W. */
const SPR_WATTS = 100;
const EPR_WATTS = 240;

interface ByteField {
  readonly title: string;
  readonly at: number;
  readonly bytes: number;
  readonly says: (raw: number) => string;
  /** Bits the standard leaves unused. */
  readonly unused?: number;
}

const hex = (digits: number) => (raw: number) => `0x${raw.toString(16).toUpperCase().padStart(digits, '0')}`;
const bit = (raw: number, at: number): boolean => Math.floor(raw / 2 ** at) % 2 === 1;
const bits = (raw: number, high: number, low: number): number => Math.floor(raw / 2 ** low) % 2 ** (high - low + 1);
const named =
  (names: readonly string[], none: string) =>
  (raw: number): string =>
    names.filter((_, index) => bit(raw, index)).join(', ') || none;
const watts = (raw: number): string => (raw === 0 ? 'not stated' : `${raw} W`);

/** Overload in tens of per cent, its time in 20 ms, how much of the time in twentieths. */
function peakWords(raw: number): string {
  if (raw === 0) return 'none';
  const over = Math.min(bits(raw, 4, 0), 25) * 10;
  const droop = bit(raw, 15) ? '; the voltage may droop' : '';
  return `${over} % over for ${bits(raw, 10, 5) * 20} ms, ${bits(raw, 14, 11) * 5} % of the time${droop}`;
}

const FIELDS: readonly ByteField[] = [
  { title: 'Vendor', at: 0, bytes: 2, says: hex(4) },
  { title: 'Product', at: 2, bytes: 2, says: hex(4) },
  { title: 'Certificate', at: 4, bytes: 4, says: (raw) => (raw === 0 ? 'none' : hex(8)(raw)) },
  { title: 'Firmware version', at: 8, bytes: 1, says: String },
  { title: 'Hardware version', at: 9, bytes: 1, says: String },
  {
    title: 'Voltage regulation',
    at: 10,
    bytes: 1,
    says: (raw) =>
      `load steps of ${bit(raw, 2) ? 90 : 25} % at ${['150 mA/µs', '500 mA/µs'][bits(raw, 1, 0)] ?? 'a reserved rate'}`,
    unused: 0xf8,
  },
  { title: 'Hold-up', at: 11, bytes: 1, says: (raw) => (raw === 0 ? 'not stated' : `${raw} ms`) },
  {
    title: 'Limited power',
    at: 12,
    bytes: 1,
    says: named(['limited power source', 'PS1', 'PS2'], 'not stated'),
    unused: 0xf8,
  },
  {
    title: 'Touch current',
    at: 13,
    bytes: 1,
    says: named(['low touch current', 'has a ground pin', 'ground pin is protective earth'], 'not stated'),
    unused: 0xf8,
  },
  { title: 'Peak current 1', at: 14, bytes: 2, says: peakWords },
  { title: 'Peak current 2', at: 16, bytes: 2, says: peakWords },
  { title: 'Peak current 3', at: 18, bytes: 2, says: peakWords },
  {
    title: 'Touch temperature',
    at: 20,
    bytes: 1,
    says: (raw) => ['IEC 60950-1', 'IEC 62368-1 TS1', 'IEC 62368-1 TS2'][raw] ?? 'reserved value',
    unused: 0xfc,
  },
  {
    title: 'Fed by',
    at: 21,
    bytes: 1,
    says: (raw) =>
      [
        bit(raw, 0) ? `an outside supply, ${bit(raw, 1) ? 'unconstrained' : 'constrained'}` : '',
        bit(raw, 2) ? 'a battery inside' : '',
      ]
        .filter(Boolean)
        .join(' and ') || 'not stated',
    unused: 0xf8,
  },
  {
    title: 'Batteries',
    at: 22,
    bytes: 1,
    says: (raw) => (raw === 0 ? 'none' : `${bits(raw, 3, 0)} fixed, ${bits(raw, 7, 4)} slots`),
  },
  { title: 'SPR power rating', at: 23, bytes: 1, says: watts },
  { title: 'EPR power rating', at: 24, bytes: 1, says: watts },
];

/** Least significant byte first. */
const rawOf = (bytes: readonly number[], { at, bytes: count }: ByteField): number =>
  bytes.slice(at, at + count).reduce((sum, byte, index) => sum + byte * 256 ** index, 0);

const present = (bytes: readonly number[]): readonly ByteField[] =>
  FIELDS.filter(({ at, bytes: count }) => at + count <= bytes.length);

/** Whether bytes are as many as such a block may have, this revision or a later one. */
export const isExtendedBlock = (bytes: readonly number[]): boolean =>
  bytes.length >= WITHOUT_RATING && bytes.length <= LONGEST;

export interface ExtendedSource {
  /** Power rating without EPR, W; null where it is not stated. */
  readonly sprWatts: number | null;
  /** With EPR, W; null where it is not stated: a source without EPR, or of before R3.1. */
  readonly eprWatts: number | null;
}

/**
 * Decode a block of extended source capabilities; any bytes decode, what is beyond their end is not stated.
 * @param bytes in the order of the wire
 * @example decodeExtended([...Array(23).fill(0), 65]).sprWatts // 65
 */
export function decodeExtended(bytes: readonly number[]): ExtendedSource {
  const stated = (at: number): number | null => bytes[at] || null;
  return { sprWatts: stated(23), eprWatts: stated(24) };
}

/** Every field with what it means; what the block does not reach is left out. */
export const explainExtended = (bytes: readonly number[]): readonly ExplainedField[] =>
  present(bytes).map((field) => {
    const raw = rawOf(bytes, field);
    const last = field.at + field.bytes - 1;
    return {
      bits: field.bytes === 1 ? `byte ${field.at}` : `bytes ${field.at}–${last}`,
      title: field.title,
      raw,
      says: field.says(raw),
      sound: !isOdd(field, raw),
    };
  });

const isOdd = ({ unused = 0 }: ByteField, raw: number): boolean => (raw & unused) !== 0;

const fault = (sentence: string): Finding => ({ kind: 'extended', grade: 'fault', sentence, positions: [] });

/** What is wrong in a block by itself. @param bytes in the order of the wire; none is no block and nothing is wrong */
export function checkExtended(bytes: readonly number[]): readonly Finding[] {
  if (bytes.length === 0) return [];
  const found: Finding[] = [];
  if (bytes.length < WITHOUT_RATING)
    found.push(
      fault(
        `The extended capabilities end after ${bytes.length} bytes; there are ${WHOLE}, ${WITHOUT_RATING} at least.`,
      ),
    );
  if (bytes.length > WHOLE)
    found.push({
      ...fault(
        `${bytes.length - WHOLE} bytes beyond the ${WHOLE} known ones of the extended capabilities are passed over.`,
      ),
      grade: 'note',
    });
  for (const field of present(bytes))
    if (isOdd(field, rawOf(bytes, field)))
      found.push(fault(`${field.title} in the extended capabilities has reserved bits set.`));
  const { sprWatts, eprWatts } = decodeExtended(bytes);
  if (sprWatts !== null && sprWatts > SPR_WATTS)
    found.push(fault(`The SPR power rating is ${sprWatts} W; without EPR there are at most ${SPR_WATTS} W.`));
  if (eprWatts !== null && (eprWatts > EPR_WATTS || eprWatts <= SPR_WATTS))
    found.push(fault(`The EPR power rating is ${eprWatts} W; EPR goes from ${SPR_WATTS + 1} to ${EPR_WATTS} W.`));
  return found;
}
