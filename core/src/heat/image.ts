// A thermal image as a matrix of temperatures: read from CSV, corrected for emissivity, and its hottest spot.
import { spotCelsius } from './touch.ts';

export interface ThermalImage {
  readonly width: number;
  readonly height: number;
  /** °C, row by row from the top; NaN where the camera told nothing. */
  readonly values: Float32Array;
}

const LARGEST = 4_000_000;
const LEAST_SIDE = 4;
const FAHRENHEIT = /°?\bF\b|fahrenheit/i;
const NUMBER = /^[+-]?\d+(?:[.,]\d+)?$/;

/** Cells of a line, by the delimiter that gives most of them. */
function cellsOf(line: string, delimiter: string): string[] {
  const cells = line
    .trim()
    .split(delimiter)
    .map((cell) => cell.trim().replace(/^"(.*)"$/, '$1'));
  while (cells.at(-1) === '') cells.pop();
  return cells;
}

/**
 * Read a matrix of temperatures: one line a row, any delimiter, either decimal sign, °C unless the lines above say °F.
 * @returns the image, or why it is none
 * @example readThermalImage('20,0;21,5;22\n…') // { width: 3, … }
 */
export function readThermalImage(text: string): ThermalImage | { readonly reason: string } {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const delimiter =
    [';', '\t', ','].find(
      (one) => lines.filter((line) => line.split(one).length > LEAST_SIDE).length > lines.length / 2,
    ) ?? ' ';
  const rows = lines.map((line) => cellsOf(line, delimiter === ' ' ? '\u0000' : delimiter));
  const cut = delimiter === ' ' ? lines.map((line) => line.trim().split(/\s+/)) : rows;
  const isRow = (cells: readonly string[]) =>
    cells.length >= LEAST_SIDE && cells.filter((cell) => NUMBER.test(cell)).length > cells.length * 0.5;
  const first = cut.findIndex(isRow);
  if (first < 0) return { reason: 'No matrix of numbers found. Export the temperatures, one line a row.' };
  const body = cut.slice(first);
  const width = body[0]?.length ?? 0;
  const uneven = body.findIndex((cells) => cells.length !== width);
  if (uneven >= 0)
    return { reason: `Row ${uneven + 1} has ${body[uneven]?.length} temperatures; the first has ${width}.` };
  if (body.length < LEAST_SIDE) return { reason: `It has ${body.length} rows; ${LEAST_SIDE} or more are needed.` };
  if (width * body.length > LARGEST)
    return { reason: `It has ${width * body.length} points; at most ${LARGEST} are taken.` };
  const inFahrenheit = lines.slice(0, first).some((line) => FAHRENHEIT.test(line));
  const values = Float32Array.from(
    body.flatMap((cells) =>
      cells.map((cell) => {
        if (!NUMBER.test(cell)) return Number.NaN;
        const value = Number(cell.replace(',', '.'));
        return inFahrenheit ? ((value - 32) * 5) / 9 : value;
      }),
    ),
  );
  if (values.every((value) => Number.isNaN(value))) return { reason: 'None of its cells is a number.' };
  return { width, height: body.length, values };
}

export interface ThermalSpot {
  /** Column and row, from 0 at the top left. */
  readonly x: number;
  readonly y: number;
  /** As the camera shows it, °C. */
  readonly shown: number;
  /** Corrected for emissivity and what is mirrored; null where the surface cannot be trusted. */
  readonly celsius: number | null;
}

/**
 * Hottest spot and extremes of an image.
 * @param emissivity of the surface, for a camera set to 1; 1 where the camera was set to the surface's own
 * @param reflected °C of what is mirrored
 */
export function hottestSpot(
  { width, values }: ThermalImage,
  emissivity = 1,
  reflected = 23,
): (ThermalSpot & { readonly low: number }) | null {
  let at = -1;
  let low = Number.POSITIVE_INFINITY;
  for (let index = 0; index < values.length; index += 1) {
    const value = values[index] as number;
    if (Number.isNaN(value)) continue;
    if (at < 0 || value > (values[at] as number)) at = index;
    if (value < low) low = value;
  }
  if (at < 0) return null;
  const shown = values[at] as number;
  return { x: at % width, y: Math.floor(at / width), shown, low, celsius: spotCelsius(shown, emissivity, reflected) };
}

/**
 * One hue from light to dark, so that hot is dark and grey printing keeps the order.
 * @param part 0 for the coolest, 1 for the hottest
 * @returns red, green and blue, 0 to 255
 */
export function warmColour(part: number): readonly [number, number, number] {
  const t = part > 0 ? Math.min(1, part) : 0;
  const [light, dark] = [
    [253, 243, 233],
    [112, 34, 12],
  ] as const;
  return [0, 1, 2].map((at) =>
    Math.round((light[at] as number) + ((dark[at] as number) - (light[at] as number)) * t),
  ) as unknown as readonly [number, number, number];
}
