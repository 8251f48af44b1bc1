// A thermal image as a matrix of temperatures: read from CSV, corrected for emissivity, and its hottest spot.
import Papa from 'papaparse';
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
const KELVIN = /\bK\b|kelvin/i;
const NUMBER = /^[+-]?\d+(?:[.,]\d+)?(?:e[+-]?\d+)?$/i;
/** A cell with its unit: `24,5 °C`. */
const WITH_UNIT = /^([+-]?\d+(?:[.,]\d+)?(?:e[+-]?\d+)?)\s*((?:[°º˚]|deg ?)?[CFK]|[℃℉])$/i;
/** Between these lies the middle of what a camera sees on a bench, °C: beyond them it is in another unit. */
const BENCH = { low: -50, high: 200 } as const;

/** So many points tell the middle of an image. */
const SAMPLED = 10_000;

type Row = readonly string[];

/** Lines cut into cells, by the delimiter that gives most of them. */
function rowsOf(lines: readonly string[]): readonly Row[] {
  const delimiter = [';', '\t', '|', ','].find(
    (one) => lines.filter((line) => line.split(one).length > LEAST_SIDE).length > lines.length / 2,
  );
  if (delimiter === undefined) return lines.map((line) => line.trim().split(/\s+/));
  return Papa.parse<string[]>(lines.map((line) => line.trim()).join('\n'), { delimiter }).data.map((row) => {
    const cells = row.map((cell) => cell.trim());
    while (cells.at(-1) === '') cells.pop();
    return cells;
  });
}

/** Cells without units of their own, and the units that stood in them. */
function bareCells(rows: readonly Row[]): { readonly rows: readonly Row[]; readonly units: string } {
  const units = new Set<string>();
  const bare = rows.map((cells) =>
    cells.map((cell) => {
      const [, number, unit = ''] = WITH_UNIT.exec(cell) ?? [];
      if (number === undefined) return cell;
      units.add(unit.normalize('NFKC').slice(-1).toUpperCase());
      return number;
    }),
  );
  return { rows: bare, units: [...units].join(' ') };
}

const isRow = (cells: Row): boolean =>
  cells.length >= LEAST_SIDE && cells.filter((cell) => NUMBER.test(cell)).length > cells.length * 0.5;

/** Whether cells only count their places, from nought or one: no temperatures. */
const isCount = (cells: Row): boolean =>
  cells.length >= LEAST_SIDE &&
  (cells[0] === '0' || cells[0] === '1') &&
  cells.every((cell, at) => cell === String(Number(cells[0]) + at));

/** The matrix without the numbers of its rows and columns, where it has them. */
function withoutCounts(body: readonly Row[]): readonly Row[] {
  const [first = []] = body;
  const counted = isCount(first) || (isCount(first.slice(1)) && !NUMBER.test(first[0] ?? ''));
  const rows = counted ? body.slice(1) : body;
  return isCount(rows.map(([cell = '']) => cell)) ? rows.map((cells) => cells.slice(1)) : rows;
}

/** The rows from the first of numbers on; what is said below them is left out. */
function bodyOf(rows: readonly Row[], from: number): readonly Row[] {
  const body = rows.slice(from);
  const below = body.findIndex((cells) => /\p{L}/u.test(cells[0] ?? '') && !isRow(cells));
  return below < 0 ? body : body.slice(0, below);
}

/**
 * Read a matrix of temperatures: one line a row, any delimiter, either decimal sign, °C unless the lines around it say °F or
 * kelvin, or the cells do. Numbers of rows and columns are left out.
 * @returns the image, or why it is none
 * @example readThermalImage('20,0;21,5;22\n…') // { width: 3, … }
 */
export function readThermalImage(text: string): ThermalImage | { readonly reason: string } {
  const lines = text
    .replace(/^\ufeff/, '')
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '');
  const { rows, units } = bareCells(rowsOf(lines));
  const first = rows.findIndex(isRow);
  if (first < 0) return { reason: 'No matrix of numbers found. Export the temperatures, one line a row.' };
  const whole = bodyOf(rows, first);
  const body = withoutCounts(whole);
  const width = body.at(-1)?.length ?? 0;
  const uneven = body.findIndex((cells) => cells.length !== body[0]?.length);
  if (uneven >= 0)
    return { reason: `Row ${uneven + 1} has ${body[uneven]?.length} temperatures; the first has ${body[0]?.length}.` };
  if (body.length < LEAST_SIDE) return { reason: `It has ${body.length} rows; ${LEAST_SIDE} or more are needed.` };
  if (width * body.length > LARGEST)
    return { reason: `It has ${width * body.length} points; at most ${LARGEST} are taken.` };
  const around = [units, ...lines.slice(0, first), ...lines.slice(first + whole.length)];
  const [inFahrenheit, inKelvin] = [FAHRENHEIT, KELVIN].map((unit) => around.some((line) => unit.test(line)));
  if (inFahrenheit && inKelvin) return { reason: 'It speaks of °F and of kelvin. Export it in °C.' };
  const values = Float32Array.from(
    body.flatMap((cells) =>
      cells.map((cell) => {
        if (!NUMBER.test(cell)) return Number.NaN;
        const value = Number(cell.replace(',', '.'));
        return inFahrenheit ? ((value - 32) * 5) / 9 : inKelvin ? value - 273.15 : value;
      }),
    ),
  );
  const every = Math.ceil(values.length / SAMPLED);
  const known = values.filter((value, at) => !Number.isNaN(value) && (every === 1 || at % every === 0)).sort();
  if (known.length === 0) return { reason: 'None of its cells is a number.' };
  const middle = known[Math.floor(known.length / 2)] as number;
  if (middle < BENCH.low || middle > BENCH.high)
    return { reason: `Its middle would be ${middle.toFixed(0)} °C: is it in another unit, or raw? Export it in °C.` };
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
