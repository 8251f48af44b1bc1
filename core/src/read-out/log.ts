// What a log holds beside what counts: times, names, columns. Messages and offers are picked out of its lines.
import { decodeSource, parseOffer } from '../pd/index.ts';

/** Lines that count, and how many were passed over. */
export interface Picked {
  readonly lines: readonly string[];
  readonly passed: number;
}

const HEX_RUN = /(?<![0-9a-z.])(?:0x)?[0-9a-f]+(?![0-9a-z.])(?:[\s,:;-]{1,4}(?:0x)?[0-9a-f]+(?![0-9a-z.]))*/gi;
/** More than the longest message has, times and numbers before it included. */
const MOST_TOKENS = 320;
const CHECKSUM_BYTES = 4;
const REVISIONS_IN_USE: ReadonlySet<number> = new Set([1, 2]);
/** Types that are read: offers, request, EPR request, source info, revision, vendor defined. */
const READ_TYPES: ReadonlySet<number> = new Set([1, 2, 9, 11, 12, 15]);
/** Of extended ones: what the source says of how it is built, and EPR offers. */
const READ_EXTENDED: ReadonlySet<number> = new Set([1, 17]);
const VENDOR_DEFINED = 15;

interface Found {
  readonly bytes: readonly string[];
  readonly type: number;
  readonly extended: boolean;
}

const bytesOf = (digits: string): string[] => digits.match(/../g) ?? [];

/** Bytes as a message that fills them to its last object, with or without the checksum behind it. */
function messageOf(bytes: readonly string[]): Found | null {
  const header = Number.parseInt(`${bytes[1] ?? ''}${bytes[0] ?? ''}`, 16);
  const [count, type, extended] = [(header >> 12) & 7, header & 31, header >> 15 === 1];
  const whole = 2 + count * 4;
  if (count === 0 || (bytes.length !== whole && bytes.length !== whole + CHECKSUM_BYTES)) return null;
  if (!REVISIONS_IN_USE.has((header >> 6) & 3)) return null;
  if (!(extended ? READ_EXTENDED : READ_TYPES).has(type)) return null;
  return { bytes: bytes.slice(0, whole), type, extended };
}

/** The message a run of digits ends with, whatever stands before it: in bytes, or as a header and words as numbers. */
function messageIn(tokens: readonly string[]): Found | null {
  for (let at = 0; at < tokens.length; at += 1) {
    const rest = tokens.slice(at);
    const [header = '', ...words] = rest;
    const asNumbers = header.length === 4 && words.length > 0 && words.every((word) => word.length === 8);
    const found =
      (asNumbers ? messageOf(rest.flatMap((token) => bytesOf(token).reverse())) : null) ??
      (rest.every((token) => token.length % 2 === 0) ? messageOf(rest.flatMap(bytesOf)) : null);
    if (found) return found;
  }
  return null;
}

