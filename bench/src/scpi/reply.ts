// Replies as they come off the wire: lines, and definite-length binary blocks. IEEE 488.2-1992, 8.7.9 and 7.7.6.

export type Reply =
  | { readonly kind: 'line'; readonly text: string }
  | { readonly kind: 'block'; readonly bytes: Uint8Array };

/** Largest block taken, bytes. */
export const LARGEST_BLOCK = 64 * 1024 * 1024;
/** Longest line taken, bytes: anything beyond is garbage, not a reply. */
export const LONGEST_LINE = 64 * 1024;
/** Most replies taken out of one piece of the stream: one question is asked at a time, so more is a flood. */
const MOST_REPLIES = 64;

const NEWLINE = 0x0a;
const RETURN = 0x0d;
const HASH = 0x23;

/** What the wire brought that is no reply. */
export class GarbledReply extends Error {}

const isDigit = (byte: number | undefined): boolean => byte !== undefined && byte >= 0x30 && byte <= 0x39;

/**
 * Takes bytes as they arrive and gives replies as they are complete. A block is filled where it lies: its bytes are
 * copied once, however many pieces they come in.
 */
export class ReplyReader {
  readonly #end: number;
  #pending: Uint8Array = new Uint8Array(0);
  #block: { bytes: Uint8Array; filled: number } | null = null;

  /** @param end what ends a line: a line feed, with a return before it or not; or a return alone */
  constructor(end: 'LF' | 'CR' = 'LF') {
    this.#end = end === 'CR' ? RETURN : NEWLINE;
  }

  /** Whether a block is on its way. */
  get inBlock(): boolean {
    return this.#block !== null;
  }

  /** Take a piece of the stream. @throws GarbledReply for a block that is too long, a line without an end, or a flood */
  push(piece: Uint8Array): Reply[] {
    const replies: Reply[] = [];
    let rest = piece;
    for (;;) {
      if (replies.length > MOST_REPLIES) throw new GarbledReply('It tells more than anyone asked.');
      if (this.#block) {
        const { bytes, filled } = this.#block;
        const taken = Math.min(bytes.length - filled, rest.length);
        bytes.set(rest.subarray(0, taken), filled);
        this.#block.filled += taken;
        rest = rest.subarray(taken);
        if (this.#block.filled < bytes.length) return replies;
        this.#block = null;
        replies.push({ kind: 'block', bytes });
        continue;
      }
      const all = this.#pending.length > 0 ? joined(this.#pending, rest) : rest;
      this.#pending = new Uint8Array(0);
      const left = this.#next(all, replies);
      if (left === null) return replies;
      rest = left;
    }
  }

  /** Take one reply off the front, or keep what is too short. @returns the rest, null when more bytes are needed */
  #next(all: Uint8Array, replies: Reply[]): Uint8Array | null {
    if (all.length === 0) return null;
    // The newline that ends a block is left over from it.
    if (all[0] === NEWLINE || all[0] === RETURN) return all.subarray(1);
    if (all[0] === HASH && (all.length < 2 || isDigit(all[1]))) return this.#openBlock(all);
    const end = all.indexOf(this.#end);
    if (end < 0) {
      if (all.length > LONGEST_LINE) throw new GarbledReply(`A reply of over ${LONGEST_LINE} characters has no end.`);
      this.#pending = all.slice();
      return null;
    }
    if (end > LONGEST_LINE) throw new GarbledReply(`A reply has ${end} characters; at most ${LONGEST_LINE} are taken.`);
    const text = new TextDecoder().decode(all.subarray(0, end)).replace(/\r$/, '');
    replies.push({ kind: 'line', text });
    return all.subarray(end + 1);
  }

  #openBlock(all: Uint8Array): Uint8Array | null {
    const digits = (all[1] ?? 0x30) - 0x30;
    if (all.length < 2 || all.length < 2 + digits) {
      this.#pending = all.slice();
      return null;
    }
    const length = Number(new TextDecoder().decode(all.subarray(2, 2 + digits)));
    if (digits === 0 || !Number.isInteger(length)) throw new GarbledReply('A block does not say how long it is.');
    if (length > LARGEST_BLOCK)
      throw new GarbledReply(`A block of ${length} bytes is beyond the ${LARGEST_BLOCK} taken.`);
    this.#block = { bytes: new Uint8Array(length), filled: 0 };
    return all.subarray(2 + digits);
  }
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const all = new Uint8Array(a.length + b.length);
  all.set(a);
  all.set(b, a.length);
  return all;
}

/** A block as it goes over the wire. */
export function blockOf(bytes: Uint8Array): Uint8Array {
  const length = String(bytes.length);
  const head = new TextEncoder().encode(`#${length.length}${length}`);
  return joined(head, bytes);
}
