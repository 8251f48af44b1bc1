// Messages as they travel: headers, and chunks put together again. USB Power Delivery R3.2, 6.2.1 and 6.2.1.2.
import type { Finding } from './finding.ts';
import { choice, explain, flag, number, reserved, unpack } from './layout.ts';
import { isExtendedBlock } from './source-extended.ts';

const DATA_TYPES = {
  1: 'source capabilities',
  2: 'request',
  4: 'sink capabilities',
  9: 'EPR request',
  11: 'source info',
  12: 'revision',
  15: 'vendor defined',
};
const EXTENDED_TYPES = {
  1: 'extended source capabilities',
  17: 'EPR source capabilities',
  18: 'EPR sink capabilities',
};

export const HEADER = [
  flag('extended', 15, 'Extended message'),
  number('count', 14, 12, 'Number of data objects'),
  number('id', 11, 9, 'Message id'),
  choice('power', 8, 8, 'Power role, or cable plug', { 0: 'sink, or a port partner', 1: 'source, or a cable plug' }),
  choice('revision', 7, 6, 'Revision', { 0: '1.0', 1: '2.0', 2: '3.x' }),
  choice('data', 5, 5, 'Data role', { 0: 'upstream (UFP)', 1: 'downstream (DFP)' }),
  number('type', 4, 0, 'Message type'),
] as const;

export const EXTENDED_HEADER = [
  flag('chunked', 15, 'Chunked'),
  number('chunk', 14, 11, 'Chunk number'),
  flag('request', 10, 'Asks for a chunk'),
  reserved(9),
  number('size', 8, 0, 'Data size, bytes'),
] as const;

/** Bytes of data in a full chunk. */
const CHUNK = 26;

export type MessageKind =
  | 'offers'
  | 'epr-offers'
  | 'request'
  | 'epr-request'
  | 'identity'
  | 'info'
  | 'revision'
  | 'extended'
  | 'other';

export interface Message {
  readonly header: number;
  readonly kind: MessageKind;
  /** In words: "source capabilities". */
  readonly title: string;
  /** `1.0`, `2.0`, `3.x`, or null for a reserved code. */
  readonly revision: string | null;
  /** Data objects, put together from all chunks. */
  readonly words: readonly number[];
  /** The same as bytes in the order of the wire: a block of an extended message need not end with a whole word. */
  readonly bytes: readonly number[];
}

export interface MessageStream {
  readonly messages: readonly Message[];
  /** Messages without objects that were passed over: acknowledgements, control messages, requests for a chunk. */
  readonly skipped: number;
  /** Whether each of those speaks a revision in use: 2.0 or 3.x. */
  readonly skippedInUse: boolean;
  readonly findings: readonly Finding[];
}

interface Piece {
  readonly header: number;
  readonly type: number;
  readonly extended: boolean;
  readonly chunk: number;
  readonly isRequest: boolean;
  readonly size: number;
  readonly data: readonly number[];
  readonly end: number;
}

/** Control messages a log may hold: GoodCRC (1) to Data Reset Complete (15), and those of revision 3. */
const CONTROL_TYPES: ReadonlySet<number> = new Set([
  1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24,
]);

/** Other messages of the standard a log may hold beside them: battery status, alert, EPR mode, extended ones. */
const OTHER_DATA: ReadonlySet<number> = new Set([3, 4, 5, 6, 7, 8, 10]);
const MOST_EXTENDED = 20;

/** Whether a message is one of the standard's, though nothing is read from it here. */
function isStandard(header: number): boolean {
  const { extended, type } = unpack(HEADER, header);
  return extended ? type >= 1 && type <= MOST_EXTENDED : OTHER_DATA.has(type);
}

const kindOf = (extended: boolean, type: number): MessageKind => {
  const kinds: Readonly<Record<number, MessageKind>> = extended
    ? { 1: 'extended', 17: 'epr-offers' }
    : { 1: 'offers', 2: 'request', 9: 'epr-request', 11: 'info', 12: 'revision', 15: 'identity' };
  return kinds[type] ?? 'other';
};

const titleOf = (extended: boolean, type: number): string =>
  ((extended ? EXTENDED_TYPES : DATA_TYPES) as Readonly<Record<number, string>>)[type] ??
  `${extended ? 'extended ' : ''}message of type ${type}`;

const fault = (kind: string, sentence: string): Finding => ({ kind, grade: 'fault', sentence, positions: [] });

const half = (bytes: readonly number[], at: number): number => (bytes[at] ?? 0) + (bytes[at + 1] ?? 0) * 256;

/** Little-endian words of whole groups of four bytes. */
export const wordsOf = (bytes: readonly number[]): number[] =>
  Array.from(
    { length: Math.floor(bytes.length / 4) },
    (_, index) => half(bytes, index * 4) + half(bytes, index * 4 + 2) * 65_536,
  );