/** Who was spoken to, as logs name it: the plug of the cable, or the port. */
const spokenTo = (line: string): 'plug' | 'port' | null =>
  /\bSOP\s{0,2}(?:['"′″’”]|_?(?:p|dp|prime|d(?:ouble)?_?prime)\b)/i.test(line)
    ? 'plug'
    : /\bSOP\b/i.test(line)
      ? 'port'
      : null;

const DUMP_LINE = /^\s*[0-9a-f]{4,8}:?\s+((?:[0-9a-f]{2}\s{1,2}){1,15}[0-9a-f]{2}|[0-9a-f]{2})(?:\s{2,}.{0,20}|\s*)$/i;

/** The bytes of a dump in lines of up to sixteen, with where each begins before it and its letters behind it; else null. */
function dumpIn(lines: readonly string[]): string | null {
  const rows = lines.map((line) => DUMP_LINE.exec(line)?.[1] ?? null);
  return lines.length > 1 && rows.every((row) => row !== null) ? rows.join(' ') : null;
}

/**
 * Messages of a log, a line each, as bytes in the order of the wire. Control messages hold nothing and are passed over. Where
 * lines say who was spoken to, identities of ports are left out beside that of a plug.
 * @returns null where no line ends with a whole message
 * @example messagesIn('1.2 s, SOP, Source_Capabilities, "A1 11 2C 91 01 08"')?.lines // ['A1 11 2C 91 01 08']
 */
export function messagesIn(text: string): Picked | null {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const dump = dumpIn(lines);
  const all = dump === null ? lines : [dump];
  const found = all.flatMap((line) => {
    const to = spokenTo(line);
    for (const [run] of line.matchAll(HEX_RUN)) {
      const tokens = run.split(/[\s,:;-]+/).map((token) => token.replace(/^0x/i, ''));
      const message = tokens.length <= MOST_TOKENS ? messageIn(tokens) : null;
      if (message) return [{ ...message, to }];
    }
    return [];
  });
  const vendor = ({ type, extended }: Found) => type === VENDOR_DEFINED && !extended;
  const plugs = found.some((one) => vendor(one) && one.to === 'plug');
  const kept = found.filter((one) => !(plugs && vendor(one) && one.to === 'port'));
  if (kept.length === 0) return null;
  return { lines: kept.map(({ bytes }) => bytes.join(' ')), passed: all.length - kept.length };
}

/** Kinds of supplies by the number their type has in a source object. */
const TYPES: readonly string[] = ['', 'battery', 'variable', 'pps'];
const STAMP = /^\s{0,20}\[[\s\d.:]{1,40}\]/;
/** No line that tells one offer is longer, characters. */
const LONGEST_OFFER = 240;
const NUMBERED_TYPE = /\btype\s{0,2}([0-3])\b/i;

const HAS_VOLTS = /\d\s{0,2}m?V(?![a-z])/i;

/**
 * Offers in words among other lines of a log, as lines that read as offers.
 * @returns null where none does, the first is not of 5 V, or a line with volts is not understood: an offer is not passed over
 * @example offersInLog('[ 2.1] PDO 1: type 0, 5000 mV, 3000 mA [E]')?.lines // ['5000 mV, 3000 mA']
 */
export function offersInLog(text: string): Picked | null {
  const all = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  let unclear = false;
  const lines = all.flatMap((line) => {
    if (line.length > LONGEST_OFFER) return [];
    const bare = line.replace(STAMP, '').replace(/\[\w{0,8}\]\s*$/, '');
    const kind = TYPES[Number(NUMBERED_TYPE.exec(bare)?.[1] ?? 0)] ?? '';
    const offer = bare
      .replace(NUMBERED_TYPE, '')
      .replace(/^[^:]{0,24}:/, '')
      .replace(/^[\s,]+/, '');
    const said = `${kind} ${offer}`.trim();
    if (parseOffer(said).ok) return [said];
    unclear ||= HAS_VOLTS.test(line);
    return [];
  });
  if (unclear) return null;
  const first = parseOffer(lines[0] ?? '');
  if (!first.ok || first.object.kind !== 'fixed' || first.object.volts !== 5) return null;
  return { lines, passed: all.length - lines.length };
}

const PROPERTY = /(?:^|\/)(\d{1,2}):([a-z]{2,12})(?:_supply)?\/([a-z_]{2,40})[:=]\s{0,4}(\S.{0,40})$/;

/**
 * Offers written as properties, one a line: `1:fixed_supply/voltage:5000mV`.
 * @returns a row for each offer, in order; null where no line is one
 */
export function propertiesIn(text: string): readonly Readonly<Record<string, string>>[] | null {
  const rows = new Map<string, Record<string, string>>();
  for (const line of text.split(/\r?\n/)) {
    const [, position = '', kind = '', name = '', value = ''] = PROPERTY.exec(line.trim()) ?? [];
    if (position === '') continue;
    rows.set(position, { ...(rows.get(position) ?? { kind }), [name]: value.trim() });
  }
  return rows.size > 0 ? [...rows].sort(([a], [b]) => Number(a) - Number(b)).map(([, row]) => row) : null;
}

/**
 * Words as decimal numbers, as programs print them.
 * @returns null for anything else, and where the first is not 5 V: digits alone could as well be hexadecimal
 * @example decimalWords('[102700, 184620]') // [0x0001912c, 0x0002d12c]
 */
export function decimalWords(text: string): readonly number[] | null {
  const tokens = text.split(/[\s,;[\](){}]+/).filter(Boolean);
  if (tokens.length === 0 || !tokens.every((token) => /^\d{1,10}$/.test(token))) return null;
  const words = tokens.map(Number);
  const first = decodeSource(words[0] ?? 0);
  return words.every((word) => word < 2 ** 32) && first.kind === 'fixed' && first.volts === 5 ? words : null;
}
