// A capture as a file: a time column, and volts, amps or watts against it.

import Papa from 'papaparse';
import { type FilePlan, headerParts, slicesOf, sniffFile } from '../meter-file/index.ts';
import { meterNumber } from '../meter-file/number.ts';
import { findUnit, type QuantityId, toSi, type Unit } from '../quantity/index.ts';
import type { Table } from '../table/index.ts';
import { COLUMN_WORDS, MOST_SAMPLES } from './figures.ts';
import { CAPTURE_COLUMNS, type CaptureKind, type ColumnName, type Trace } from './types.ts';

type Role = 'time' | ColumnName;

const NAMES: readonly (readonly [Role, RegExp])[] = [
  ['time', /^(t|time|seconds|elapsed|timestamp|x)$/],
  ['supply', /^(supply|supplyvolts|supplyvoltage|vin|uin|vbat|battery|vsupply)$/],
  ['watts', /^(p|pin|power|watts|inputpower|inputwatts|mainspower|wall)$/],
  ['amps', /^(i|iin|current|amps|mainscurrent|inputcurrent|imains|ch2)$/],
  ['volts', /^(v|u|volts|voltage|vmains|umains|mainsvolts|mainsvoltage|vout|vbus|outputvolts|outputvoltage|ch1)$/],
];

const QUANTITY: Readonly<Record<Role, QuantityId>> = {
  time: 'duration',
  volts: 'voltage',
  amps: 'current',
  watts: 'power',
  supply: 'voltage',
};

/** How far samples may stray from an even spacing, as a fraction of it. */
const JITTER = 0.1;

const roleOf = (name: string): Role | undefined => {
  const bare = name.toLowerCase().replace(/[^a-z0-9]/g, '');
  return NAMES.find(([, pattern]) => pattern.test(bare))?.[0];
};

export type CaptureReading =
  | { readonly ok: true; readonly trace: Trace; readonly samples: number }
  | { readonly ok: false; readonly reason: string };

const fail = (reason: string): CaptureReading => ({ ok: false, reason });

interface Place {
  readonly role: Role;
  readonly at: number;
  readonly unit: Unit | undefined;
}

/** Which column holds what, by the header; or the reason it cannot be told. */
function placesOf(kind: CaptureKind, heads: readonly string[], delimiter: string): readonly Place[] | string {
  const found = heads.map((head) => {
    const { name, unit } = headerParts(head);
    const role = roleOf(name);
    return { role, written: unit, unit: role && unit !== '' ? findUnit(QUANTITY[role], unit) : undefined };
  });
  const needed: readonly Role[] = ['time', ...CAPTURE_COLUMNS[kind]];
  const places = needed.map((role) => {
    const at = found.findIndex((one) => one.role === role);
    return { role, at, unit: found[at]?.unit };
  });
  const missing = places.find(({ at }) => at < 0);
  if (missing) {
    const word = missing.role === 'time' ? 'time' : COLUMN_WORDS[missing.role];
    return `No column of ${word}. Its header is "${heads.join(delimiter)}"; name one "${missing.role === 'time' ? 'time [s]' : missing.role}".`;
  }
  const unread = places.map(({ at }) => found[at]).find((one) => one && one.written !== '' && !one.unit);
  return unread ? `"${unread.written}" is not a unit of its column. Use s, ms, V, A, mA, W or mW.` : places;
}

/** Samples one column has room for before it is made larger. */
const FIRST_ROOM = 16_384;

/** Reads a capture file piece by piece, so that a long one need not hold up anything else. */
export class CaptureReader {
  readonly #kind: CaptureKind;
  readonly #plan: FilePlan | null = null;
  #places: readonly Place[] = [];
  #values: Float64Array[] = [];
  #count = 0;
  #line = 0;
  #problem: string | null = null;

  /** @param text the whole file; only its beginning is looked at here */
  constructor(kind: CaptureKind, text: string) {
    this.#kind = kind;
    const plan = sniffFile(text, []);
    if ('reason' in plan) this.#problem = plan.reason;
    else this.#plan = plan;
  }

