// What a source says of the power of its port: USB Power Delivery R3.2, 6.4.11 (Source_Info).
import type { Finding } from './finding.ts';
import { choice, explain, pack, reserved, reservedPart, steps, unpack } from './layout.ts';

const INFO = [
  choice('type', 31, 31, 'Port type', { 0: 'managed: its power may change', 1: 'guaranteed: its power is its own' }),
  reserved(30, 24),
  steps('maximum', 23, 16, 'Port maximum', 1, 'W'),
  steps('present', 15, 8, 'Port present', 1, 'W'),
  steps('reported', 7, 0, 'Port reported', 1, 'W'),
] as const;

/** Whole watts of a port, rounded down by whoever wrote them. */
export interface SourceInfo {
  /** The power is this port's own; else it is shared out anew as others are used. */
  readonly guaranteed: boolean;
  /** What the port is built for, W. */
  readonly maximum: number;
  /** What it could give now, W. */
  readonly present: number;
  /** What it advertises now, W. */
  readonly reported: number;
}

/**
 * Decode a Source_Info object; every word decodes.
 * @param word unsigned 32-bit word
 * @throws RangeError for anything else
 * @example decodeInfo(0x00412d2d) // { guaranteed: false, maximum: 65, present: 45, reported: 45 }
 */
export function decodeInfo(word: number): SourceInfo {
  if (!Number.isInteger(word) || word < 0 || word > 0xffffffff) throw new RangeError('A word has 32 bits.');
  const { type, maximum, present, reported } = unpack(INFO, word);
  return { guaranteed: type === 1, maximum, present, reported };
}

/**
 * The word that says so.
 * @throws RangeError for what is no whole number of watts up to 255
 * @example encodeInfo({ guaranteed: true, maximum: 65, present: 65, reported: 65 }) // 0x80414141
 */
export const encodeInfo = ({ guaranteed, ...watts }: SourceInfo): number =>
  pack(INFO, { type: Number(guaranteed), ...watts });

export const explainInfo = (word: number) => explain(INFO, word);

/**
 * What is wrong in it by itself: a port neither has more at present than it is built for, nor advertises more than it has.
 * @param word unsigned 32-bit word
 */
export function checkInfo(word: number): readonly Finding[] {
  const { guaranteed, maximum, present, reported } = decodeInfo(word);
  const found: Finding[] = [];
  const add = (grade: Finding['grade'], sentence: string) =>
    found.push({ kind: 'source-info', grade, sentence, positions: [] });
  if (reservedPart(INFO, word) !== 0) add('fault', 'The source info has reserved bits set.');
  if (maximum === 0) add('fault', 'The source info states no maximum power.');
  else if (present > maximum)
    add('fault', `The source states ${present} W at present; the port is built for ${maximum} W.`);
  if (reported > present) add('fault', `The source says it advertises ${reported} W; it has ${present} W at present.`);
  if (guaranteed && present < maximum)
    add('note', `The port is guaranteed, and has ${present} W at present of the ${maximum} W it is built for.`);
  return found;
}

/** `Port Maximum PDP: 65 W`, `max = 65`: a whole number that is neither volts nor amps. */
const named = (name: string): RegExp =>
  new RegExp(
    `(?:\\b|port_?)${name}(?:[ _]?(?:power|pdp|watts?))?\\s{0,3}[:=]?\\s{0,3}(\\d{1,3})(?![\\d.,]*\\d|\\s{0,2}[VA]\\b)`,
    'i',
  );
const NAMES = {
  maximum: named('max(?:imum)?'),
  present: named('pres(?:ent)?'),
  reported: named('rep(?:orted)?'),
} as const;
const PORT_TYPE = /port[ _]?type/i;

/** Lines that say nothing of a source's info: what else stands beside {@link infoInWords}. */
export const besideInfo = (text: string): string =>
  text
    .split(/\r?\n/)
    .filter((line) => ![...Object.values(NAMES), PORT_TYPE].some((one) => one.test(line)))
    .join('\n');

/**
 * Source info in words, as programs write it: `Port Maximum PDP: 65 W, Port Present PDP: 45 W, Port Reported PDP: 45 W`.
 * @returns null where one of the three powers is not named, or is no whole number of watts up to 255
 * @example infoInWords('managed, max 65 W, present 45 W, reported 45 W') // 0x00412d2d
 */
export function infoInWords(text: string): number | null {
  const watts = (name: RegExp): number => Number(name.exec(text)?.[1] ?? Number.NaN);
  const [maximum, present, reported] = [watts(NAMES.maximum), watts(NAMES.present), watts(NAMES.reported)];
  if (![maximum, present, reported].every((value) => value <= 255)) return null;
  return encodeInfo({ guaranteed: /\bguaranteed\b/i.test(text), maximum, present, reported });
}
