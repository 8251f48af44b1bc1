import { inflateSync } from 'node:zlib';
import type { Sample } from '@lastmark/contract';
import jsQrModule from 'jsqr';
import { describe, expect, it } from 'vitest';
import { labelDocument, labelPdf } from './label.ts';

// The package is CommonJS with its function as `default`.
const readCode = jsQrModule as unknown as (
  pixels: Uint8ClampedArray,
  width: number,
  height: number,
) => { data: string } | null;

const sample = (part: { tag?: string; model?: string; serial?: string } = {}) =>
  ({
    tag: part.tag ?? 'F3K9QX',
    model: { maker: 'Tarnhook', model: part.model ?? 'Ember 45' },
    unit: { serial: part.serial ?? 'TE-45-0117' },
  }) as Sample;

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Every black rectangle on the page, pt from its upper left corner. */
function blackBoxes(pdf: Buffer): Box[] {
  const text = pdf.toString('latin1');
  for (const found of text.matchAll(/stream\r?\n/g)) {
    const from = found.index + found[0].length;
    let drawn: string;
    try {
      drawn = inflateSync(pdf.subarray(from, text.indexOf('endstream', from))).toString('latin1');
    } catch {
      continue;
    }
    const boxes = [...drawn.matchAll(/([\d.]+) ([\d.]+) ([\d.]+) ([\d.]+) re\n\/DeviceRGB cs\n0 0 0 scn/g)];
    if (boxes.length > 0)
      return boxes.map(([, x, y, width, height]) => ({
        x: Number(x),
        y: Number(y),
        width: Number(width),
        height: Number(height),
      }));
  }
  return [];
}

/** The page as a scanner sees it, so many dots a point. */
function pixels(boxes: readonly Box[], width: number, height: number, dots: number) {
  const image = new Uint8ClampedArray(width * dots * height * dots * 4).fill(255);
  for (const box of boxes)
    for (let y = Math.round(box.y * dots); y < Math.round((box.y + box.height) * dots); y += 1)
      for (let x = Math.round(box.x * dots); x < Math.round((box.x + box.width) * dots); x += 1)
        image.fill(0, (y * width * dots + x) * 4, (y * width * dots + x) * 4 + 3);
  return image;
}

describe('a label', () => {
  it.each(['F3K9QX', '000000', 'ZZZZZZ'])('is read by a scanner as the tag %s', async (tag) => {
    const boxes = blackBoxes(await labelPdf(sample({ tag })));
    expect(readCode(pixels(boxes, 142, 71, 4), 142 * 4, 71 * 4)?.data).toBe(`LASTMARK:${tag}`);
  });

  it('keeps the code clear of the edges and of the letters', async () => {
    const boxes = blackBoxes(await labelPdf(sample()));
    const module = boxes[0]?.width ?? 0;
    const right = Math.max(...boxes.map(({ x, width }) => x + width));
    expect(Math.min(...boxes.map(({ x }) => x))).toBeGreaterThanOrEqual(4 * module);
    expect(Math.min(...boxes.map(({ y }) => y))).toBeGreaterThanOrEqual(4 * module);
    expect(Math.max(...boxes.map(({ y, height }) => y + height)) + 4 * module).toBeLessThanOrEqual(70.9);
    // The letters begin where the column of the code ends.
    expect(8 + 42 + 8 - right).toBeGreaterThanOrEqual(4 * module);
  });

  it('says tag, maker, model and serial in letters, long ones cut', () => {
    const words = JSON.stringify(labelDocument(sample({ model: 'M'.repeat(60) })).content);
    for (const part of ['"F3K9QX"', '"Tarnhook"', `"${'M'.repeat(33)}…"`, '"TE-45-0117"'])
      expect(words).toContain(part);
    expect(JSON.stringify(labelDocument(sample({ serial: '' })).content)).not.toContain('TE-45');
  });

  it('is one page of 50 × 25 mm', async () => {
    const text = (await labelPdf(sample({ model: 'Very long '.repeat(20) }))).toString('latin1');
    expect(text.match(/\/Type \/Page\b/g)).toHaveLength(1);
    const [, width, height] = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(text) ?? [];
    expect([Number(width) / 72, Number(height) / 72].map((inches) => Math.round(inches * 254) / 10)).toEqual([50, 25]);
  });
});
