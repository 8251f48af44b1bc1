// Thousands of points as stamps: each look is drawn once, and its pixels are laid down wherever a point is. Asking the canvas for
// each anew takes ten times as long.
import type { Chart, PointStyle } from 'chart.js';
import { drawPoint } from 'chart.js/helpers';

/** How points look. */
export interface Look {
  readonly style: PointStyle;
  readonly fill: string;
  readonly border: string;
}

/** A square of pixels, four numbers each, 0…255, colours multiplied by their cover. */
export interface Stamp {
  readonly side: number;
  readonly pixels: Uint8Array;
}

/** Radii differ by no less than this, px. */
const STEP = 0.5;
const MOST_KEPT = 400;
const kept = new Map<string, Stamp>();

/** @param pixels four numbers each, red, green, blue, cover @returns colours multiplied by the cover */
export function multiplied(pixels: Uint8ClampedArray): Uint8Array {
  const out = new Uint8Array(pixels.length);
  for (let at = 0; at < pixels.length; at += 4) {
    const cover = pixels[at + 3] as number;
    for (let part = 0; part < 3; part += 1) out[at + part] = Math.floor(((pixels[at + part] as number) * cover) / 255);
    out[at + 3] = cover;
  }
  return out;
}

/** Multiplied colours back to plain ones, in place. */
export function divided(pixels: Uint8ClampedArray): void {
  for (let at = 0; at < pixels.length; at += 4) {
    const cover = pixels[at + 3] as number;
    if (cover === 0 || cover === 255) continue;
    for (let part = 0; part < 3; part += 1) pixels[at + part] = ((pixels[at + part] as number) * 255) / cover;
  }
}

/** Lay a stamp over a picture, its middle at a place; what lies beside the picture is left away. */
export function layDown(picture: Uint8Array, width: number, { side, pixels }: Stamp, x: number, y: number): void {
  const height = picture.length / 4 / width;
  const [left, top] = [Math.round(x - side / 2), Math.round(y - side / 2)];
  const [first, end] = [Math.max(0, -left), Math.min(side, width - left)];
  for (let row = Math.max(0, -top); row < Math.min(side, height - top); row += 1) {
    let from = (row * side + first) * 4;
    let to = ((top + row) * width + left + first) * 4;
    // Whole numbers throughout: a million pixels are gone through for a picture, and times 257 over 65536 is over 255.
    for (let column = first; column < end; column += 1, from += 4, to += 4) {
      const cover = pixels[from + 3] as number;
      if (cover === 0) continue;
      const through = (255 - cover) * 257;
      picture[to] = (pixels[from] as number) + (((picture[to] as number) * through + 32768) >>> 16);
      picture[to + 1] = (pixels[from + 1] as number) + (((picture[to + 1] as number) * through + 32768) >>> 16);
      picture[to + 2] = (pixels[from + 2] as number) + (((picture[to + 2] as number) * through + 32768) >>> 16);
      picture[to + 3] = cover + (((picture[to + 3] as number) * through + 32768) >>> 16);
    }
  }
}

/** @param ratio pixels of the screen in one of the page */
function stampOf({ style, fill, border }: Look, radius: number, ratio: number): Stamp {
  const key = [style, radius, fill, border, ratio].join(' ');
  const known = kept.get(key);
  if (known) return known;
  const reach = Math.ceil(radius) + 2;
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(2 * reach * ratio);
  canvas.height = canvas.width;
  const side = canvas.width;
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return { side: 0, pixels: new Uint8Array() };
  context.scale(ratio, ratio);
  context.fillStyle = fill;
  context.strokeStyle = border;
  drawPoint(context, { pointStyle: style, radius, borderWidth: 1 } as never, reach, reach);
  const stamp = { side, pixels: multiplied(context.getImageData(0, 0, side, side).data) };
  if (kept.size >= MOST_KEPT) kept.clear();
  kept.set(key, stamp);
  return stamp;
}

export interface Stamped {
  readonly look: Look;
  /** One for all, or one each; px. */
  readonly radii: number | readonly number[];
}

/** Draw the first datasets of a chart, a look each, where it has placed their points. */
export function stampPoints(chart: Chart, sets: readonly Stamped[]): void {
  const { ctx, canvas, currentDevicePixelRatio: ratio, chartArea, width, height } = chart;
  if (canvas.width === 0 || canvas.height === 0) return;
  const layer = document.createElement('canvas');
  layer.width = canvas.width;
  layer.height = canvas.height;
  const over = layer.getContext('2d', { willReadFrequently: true });
  if (!over) return;
  const image = over.createImageData(layer.width, layer.height);
  const picture = new Uint8Array(image.data.buffer);
  sets.forEach(({ look, radii }, at) => {
    const points = chart.getDatasetMeta(at).data;
    const whole = (radius: number) => stampOf(look, Math.round(radius / STEP) * STEP, ratio);
    const same = typeof radii === 'number' ? whole(radii) : null;
    for (let index = 0; index < points.length; index += 1) {
      const { x, y } = points[index] as { x: number; y: number };
      const stamp = same ?? whole((radii as readonly number[])[index] ?? 0);
      layDown(picture, layer.width, stamp, x * ratio, y * ratio);
    }
  });
  divided(image.data);
  over.putImageData(image, 0, 0);
  ctx.save();
  ctx.beginPath();
  ctx.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
  ctx.clip();
  ctx.drawImage(layer, 0, 0, width, height);
  ctx.restore();
}