  /** Add whole lines, in order. */
  add(lines: string): void {
    const plan = this.#plan;
    if (this.#problem !== null || !plan) return;
    const text = (this.#line === 0 ? lines.replace(/^\ufeff/, '') : lines).replace(/\r?\n$/, '');
    for (const row of Papa.parse<string[]>(text, { delimiter: plan.delimiter }).data) {
      this.#line += 1;
      if (this.#line === plan.headerLine) this.#head(row, plan);
      else if (this.#line > plan.headerLine) this.#take(row, plan.decimal === ',');
      if (this.#problem !== null) return;
    }
  }

  #head(row: readonly string[], plan: FilePlan): void {
    const places = placesOf(this.#kind, row, plan.delimiter);
    if (typeof places === 'string') this.#problem = places;
    else {
      this.#places = places;
      this.#values = places.map(() => new Float64Array(FIRST_ROOM));
    }
  }

  #take(row: readonly string[], comma: boolean): void {
    if (row.length === 1 && (row[0] ?? '').trim() === '') return;
    if (this.#count === MOST_SAMPLES) {
      this.#problem = `It has more than ${MOST_SAMPLES} samples, the most that are kept. Cut it, or sample slower.`;
      return;
    }
    // A plain loop: it runs a million times.
    for (let index = 0; index < this.#places.length; index += 1) {
      const { role, at, unit } = this.#places[index] as Place;
      const value = meterNumber(row[at] ?? '', comma);
      if (Number.isNaN(value)) {
        this.#problem = `Line ${this.#line}: "${(row[at] ?? '').trim()}" is no ${role === 'time' ? 'time' : 'number'}. Correct it, or cut the file there.`;
        return;
      }
      this.#room(index)[this.#count] = unit ? toSi(value, unit) : value;
    }
    this.#count += 1;
  }

  /** The values of a column, with room for one more. */
  #room(index: number): Float64Array {
    const own = this.#values[index] as Float64Array;
    if (this.#count < own.length) return own;
    const larger = new Float64Array(Math.min(MOST_SAMPLES, own.length * 2));
    larger.set(own);
    this.#values[index] = larger;
    return larger;
  }

  /** The trace in SI, or what is wrong, where, and what to do. */
  result(): CaptureReading {
    if (this.#problem !== null) return fail(this.#problem);
    const count = this.#count;
    const [times = new Float64Array(), ...others] = this.#values.map((column) => column.slice(0, count));
    const [from = 0] = times;
    const span = (times[count - 1] ?? 0) - from;
    const interval = count > 1 ? span / (count - 1) : 0;
    if (!(interval > 0)) return fail('Its times do not rise. Each line is later than the one before.');
    const most = JITTER * interval + 1e-9 * span;
    const uneven = times.findIndex((time, index) => Math.abs(time - from - index * interval) > most);
    if (uneven >= 0)
      return fail(
        `Times are not evenly spaced from line ${(this.#plan?.headerLine ?? 0) + uneven + 1} on. Export it with a fixed sample rate.`,
      );
    const names = CAPTURE_COLUMNS[this.#kind];
    const columns = Object.fromEntries(names.map((name, index) => [name, others[index] ?? new Float64Array()]));
    return { ok: true, trace: { interval, columns }, samples: count };
  }
}

/**
 * Read a capture at once from text with a header line: `time [ms]; voltage [V]; current [mA]`, any delimiter, either
 * decimal sign, evenly spaced times. See {@link CaptureReader}.
 */
export function readCapture(kind: CaptureKind, text: string): CaptureReading {
  const reader = new CaptureReader(kind, text);
  for (const slice of slicesOf(text)) reader.add(slice);
  return reader.result();
}

/** A trace as a table in SI, heads first. */
export function captureTable({ interval, columns }: Trace): Table {
  const names = Object.keys(columns) as ColumnName[];
  const length = Math.max(0, ...names.map((name) => columns[name]?.length ?? 0));
  const units: Readonly<Record<ColumnName, string>> = { volts: 'V', amps: 'A', watts: 'W', supply: 'V' };
  return [
    ['time [s]', ...names.map((name) => `${name} [${units[name]}]`)],
    ...Array.from({ length }, (_, index) => [
      Number((index * interval).toPrecision(9)),
      ...names.map((name) => {
        const value = columns[name]?.[index] ?? 0;
        return Number.isNaN(value) ? null : Number(value.toPrecision(7));
      }),
    ]),
  ];
}
