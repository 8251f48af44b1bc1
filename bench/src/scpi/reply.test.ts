import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blockOf, GarbledReply, LARGEST_BLOCK, type Reply, ReplyReader } from './index.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const shown = (replies: readonly Reply[]) =>
  replies.map((reply) => (reply.kind === 'line' ? reply.text : [...reply.bytes]));

describe('replies off the wire', () => {
  it('are lines, with or without a carriage return', () => {
    expect(shown(new ReplyReader().push(bytes('5.0\r\n"a,b"\n')))).toEqual(['5.0', '"a,b"']);
  });

  it('are blocks of a stated length, whatever bytes they hold', () => {
    const block = Uint8Array.from([0x23, 0x0a, 0x31, 0x00, 0xff]);
    const reader = new ReplyReader();
    expect(shown(reader.push(new Uint8Array([...blockOf(block), 0x0a, ...bytes('next\n')])))).toEqual([
      [...block],
      'next',
    ]);
  });

  it('come out the same however the stream is cut', () => {
    const items = fc.array(
      fc.oneof(
        fc.string({ unit: fc.constantFrom(...'abc019,."+-'), minLength: 1, maxLength: 12 }),
        fc.uint8Array({ maxLength: 300 }),
      ),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(items, fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1 }), (replies, cuts) => {
        const stream = replies.flatMap((one) =>
          typeof one === 'string' ? [...bytes(`${one}\n`)] : [...blockOf(one), 0x0a],
        );
        const reader = new ReplyReader();
        const out: Reply[] = [];
        for (let at = 0, turn = 0; at < stream.length; turn += 1) {
          const length = cuts[turn % cuts.length] ?? 1;
          out.push(...reader.push(Uint8Array.from(stream.slice(at, at + length))));
          at += length;
        }
        expect(shown(out)).toEqual(replies.map((one) => (typeof one === 'string' ? one : [...one])));
      }),
    );
  });

  it('take a block of 64 MiB in pieces, and no larger one', () => {
    const reader = new ReplyReader();
    reader.push(bytes(`#8${LARGEST_BLOCK}`));
    const piece = new Uint8Array(4 * 1024 * 1024).fill(7);
    let replies: Reply[] = [];
    for (let sent = 0; sent < LARGEST_BLOCK; sent += piece.length) replies = reader.push(piece);
    const [block] = replies;
    expect(block?.kind === 'block' && block.bytes.length).toBe(LARGEST_BLOCK);
    expect(() => new ReplyReader().push(bytes(`#8${LARGEST_BLOCK + 1}`))).toThrow(GarbledReply);
  });

  it('without an end, or with a block of no length, are garbled', () => {
    expect(() => new ReplyReader().push(new Uint8Array(1024 * 1024 + 2).fill(0x41))).toThrow(GarbledReply);
    expect(() => new ReplyReader().push(bytes('#2xx'))).toThrow(GarbledReply);
    expect(shown(new ReplyReader().push(bytes('#hello\n')))).toEqual(['#hello']);
  });
});