/** One message from `at`, or null when the bytes end before its header does. */
function pieceAt(bytes: readonly number[], at: number, breaks: ReadonlySet<number>): Piece | null {
  if (bytes.length - at < 2) return null;
  const header = half(bytes, at);
  const { extended, count, type } = unpack(HEADER, header);
  if (!extended) {
    const end = at + 2 + count * 4;
    const data = bytes.slice(at + 2, end);
    return { header, type, extended: false, chunk: 0, isRequest: false, size: count * 4, data, end };
  }
  if (bytes.length - at < 4) return null;
  const { chunked, chunk, request, size } = unpack(EXTENDED_HEADER, half(bytes, at + 2));
  const length = request ? 0 : chunked ? Math.max(0, Math.min(CHUNK, size - CHUNK * chunk)) : size;
  const bare = at + 4 + length;
  // On the wire the data is padded to whole objects; some listings leave the padding out.
  const padded = Math.max(bare, at + 2 + count * 4);
  const end = breaks.has(bare) || bytes.length < padded ? bare : padded;
  const data = bytes.slice(at + 4, bare);
  return { header, type, extended: true, chunk, isRequest: request === 1, size, data, end };
}

/** Extended messages of whole objects: EPR capabilities of sources and sinks. */
const OF_OBJECTS: ReadonlySet<number> = new Set([17, 18]);

interface Pending {
  readonly first: Piece;
  readonly chunks: Map<number, readonly number[]>;
}

function assemble({ first, chunks }: Pending, findings: Finding[]): number[] {
  const bytes: number[] = [];
  const last = Math.max(0, Math.ceil(first.size / CHUNK) - 1);
  for (let chunk = 0; chunk <= last; chunk += 1) {
    const data = chunks.get(chunk);
    if (!data) {
      findings.push(
        fault('chunk-missing', `Chunk ${chunk + 1} of ${last + 1} is missing; what follows it is left out.`),
      );
      break;
    }
    for (const byte of data) bytes.push(byte);
  }
  if (bytes.length % 4 !== 0 && chunks.size > last && OF_OBJECTS.has(first.type))
    findings.push(fault('odd-size', `${bytes.length} bytes are no whole number of objects.`));
  return bytes;
}

/**
 * Read messages from bytes in wire order (least significant first). Any bytes give messages and findings, never an
 * exception.
 * @param breaks offsets at which a line of the text ended; helps with listings that leave padding out
 */
export function readMessages(bytes: readonly number[], breaks: ReadonlySet<number> = new Set()): MessageStream {
  const messages: Message[] = [];
  const findings: Finding[] = [];
  const pending = new Map<number, Pending>();
  const order: (() => Message)[] = [];
  let skipped = 0;
  let skippedInUse = true;
  let at = 0;
  while (at < bytes.length) {
    const piece = pieceAt(bytes, at, breaks);
    if (!piece) {
      findings.push(fault('cut-short', `The last ${bytes.length - at} byte(s) are no whole header.`));
      break;
    }
    at = piece.end;
    if (piece.end > bytes.length || piece.data.length < (piece.extended ? 0 : piece.size))
      findings.push(fault('cut-short', `The ${titleOf(piece.extended, piece.type)} message ends early.`));
    const { revision } = unpack(HEADER, piece.header);
    if (!piece.extended && piece.size === 0 && CONTROL_TYPES.has(piece.type)) {
      skipped += 1;
      if (revision !== 1 && revision !== 2) skippedInUse = false;
      continue;
    }
    const head = {
      header: piece.header,
      kind: kindOf(piece.extended, piece.type),
      title: titleOf(piece.extended, piece.type),
      revision: ['1.0', '2.0', '3.x'][revision] ?? null,
    };
    if (!piece.extended) {
      order.push(() => ({ ...head, words: wordsOf(piece.data), bytes: piece.data }));
      continue;
    }
    if (piece.isRequest) {
      skipped += 1;
      continue;
    }
    const open = pending.get(piece.type);
    if (!open || piece.chunk === 0) {
      const begun: Pending = { first: piece, chunks: new Map([[piece.chunk, piece.data]]) };
      pending.set(piece.type, begun);
      order.push(() => {
        const whole = assemble(begun, findings);
        return { ...head, words: wordsOf(whole), bytes: whole };
      });
      continue;
    }
    if (open.chunks.has(piece.chunk)) findings.push(fault('chunk-twice', `Chunk ${piece.chunk + 1} comes twice.`));
    if (open.first.size !== piece.size)
      findings.push(fault('chunk-size', 'The chunks do not agree on the size of the whole.'));
    open.chunks.set(piece.chunk, piece.data);
  }
  for (const finish of order) messages.push(finish());
  return { messages, skipped, skippedInUse, findings };
}

/** The message header field by field. */
export const explainHeader = (header: number) => explain(HEADER, header);

/** Whether what leaves bits unused, and always has one object, is of that shape: other words read as it by chance. */
function isSound({ kind, words: [word = 0, ...others], bytes }: Message): boolean {
  if (kind === 'extended') return isExtendedBlock(bytes);
  if (kind === 'info') return others.length === 0 && Math.floor(word / 2 ** 24) % 2 ** 7 === 0;
  return kind !== 'revision' || (others.length === 0 && word % 2 ** 16 === 0);
}

/** Whether bytes read as messages from end to end, each of the standard's and some of a kind that is read here. */
export function looksLikeMessages(bytes: readonly number[], breaks: ReadonlySet<number>): boolean {
  const { messages, skipped, skippedInUse, findings } = readMessages(bytes, breaks);
  // Nothing but acknowledgements: no list of offers reads like that.
  if (messages.length === 0) return skipped > 0 && skippedInUse && findings.length === 0;
  return (
    findings.length === 0 &&
    messages.some(({ kind }) => kind !== 'other') &&
    messages.every(
      (one) =>
        one.revision !== null && (one.kind === 'other' ? isStandard(one.header) : one.words.length > 0) && isSound(one),
    )
  );
}
