// A capture as a file: a time column, and volts, amps or watts against it.
import Papa from 'papaparse';
import { headerParts, sniffFile } from '../meter-file/index.ts';
import { meterNumber } from '../meter-file/number.ts';
import { findUnit, type QuantityId, toSi } from '../quantity/index.ts';
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

/**
 * Read a capture from text with a header line: `time [ms]; voltage [V]; current [mA]`, any delimiter, either decimal
 * sign. Times must be evenly spaced.
 * @returns the trace in SI, or what is wrong, where, and what to do
 */
export function readCapture(kind: CaptureKind, text: string): CaptureReading {
  const plan = sniffFile(text, []);
  if ('reason' in plan) return fail(plan.reason);
  const comma = plan.decimal === ',';
  const rows = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), {
    delimiter: plan.delimiter,
    skipEmptyLines: false,
  }).data;
  const heads = rows[plan.headerLine - 1] ?? [];
  const found = heads.map((head) => {
    const { name, unit } = headerParts(head);
    const role = roleOf(name);
    return { role, unit: role && unit !== '' ? findUnit(QUANTITY[role], unit) : undefined, written: unit };
  });
  const needed: readonly Role[] = ['time', ...CAPTURE_COLUMNS[kind]];
  const places = needed.map((role) => ({ role, at: found.findIndex((one) => one.role === role) }));
  const missing = places.find(({ at }) => at < 0);
  if (missing) {
    const word = missing.role === 'time' ? 'time' : COLUMN_WORDS[missing.role];
    return fail(
      `No column of ${word}. Its header is "${heads.join(plan.delimiter)}"; name one "${missing.role === 'time' ? 'time [s]' : `${missing.role}`}".`,
    );
  }
  const unread = places.map(({ at }) => found[at]).find((one) => one && one.written !== '' && !one.unit);
  if (unread) return fail(`"${unread.written}" is not a unit of its column. Use s, ms, V, A, mA, W or mW.`);
  const values = places.map(() => new Float64Array(rows.length - plan.headerLine));
  let count = 0;
  for (let line = plan.headerLine; line < rows.length; line += 1) {
    const row = rows[line] ?? [];
    if (row.every((cell) => cell.trim() === '')) continue;
    for (const [index, { role, at }] of places.entries()) {
      const value = meterNumber(row[at] ?? '', comma);
      if (Number.isNaN(value))
        return fail(
          `Line ${line + 1}: "${(row[at] ?? '').trim()}" is no ${role === 'time' ? 'time' : 'number'}. Correct it, or cut the file there.`,
        );
      const unit = found[at]?.unit;
      (values[index] as Float64Array)[count] = unit ? toSi(value, unit) : value;
    }
    count += 1;
  }
  if (count > MOST_SAMPLES)
    return fail(`It has ${count} samples; at most ${MOST_SAMPLES} are kept. Cut it, or sample slower.`);
  const [times = new Float64Array(), ...others] = values.map((column) => column.slice(0, count));
  const span = (times[count - 1] ?? 0) - (times[0] ?? 0);
  const interval = count > 1 ? span / (count - 1) : 0;
  if (!(interval > 0)) return fail('Its times do not rise. Each line is later than the one before.');
  const uneven = times.findIndex(
    (time, index) => Math.abs(time - (times[0] ?? 0) - index * interval) > JITTER * interval + 1e-9 * span,
  );
  if (uneven >= 0)
    return fail(
      `Times are not evenly spaced from line ${plan.headerLine + uneven + 1} on. Export it with a fixed sample rate.`,
    );
  const columns = Object.fromEntries(
    CAPTURE_COLUMNS[kind].map((name, index) => [name, others[index] ?? new Float64Array()]),
  );
  return { ok: true, trace: { interval, columns }, samples: count };
}

/** A trace as lines of CSV in SI, heads first. */
export function captureCsv({ interval, columns }: Trace): string[] {
  const names = Object.keys(columns) as ColumnName[];
  const length = Math.max(0, ...names.map((name) => columns[name]?.length ?? 0));
  const units: Readonly<Record<ColumnName, string>> = { volts: 'V', amps: 'A', watts: 'W', supply: 'V' };
  return [
    ['time [s]', ...names.map((name) => `${name} [${units[name]}]`)].join(','),
    ...Array.from({ length }, (_, index) =>
      [
        Number((index * interval).toPrecision(9)),
        ...names.map((name) => Number((columns[name]?.[index] ?? 0).toPrecision(7))),
      ].join(','),
    ),
  ];
}
