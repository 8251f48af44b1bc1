// Offers as a CSV or JSON list, and read-outs in the open JSON form of the sample export.
import { encodeSource, type Finding, parseOffer, type SourceObject } from '../pd/index.ts';
import { parseQuantity } from '../quantity/index.ts';
import { headedRows } from '../table/index.ts';
import type { ReadOut } from './types.ts';

export interface ListReading {
  readonly words: readonly number[];
  readonly findings: readonly Finding[];
  /** A whole read-out in the open form, when the text held one. */
  readonly readOut: Partial<ReadOut> | null;
  /** All of them, when it held several: one is to be chosen. */
  readonly several: readonly Partial<ReadOut>[];
}

const fault = (sentence: string): Finding => ({ kind: 'unreadable', grade: 'fault', sentence, positions: [] });

const KINDS: Readonly<Record<string, SourceObject['kind']>> = {
  fixed: 'fixed',
  variable: 'variable',
  battery: 'battery',
  pps: 'pps',
  apdo: 'pps',
  avs: 'epr-avs',
  'epr avs': 'epr-avs',
  'epr-avs': 'epr-avs',
  'spr avs': 'spr-avs',
  'spr-avs': 'spr-avs',
};

type Row = Readonly<Record<string, unknown>>;

/** A value by any of its names, SI; a text may carry its unit. */
const numberIn = (row: Row, quantity: 'voltage' | 'current' | 'power', ...names: string[]): number => {
  for (const name of names) {
    const value = row[name];
    if (typeof value === 'number') return value;
    if (typeof value !== 'string' || value.trim() === '') continue;
    const parsed = parseQuantity(value, quantity);
    return parsed.ok ? parsed.value : Number.NaN;
  }
  return Number.NaN;
};

/** One row as an offer, or why not. */
function offerOf(row: Row): SourceObject | string {
  const kind =
    KINDS[
      String(row.kind ?? row.type ?? 'fixed')
        .trim()
        .toLowerCase()
    ];
  if (!kind)
    return `"${String(row.kind ?? row.type).slice(0, 24)}" is no kind of offer. Use fixed, variable, battery, pps, epr-avs or spr-avs.`;
  const minVolts = numberIn(row, 'voltage', 'minVolts', 'min_volts', 'min v');
  const maxVolts = numberIn(row, 'voltage', 'maxVolts', 'max_volts', 'max v');
  const amps = numberIn(row, 'current', 'amps', 'a');
  const watts = numberIn(row, 'power', 'watts', 'w');
  const need = (...values: number[]) => values.every(Number.isFinite);
  if (kind === 'fixed') {
    const volts = numberIn(row, 'voltage', 'volts', 'v', 'maxVolts', 'max_volts');
    return need(volts, amps)
      ? { kind, volts, amps, peak: 0, flags: [], reserved: 0 }
      : 'A fixed level has volts and amps.';
  }
  if (kind === 'spr-avs') {
    const above = numberIn(row, 'current', 'ampsAbove', 'amps_above');
    return need(amps)
      ? { kind, amps, ampsAbove: Number.isFinite(above) ? above : 0, peak: 0, reserved: 0 }
      : 'SPR AVS has amps, and amps_above for 15–20 V.';
  }
  if (!need(minVolts, maxVolts)) return `${kind} has min_volts and max_volts.`;
  if (kind === 'battery') return need(watts) ? { kind, minVolts, maxVolts, watts } : 'A battery supply has watts.';
  if (kind === 'epr-avs')
    return need(watts) ? { kind, minVolts, maxVolts, watts, peak: 0, reserved: 0 } : 'EPR AVS has watts.';
  if (!need(amps)) return `${kind} has amps.`;
  return kind === 'pps'
    ? { kind, minVolts, maxVolts, amps, powerLimited: false, reserved: 0 }
    : { kind: 'variable', minVolts, maxVolts, amps };
}

