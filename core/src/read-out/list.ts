// Offers as a CSV or JSON list, and read-outs in the open JSON form of the sample export.
import { decodeSource, encodeSource, type Finding, parseOffer, type SourceObject, SPR_POSITIONS } from '../pd/index.ts';
import { parseQuantity } from '../quantity/index.ts';
import { isOfferTable, offerCells, offerRows } from './columns.ts';
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
  'fixed supply': 'fixed',
  pps: 'pps',
  apdo: 'pps',
  'apdo pps': 'pps',
  'spr pps': 'pps',
  programmable: 'pps',
  avs: 'epr-avs',
  'epr avs': 'epr-avs',
  'epr-avs': 'epr-avs',
  'spr avs': 'spr-avs',
  'spr-avs': 'spr-avs',
};

type Row = Readonly<Record<string, unknown>>;

/** No adjustable level below it is of the extended range, V. */
const SPR_VOLTS = 20;
const SPR_LOWER = 15;

/** One row as an offer, or why not. */
function offerOf(row: Readonly<Record<string, string>>): SourceObject | string {
  const value = (quantity: 'voltage' | 'current' | 'power', name: string): number => {
    const parsed = parseQuantity(row[name] ?? '', quantity);
    return parsed.ok ? parsed.value : Number.NaN;
  };
  const said = (row.kind ?? 'fixed').trim().toLowerCase();
  const [minVolts, maxVolts] = [value('voltage', 'min_volts'), value('voltage', 'max_volts')];
  const [amps, watts] = [value('current', 'amps'), value('power', 'watts')];
  const need = (...values: number[]) => values.every(Number.isFinite);
  const kind = said === 'avs' && !need(watts) && maxVolts <= SPR_VOLTS ? 'spr-avs' : KINDS[said];
  if (!kind)
    return `"${(row.kind ?? '').slice(0, 24)}" is no kind of offer. Use fixed, variable, battery, pps, epr-avs or spr-avs.`;
  if (kind === 'fixed') {
    const volts = need(value('voltage', 'volts')) ? value('voltage', 'volts') : maxVolts;
    return need(volts, amps)
      ? { kind, volts, amps, peak: 0, flags: [], reserved: 0 }
      : 'A fixed level has volts and amps.';
  }
  if (kind === 'spr-avs') {
    const told = value('current', 'amps_above');
    // One current with a range to 20 V is that of both parts.
    const above = need(told) ? told : maxVolts > SPR_LOWER ? amps : 0;
    return need(amps)
      ? { kind, amps, ampsAbove: above, peak: 0, reserved: 0 }
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

/** A row that is a word already. */
function wordIn(row: unknown): number | null {
  if (typeof row === 'string') return /^(?:0x)?[0-9a-f]{8}$/i.test(row) ? Number.parseInt(row, 16) : null;
  return typeof row === 'number' && Number.isInteger(row) && row >= 0 && row < 2 ** 32 ? row : null;
}

const isEprOffer = (object: SourceObject): boolean =>
  object.kind === 'epr-avs' || (object.kind === 'fixed' && object.volts > SPR_VOLTS + 0.5);

/**
 * A list in words leaves the places out that a message fills with noughts: EPR offers behind all others stand from position 8
 * on. Nobody noted flags either; that it is EPR capable follows from what it offers.
 */
function eprPlaced(words: readonly number[]): readonly number[] {
  const objects = words.map(decodeSource);
  const first = objects.findIndex(isEprOffer);
  const [five] = objects;
  const parted = first >= 1 && first <= SPR_POSITIONS && objects.slice(first).every(isEprOffer);
  if (!parted || five?.kind !== 'fixed') return words;
  const head = encodeSource({ ...five, flags: [...five.flags, 'eprCapable'] });
  const gap = Array.from({ length: SPR_POSITIONS - first }, () => 0);
  return [head, ...words.slice(1, first), ...gap, ...words.slice(first)];
}

/**
 * Offers as words: of lines in words, of words as text or numbers, or of rows by the names of their columns.
 * @param lineOf where a row stood, from 1
 */
export function offerWords(
  rows: readonly unknown[],
  lineOf = (index: number): number => index + 1,
): Pick<ListReading, 'words' | 'findings'> {
  const words: number[] = [];
  const findings: Finding[] = [];
  let asWords = false;
  rows.forEach((row, index) => {
    const place = `Line ${lineOf(index)}: `;
    const word = wordIn(row);
    if (word !== null) {
      asWords = true;
      words.push(word);
      return;
    }
    const parsed = typeof row === 'string' ? parseOffer(row) : null;
    const offer = parsed
      ? parsed.ok
        ? parsed.object
        : parsed.reason
      : typeof row === 'object' && row !== null
        ? offerOf(offerCells(row as Row))
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
  // Words say themselves where they stand, and one in the wrong place is to be found.
  return { words: asWords ? words : eprPlaced(words), findings };
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
  if (Array.isArray(value)) return { ...offerWords(value), readOut: null, several: [] };
  if (!isRecord(value)) return nothingWith(fault('A list of offers, or a read-out, is expected.'));
  // A sample export holds its read-outs under `readOuts`.
  const nested = Array.isArray(value.readOuts) ? value.readOuts : null;
  if (nested && nested.length !== 1) {
    const several = nested.filter(isRecord) as Partial<ReadOut>[];
    const finding = fault(`${nested.length} read-outs are in this text. Choose the one that is wanted.`);
    return { ...nothingWith(finding), several };
  }
  const one = nested ? nested[0] : value;
  if (!isRecord(one)) return nothingWith(fault('A list of offers, or a read-out, is expected.'));
  if (!Array.isArray(one.words)) {
    const lists = Object.values(one).filter(Array.isArray);
    return lists.length === 1
      ? { ...offerWords(lists[0] as readonly unknown[]), readOut: null, several: [] }
      : nothingWith(fault('The list of offers is expected under "words".'));
  }
  return { ...offerWords(one.words), readOut: one as Partial<ReadOut>, several: [] };
}

function fromCsv(text: string): ListReading {
  const rows = offerRows(text);
  const read = offerWords(
    rows.map(({ cells }) => cells.word ?? cells),
    (index) => rows[index]?.line ?? index + 1,
  );
  return { ...read, readOut: null, several: [] };
}

/** A list of JSON holds texts or objects; `[1] 5 V 3 A` is numbered only. */
const isJson = (text: string): boolean => /^\s*[[{]/.test(text) && /["{]/.test(text);

/** Whether text is a list rather than hexadecimal words. */
export const isList = (text: string): boolean => isJson(text) || isOfferTable(text);

/**
 * Where one offer ends and the next begins: a new line; or, behind amps, watts or a bracket, a sign that parts, or a blank alone,
 * before what has volts. `5V/3A` stays one, and so does `SPR AVS 3 A / 2.25 A`.
 */
const BETWEEN =
  /\r?\n|;\s{0,3}(?=[^;\r\n]{0,40}\d\s{0,2}m?V)|(?<=[AW)]\s{0,3})[,;|/·•]\s{0,3}(?=(?:[^,;|/·•\r\n]|\d,\d){0,40}\d\s{0,2}m?V)|(?<=A)\s+(?=(?:[([]\d{1,2}[)\]]\s{0,2})?\d+(?:[.,]\d+)?\s{0,2}m?V)|(?<=A)\s+(?=(?:PPS|APDO|SPR|EPR|AVS)\b)/i;

/** The upper range of an SPR AVS supply, behind its lower one. */
const UPPER_RANGE = /^15(?:[.,]0+)?\s*V?\s*(?:–|-|~|to)\s*20/i;

function offersIn(text: string): readonly string[] {
  const lines: string[] = [];
  for (const piece of text.split(BETWEEN)) {
    const line = piece.trim();
    const before = lines.at(-1) ?? '';
    if (UPPER_RANGE.test(line) && /\bavs\b/i.test(before)) lines[lines.length - 1] = `${before} / ${line}`;
    else if (line !== '') lines.push(line);
  }
  return lines;
}

/** Whether every line reads as an offer in words: "9 V 3 A". */
export const isOfferLines = (text: string): boolean => {
  const lines = offersIn(text);
  return (
    lines.length > 0 && lines.every((line) => /\d\s*m?[VW](?![a-z])/i.test(line) || /^\s*(pps|spr|epr|avs)/i.test(line))
  );
};

/** Read a CSV or JSON list of offers, lines in words, or a read-out in the open form. Never throws. */
export function readList(text: string): ListReading {
  if (isJson(text)) return fromJson(text);
  if (isList(text)) return fromCsv(text);
  return {
    ...offerWords(offersIn(text)),
    readOut: null,
    several: [],
  };
}
