// Drops along a line, from a table: how many ohms, how well known, and what of it is contact.
import { readFile } from 'node:fs/promises';
import {
  contactShare,
  type DropAccuracy,
  type DropTable,
  gaugeOf,
  type OfLength,
  type Resistance,
  readDrops,
  resistanceOf,
} from '@lastmark/core/resistance';
import { decodeText } from '@lastmark/core/table';
import { type AccuracySpec, expandedUncertainty, isStated, type Measured, NO_SPEC } from '@lastmark/core/uncertainty';
import type { Analysis } from './kinds.ts';
import type { Options } from './options.ts';

/** A table has no more lines than a person or a logger writes in a day. */
const MOST_BYTES = 32 * 1024 * 1024;

type Made = Analysis | { readonly reason: string };
type Interval = readonly [number, number];

/** The whole interval, where something tells it. */
const intervalOf = (of: Measured, told: boolean): Interval | null => {
  if (!told || !isStated(of)) return null;
  const half = expandedUncertainty(of);
  return [of.value - half, of.value + half];
};

/** Whether the readings themselves tell how far they scatter; else only the specs do. */
const scatterTold = ({ ohms }: Resistance, specs: boolean): boolean => specs || ohms.uRepeat > 0;

const milli = (ohms: number): string => `${Number((ohms * 1000).toPrecision(4))} mΩ`;

function accuracyOf(volts: AccuracySpec | null, amps: AccuracySpec | null, two: boolean): DropAccuracy {
  const spec = volts ?? NO_SPEC;
  return { amps: amps ?? NO_SPEC, ...(two ? { near: spec } : {}), far: spec };
}

/** Each length's own resistance at 20 °C, or as read where no temperature is known of any. */
function byLength(table: DropTable, accuracy: DropAccuracy): readonly (OfLength & { readonly result: Resistance })[] {
  const lengths = [...new Set(table.readings.flatMap(({ length }) => length ?? []))];
  return lengths.flatMap((length) => {
    const result = resistanceOf(
      table.readings.filter((one) => one.length === length),
      accuracy,
      table.resolution,
    );
    return result ? [{ length, ohms: (result.at20 ?? result.ohms).value, result }] : [];
  });
}

async function piped(): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of process.stdin) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** @returns figures, or why there are none */
export async function analyseResistance({ file, ambient, volts, amps }: Options): Promise<Made> {
  const bytes = file === '-' ? await piped() : await readFile(file);
  if (bytes.length > MOST_BYTES) return { reason: 'it is too long for a table of drops.' };
  const read = readDrops(decodeText(bytes));
  if (!read.ok) return { reason: `line ${read.line}: ${read.reason}` };
  const table: DropTable = {
    ...read,
    readings: read.readings.map((one) =>
      one.celsius === null && ambient !== null ? { ...one, celsius: ambient } : one,
    ),
  };
  const two = table.ends;
  const accuracy = accuracyOf(volts, amps, two);
  const lengths = byLength(table, accuracy);
  const first = lengths[0]?.result ?? resistanceOf(table.readings, accuracy, table.resolution);
  if (!first) return { reason: 'no reading at a current above nought.' };
  const share = lengths.length > 1 ? contactShare(lengths) : null;
  const told = scatterTold(first, volts !== null && amps !== null);
  const findings = [
    ...table.assumed,
    ...table.left,
    ...first.findings.map(({ sentence }) => sentence),
    ...(volts === null || amps === null
      ? ['What the meters are off by is not in the interval: give their accuracies with --volts and --amps.']
      : []),
    ...(lengths.length > 1 && share === null ? ['These lengths do not lie on one line: not of one wire.'] : []),
  ];
  const interval = intervalOf(first.ohms, told);
  const at20 = first.at20?.value ?? null;
  const figures = {
    ohms: first.ohms.value,
    interval,
    celsius: first.celsius,
    at20,
    at20Interval: first.at20 && intervalOf(first.at20, told),
    contact: share?.contact ?? null,
    perMetre: share?.perMetre ?? null,
    gauge: share ? gaugeOf(share.perMetre / 2) : null,
    curvature: first.curvature?.value ?? null,
    curvatureInterval: first.curvature && intervalOf(first.curvature, true),
    offset: first.offset,
    pluggings: first.pluggings,
    spread: first.spread,
    lengths: lengths.map(({ length, ohms }) => ({ length, at20: ohms })),
    findings,
  };
  return {
    figures,
    says: [
      `${milli(first.ohms.value)}${interval ? ` (95 %: ${milli(interval[0])} to ${milli(interval[1])})` : ''}${first.celsius === null ? '' : ` at ${first.celsius.toFixed(1)} °C`}${at20 === null ? '' : `, ${milli(at20)} at 20 °C`}.`,
      ...(share ? [`Contacts ${milli(share.contact)}, wire ${milli(share.perMetre)} a metre there and back.`] : []),
      ...findings,
    ],
  };
}
