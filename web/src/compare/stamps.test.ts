import { describe, expect, it } from 'vitest';
import { divided, layDown, multiplied } from './stamps.ts';

const pixels = (...values: number[]) => Uint8ClampedArray.from(values);
/** A stamp of one pixel. */
const dot = (...plain: [number, number, number, number]) => ({ side: 1, pixels: multiplied(pixels(...plain)) });

describe('a stamp', () => {
  it('covers what is empty with its own colour, whatever its cover', () => {
    const picture = new Uint8Array(3 * 3 * 4);
    layDown(picture, 3, dot(200, 100, 50, 128), 1.5, 1.5);
    divided(new Uint8ClampedArray(picture.buffer));
    expect([...picture.slice(16, 20)]).toEqual([199, 100, 50, 128].map((value) => expect.closeTo(value, -0.5)));
    expect(picture.filter((_value, at) => at < 16 || at >= 20).every((value) => value === 0)).toBe(true);
  });
  it('laid over another lets it through as much as it does not cover', () => {
    const picture = new Uint8Array(4);
    layDown(picture, 1, dot(0, 0, 0, 255), 0.5, 0.5);
    layDown(picture, 1, dot(255, 255, 255, 64), 0.5, 0.5);
    // 255 · 64/255 over black.
    expect([...picture]).toEqual([64, 64, 64, 255]);
  });
  it('half beside the picture is cut, wholly beside it is nowhere, and nothing runs over into the next row', () => {
    const square = { side: 2, pixels: multiplied(pixels(...Array(4).fill([9, 9, 9, 255]).flat())) };
    const marked = (x: number, y: number) => {
      const picture = new Uint8Array(3 * 3 * 4);
      layDown(picture, 3, square, x, y);
      return Array.from({ length: 9 }, (_one, at) => (picture[at * 4 + 3] === 255 ? 1 : 0)).join('');
    };
    expect(marked(1, 1)).toBe('110110000');
    expect(marked(0, 0)).toBe('100000000');
    expect(marked(3, 1)).toBe('001001000');
    expect(marked(3, 3)).toBe('000000001');
    expect(marked(9, 1)).toBe('000000000');
    expect(marked(-5, -5)).toBe('000000000');
    expect(marked(Number.NaN, 1)).toBe('000000000');
  });
});
