// Words and messages as people have them: hexadecimal in any spelling, with any separators, in either byte order.
import type { Finding } from './finding.ts';
import { looksLikeMessages, type Message, readMessages, wordsOf } from './message.ts';

/**
 * How the digits stand: `value` as numbers are written (0801912C for 5 V 3 A), `wire` in the order of the bytes on the
 * wire (2C 91 01 08).
 */
export type ByteOrder = 'value' | 'wire';

export interface HexText {
  readonly form: 'words' | 'messages';
  /** The words, or those of all messages one after the other. */
  readonly words: readonly number[];
  readonly messages: readonly Message[];
  readonly findings: readonly Finding[];
}

/** What stands before a word in a listing: `1:`, `[2]`, `#3 =`, `PDO 4:`, `5)`. Short, so that no text is slow to scan. */
const LABEL =
  /(?:(?<=^|[\s,;|])[A-Za-z_#[(]{1,12}\s{0,3})?\d{0,3}[\])]?\s{0,3}[:=]\s?|^\s{0,9}\d{1,2}[.)]\s|(?<=^|[\s,;|])\[\d{1,3}\]/g;
/** Bytes kept apart by colons: there a colon ends no label. */
const COLON_BYTES = /^\s*[0-9a-f]{2}(?::[0-9a-f]{2})+\s*$/i;

const withoutLabels = (text: string): string =>
  COLON_BYTES.test(text) ? text.replace(/:/g, ' ') : text.replace(LABEL, ' ');
const SHOWN = 24;
const MOST_COMPLAINTS = 5;

const bytesIn = (digits: string): number[] =>
  Array.from({ length: digits.length / 2 }, (_, index) => Number.parseInt(digits.slice(index * 2, index * 2 + 2), 16));

/** Bytes in wire order of digits written as numbers: a leading 16-bit header if there is one, then 32-bit words. */
function fromNumbers(digits: string): number[] {
  const bytes: number[] = [];
  let at = 0;
  if (digits.length % 8 === 4) {
    bytes.push(...bytesIn(digits.slice(0, 4)).reverse());
    at = 4;
  }
  for (; at < digits.length; at += 8) bytes.push(...bytesIn(digits.slice(at, at + 8)).reverse());
  return bytes;
}

interface Line {
  readonly bytes: readonly number[];
  readonly complaints: readonly string[];
}

/** A word that says itself what it is: whatever stands around such ones are words of a listing. */
const MARKED = /\b0x[0-9a-f]{8}\b/i;

function readLine(text: string, order: ByteOrder, marked: boolean): Line {
  const complaints: string[] = [];
  const tokens = withoutLabels(text)
    .split(/[\s,;|/_\-{}[\]()<>"'.]+/)
    .filter((token) => !marked || /^(?:0x)?(?:[0-9a-f]{4}|[0-9a-f]{8})h?$/i.test(token))
    .map((token) => token.replace(/^0x/i, '').replace(/h$/i, ''))
    .filter(Boolean);
  const good = tokens.filter((token) => {
    const sound = /^[0-9a-f]+$/i.test(token) && token.length % 2 === 0;
    if (!sound) {
      complaints.push(
        /^[0-9a-f]+$/i.test(token)
          ? `"${token.slice(0, SHOWN)}" has an odd number of digits.`
          : `"${token.slice(0, SHOWN)}" is not hexadecimal.`,
      );
    }
    return sound;
  });
  if (order === 'wire') return { bytes: bytesIn(good.join('')), complaints };
  // Single bytes written with gaps belong together; longer groups are numbers of their own.
  const groups = good.every((token) => token.length === 2) ? [good.join('')] : good;
  const odd = groups.filter((group) => group.length % 4 !== 0);
  for (const group of odd) complaints.push(`"${group.slice(0, SHOWN)}" is neither a header nor whole words.`);
  return { bytes: groups.filter((group) => group.length % 4 === 0).flatMap(fromNumbers), complaints };
}

const passedOver = (skipped: number): Finding[] =>
  skipped === 0
    ? []
    : [
        {
          kind: 'passed-over',
          grade: 'note',
          sentence: `${skipped} ${skipped === 1 ? 'message' : 'messages'} without objects passed over: acknowledgements and control messages.`,
          positions: [],
        },
      ];

/**
 * Read hexadecimal text. Never throws: what cannot be read is said in the findings.
 * @param text words, bytes or whole messages; labels such as `1:` or `PDO1 =` are passed over
 */
export function readHex(text: string, order: ByteOrder): HexText {
  const bytes: number[] = [];
  const breaks = new Set<number>();
  const complaints: string[] = [];
  const marked = MARKED.test(text);
  for (const line of text.split(/\r?\n/)) {
    const read = readLine(line, order, marked);
    for (const byte of read.bytes) bytes.push(byte);
    breaks.add(bytes.length);
    for (const complaint of read.complaints) complaints.push(complaint);
  }
  const findings: Finding[] = complaints
    .slice(0, MOST_COMPLAINTS)
    .map((sentence) => ({ kind: 'unreadable', grade: 'fault', sentence, positions: [] }));
  if (complaints.length > MOST_COMPLAINTS)
    findings.push({
      kind: 'unreadable',
      grade: 'fault',
      sentence: `And ${complaints.length - MOST_COMPLAINTS} more that could not be read.`,
      positions: [],
    });
  const asMessages = bytes.length % 4 === 2 || (bytes.length > 0 && looksLikeMessages(bytes, breaks));
  if (asMessages) {
    const stream = readMessages(bytes, breaks);
    return {
      form: 'messages',
      words: stream.messages.flatMap(({ words }) => words),
      messages: stream.messages,
      findings: [...findings, ...stream.findings, ...passedOver(stream.skipped)],
    };
  }
  if (bytes.length % 4 !== 0)
    findings.push({
      kind: 'cut-short',
      grade: 'fault',
      sentence: `The last ${bytes.length % 4} byte(s) are no whole word.`,
      positions: [],
    });
  return { form: 'words', words: wordsOf(bytes), messages: [], findings };
}
