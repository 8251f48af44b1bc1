// Drops from a table as people keep them: a column of current, and a drop or the volts at both ends.
import { findUnit, parseQuantity, type QuantityId, toSi } from '../quantity/index.ts';
import { textRows } from '../table/index.ts';
import type { DropReading } from './types.ts';

const ZERO_CELSIUS = 273.15;

type Role = 'amps' | 'drop' | 'near' | 'far' | 'celsius' | 'plugging' | 'length' | 'none';

/** Names people give their columns, the surest first. */
const ROLES: readonly (readonly [Role, RegExp])[] = [
  ['plugging', /plug(?!.*v)|mating|insert|cycle|repeat/],
  ['length', /length|metres?$|meters?$/],
  ['celsius', /temp|°c|°f|celsius|fahrenheit|kelvin|^t$|^t[ _(]/],
  ['drop', /drop|delta|dv(?![a-z0-9])|v_?diff|Δ|δ/],
  ['near', /[vu]_?in(?![a-z0-9])|in(?:put)?[ _]?v|near|source|supply|charger|[vu]_?1(?![a-z0-9])|before|vorher/],
  ['far', /[vu]_?out(?![a-z0-9])|out(?:put)?[ _]?v|far|load|sink|device|[vu]_?2(?![a-z0-9])|after|nachher/],
  ['amps', /current|amp|^i$|^i[ _([]|^a$|strom/],
];

const QUANTITY: Readonly<Partial<Record<Role, QuantityId>>> = {
  amps: 'current',
  drop: 'voltage',
  near: 'voltage',
  far: 'voltage',
  celsius: 'temperature',
  length: 'length',
};

interface Column {
  readonly role: Role;
  /** Unit of its head; empty for the usual. */
  readonly unit: string;
}

/** Words of a head, the unit last: `drop_mV`, `Drop (mV)`, `drop [mV]`, `drop, mV`. */
const wordsOf = (head: string): readonly string[] => head.split(/[\s_,;()[\]/]+/).filter((word) => word !== '');

function columnOf(head: string): Column {
  const plain = head.trim().toLowerCase();
  const last = wordsOf(head).at(-1) ?? '';
  // "current_load" is a current, and so is "Load A"; "load_V" is the volts at the load.
  const found =
    /current|amps?\b/.test(plain) || findUnit('current', last)
      ? 'amps'
      : ROLES.find(([, pattern]) => pattern.test(plain))?.[0];
  if (!found) return { role: 'none', unit: '' };
  const quantity = QUANTITY[found];
  const usual = found === 'length' ? 'm' : '';
  return { role: found, unit: quantity && findUnit(quantity, last) ? last : usual };
}

/** Columns by their heads and by a line of units below them. */
function columnsOf(heads: readonly string[], units: readonly string[] | null): readonly Column[] {
  return heads.map((head, at) => {
    const own = columnOf(head);
    const below = wordsOf(units?.[at] ?? '').at(-1) ?? '';
    const quantity = QUANTITY[own.role];
    if (quantity) return findUnit(quantity, below) ? { ...own, unit: below } : own;
    return below === '' ? own : columnOf(`${head} ${below}`);
  });
}

/** Columns without heads, by how many there are. */
const BARE: Readonly<Record<number, readonly Role[]>> = {
  2: ['amps', 'drop'],
  3: ['amps', 'near', 'far'],
  4: ['amps', 'near', 'far', 'celsius'],
};

export interface DropTable {
  readonly readings: readonly (DropReading & { readonly length: number | null })[];
  /** Smallest step the drops were written in, V; 0 where that is not told. */
  readonly resolution: number;
}

export type DropTableRead =
  | ({ readonly ok: true } & DropTable)
  | { readonly ok: false; readonly line: number; readonly reason: string };

const decimalsOf = (cell: string): number => (/[.,](\d+)/.exec(cell)?.[1] ?? '').length;

/** SI of a cell; null for an empty one, NaN for what is none. */
function siOf(cell: string, { role, unit }: Column): number | null {
  if (cell === '' || /^(nan|n\/a|-|–)$/i.test(cell)) return null;
  const quantity = QUANTITY[role];
  if (!quantity) return Number(cell.replace(',', '.'));
  const bare = /^[+-−]?[\d.,]+(?:e[+-]?\d+)?$/i.test(cell);
  const factor = unit === '' ? undefined : findUnit(quantity, unit);
  if (bare && factor) {
    const number = Number(cell.replace('−', '-').replace(',', '.'));
    return toSi(number, factor);
  }
  const parsed = parseQuantity(cell, quantity);
  return parsed.ok ? parsed.value : Number.NaN;
}

/** A cell of a line of units. */
const UNIT_ONLY = /^[[(]?[a-zµΩ°]+[\])]?$/i;

const isNumber = (cell: string): boolean => /^[+-−]?\d*[.,]?\d+(?:e[+-]?\d+)?(\s*[a-zµΩ°]+)?$/i.test(cell.trim());

/**
 * Read drops from a table. Any delimiter, either decimal sign, units in the heads or the cells; lines that begin with # are
 * left out. Without heads: current and drop; or current, near and far end, and the temperature.
 * @returns the readings, or the first line that cannot be read and why
 * @example readDrops('current_A,drop_mV\n3,732').readings[0]?.drop // 0.732
 */
export function readDrops(text: string): DropTableRead {
  const { rows: lines, delimiter } = textRows(text);
  const rows = lines.map(({ cells }) => cells);
  const comma = delimiter !== ',';
  const [first] = rows;
  if (!first) return { ok: false, line: 1, reason: 'nothing in it.' };
  const headed = !first.every((cell) => cell === '' || isNumber(cell));
  const second = rows[1] ?? [];
  const units =
    headed && second.length > 0 && second.every((cell) => cell === '' || UNIT_ONLY.test(cell)) ? second : null;
  const columns: readonly Column[] = headed
    ? columnsOf(first, units)
    : (BARE[first.length] ?? []).map((role) => ({ role, unit: '' }));
  const at = (role: Role) => columns.findIndex((column) => column.role === role);
  const two = at('near') >= 0 && at('far') >= 0;
  if (at('amps') < 0 || (!two && at('drop') < 0))
    return {
      ok: false,
      line: lines[0]?.line ?? 1,
      reason: headed
        ? `the heads name no ${at('amps') < 0 ? 'current' : 'drop, nor the volts at both ends'}. Call the columns current_A and drop_V, or current_A, near_V and far_V.`
        : 'without heads it has current and drop, or current and the volts at both ends.',
    };
  // A comma between whole numbers is a decimal sign only where something else parts the columns.
  const read = (cells: readonly string[], role: Role) => {
    const column = at(role);
    const cell = column < 0 ? '' : (cells[column] ?? '');
    return column < 0 ? null : siOf(comma ? cell : cell.replace(/,/g, ''), columns[column] as Column);
  };
  const readings: (DropReading & { readonly length: number | null })[] = [];
  let resolution = Number.POSITIVE_INFINITY;
  for (const [index, cells] of rows.entries()) {
    if (headed && (index === 0 || (units && index === 1))) continue;
    const line = lines[index]?.line ?? index + 1;
    const amps = read(cells, 'amps');
    const near = two ? read(cells, 'near') : null;
    const far = two ? read(cells, 'far') : null;
    const drop = two && at('drop') < 0 ? (near === null || far === null ? null : near - far) : read(cells, 'drop');
    const kelvin = read(cells, 'celsius');
    const length = read(cells, 'length');
    for (const [name, value] of [
      ['current', amps],
      ['drop', drop],
      ['temperature', kelvin],
    ] as const)
      if (value !== null && Number.isNaN(value)) return { ok: false, line, reason: `its ${name} is no number.` };
    if (amps === null || drop === null)
      return { ok: false, line, reason: `its ${amps === null ? 'current' : 'drop'} is missing.` };
    const column = at(two && at('drop') < 0 ? 'near' : 'drop');
    const unit = columns[column]?.unit ?? '';
    const factor = (unit === '' ? undefined : findUnit('voltage', unit))?.factor ?? 1;
    resolution = Math.min(resolution, factor * 10 ** -decimalsOf(cells[column] ?? ''));
    const plugging = at('plugging') < 0 ? undefined : cells[at('plugging')];
    readings.push({
      amps,
      drop,
      near,
      celsius: kelvin === null ? null : kelvin - ZERO_CELSIUS,
      length,
      ...(plugging === undefined ? {} : { plugging }),
    });
  }
  if (readings.length === 0) return { ok: false, line: lines[0]?.line ?? 1, reason: 'no reading in it.' };
  // A drop of two readings is rounded twice.
  const rounded = two && at('drop') < 0 ? resolution * Math.SQRT2 : resolution;
  return { ok: true, readings, resolution: Number.isFinite(rounded) ? rounded : 0 };
}