/** @param lineOf where a row stood, from 1 */
function wordsFrom(
  rows: readonly unknown[],
  lineOf = (index: number): number => index + 1,
): Pick<ListReading, 'words' | 'findings'> {
  const words: number[] = [];
  const findings: Finding[] = [];
  rows.forEach((row, index) => {
    const place = `Line ${lineOf(index)}: `;
    if (typeof row === 'string' && /^(?:0x)?[0-9a-f]{8}$/i.test(row)) {
      words.push(Number.parseInt(row, 16));
      return;
    }
    if (typeof row === 'number' && Number.isInteger(row) && row >= 0 && row < 2 ** 32) {
      words.push(row);
      return;
    }
    const parsed = typeof row === 'string' ? parseOffer(row) : null;
    const offer = parsed
      ? parsed.ok
        ? parsed.object
        : parsed.reason
      : typeof row === 'object' && row !== null
        ? offerOf(row as Row)
        : 'not an offer.';
    if (typeof offer === 'string') {
      findings.push(fault(place + offer));
      return;
    }
    try {
      words.push(encodeSource(offer));
    } catch (error) {
      findings.push(fault(place + (error instanceof RangeError ? error.message : 'cannot be encoded.')));
    }
  });
  return { words, findings };
}

const isRecord = (value: unknown): value is Row => typeof value === 'object' && value !== null && !Array.isArray(value);

const nothingWith = (finding: Finding): ListReading => ({ words: [], findings: [finding], readOut: null, several: [] });

function fromJson(text: string): ListReading {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return nothingWith(fault('This is not sound JSON.'));
  }
  if (Array.isArray(value)) return { ...wordsFrom(value), readOut: null, several: [] };
  if (!isRecord(value)) return nothingWith(fault('A list of offers, or a read-out, is expected.'));
  // A sample export holds its read-outs under `readOuts`.
  const nested = Array.isArray(value.readOuts) ? value.readOuts : null;
  if (nested && nested.length !== 1) {
    const several = nested.filter(isRecord) as Partial<ReadOut>[];
    const finding = fault(`${nested.length} read-outs are in this text. Choose the one that is wanted.`);
    return { ...nothingWith(finding), several };
  }
  const one = nested ? nested[0] : value;
  if (!isRecord(one) || !Array.isArray(one.words))
    return nothingWith(fault('The list of offers is expected under "words".'));
  return { ...wordsFrom(one.words), readOut: one as Partial<ReadOut>, several: [] };
}

function fromCsv(text: string): ListReading {
  const { rows } = headedRows(text);
  const read = wordsFrom(
    rows.map(({ cells }) => cells),
    (index) => rows[index]?.line ?? index + 1,
  );
  return { ...read, readOut: null, several: [] };
}

/** Whether text is a list rather than hexadecimal words. */
export const isList = (text: string): boolean =>
  /^\s*[[{]/.test(text) ? /["{]/.test(text) : /^\s*(kind|type)\s*[,;\t]/i.test(text);

/**
 * Where one offer ends and the next begins: a new line; or, behind amps, watts or a bracket, a sign that parts, or a blank alone,
 * before what has volts. `5V/3A` stays one, and so does `SPR AVS 3 A / 2.25 A`.
 */
const BETWEEN =
  /\r?\n|(?<=[AW)]\s{0,3})[,;|/·•]\s{0,3}(?=(?:[^,;|/·•\r\n]|\d,\d){0,40}\d\s{0,2}m?V)|(?<=A)\s+(?=\d+(?:[.,]\d+)?\s{0,2}m?V)/i;

const offersIn = (text: string): readonly string[] =>
  text
    .split(BETWEEN)
    .map((line) => line.trim())
    .filter(Boolean);

/** Whether every line reads as an offer in words: "9 V 3 A". */
export const isOfferLines = (text: string): boolean => {
  const lines = offersIn(text);
  return lines.length > 0 && lines.every((line) => /\d\s*m?[VW]\b/i.test(line) || /^\s*(pps|spr|epr|avs)/i.test(line));
};

/** Read a CSV or JSON list of offers, lines in words, or a read-out in the open form. Never throws. */
export function readList(text: string): ListReading {
  if (/^\s*[[{]/.test(text)) return fromJson(text);
  if (isList(text)) return fromCsv(text);
  return {
    ...wordsFrom(offersIn(text)),
    readOut: null,
    several: [],
  };
}
