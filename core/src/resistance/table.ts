// Drops from a table as people keep them: a column of current, and a drop or the volts at both ends.
import { findUnit, parseDecimal, parseQuantity } from '../quantity/index.ts';
import { assumedSays } from '../trace/index.ts';
import { type Column, QUANTITY, type Role, tells, USUAL } from './heads.ts';
import { layoutOf, summedUp } from './layout.ts';
import type { DropReading } from './types.ts';

const ZERO_CELSIUS = 273.15;

export interface DropTable {
  readonly readings: readonly (DropReading & { readonly length: number | null })[];
  /** Smallest step the drops were written in, V; 0 where that is not told. */
  readonly resolution: number;
  /** Whether the drops are what the volts at both ends differ by. */
  readonly ends: boolean;
  /** What is taken for granted where no unit is stated, in a sentence. */
  readonly assumed: readonly string[];
  /** Which lines are no part of the table, in a sentence each. */
  readonly left: readonly string[];
}

export type DropTableRead =
  | ({ readonly ok: true } & DropTable)
  | { readonly ok: false; readonly line: number; readonly reason: string };

/** Decimals a number was written with; those of 7.32e2 are none. */
function decimalsOf(cell: string): number {
  const [, decimals = '', power = '0'] = /(?:[.,](\d+))?(?:e([+-]?\d+))?\s*[^\d]*$/i.exec(cell) ?? [];
  return decimals.length - Number(power);
}

/** SI of a cell; null for an empty one, NaN for what is none. */
function siOf(cell: string, { role, unit }: Column): number | null {
  if (cell === '' || /^(nan|n\/a|-|–|—)$/i.test(cell)) return null;
  const quantity = QUANTITY[role];
  if (!quantity) return parseDecimal(cell);
  const parsed = parseQuantity(cell, quantity, unit ?? USUAL[role]);
  return parsed.ok ? parsed.value : Number.NaN;
}

const BARE_NUMBER = /^[+\-−]?[\d.,'\s]+(?:e[+-]?\d+)?$/i;
/** What no cable carries, nor loses: a number without a unit beyond it is in a smaller one. */
const MOST: Readonly<Partial<Record<Role, readonly [si: number, unit: string]>>> = {
  amps: [50, 'mA'],
  drop: [60, 'mV'],
  near: [60, 'mV'],
  far: [60, 'mV'],
};
const VOLTS = 'V or mV';
const WRITE: Readonly<Partial<Record<Role, string>>> = {
  amps: 'A or mA',
  drop: VOLTS,
  near: VOLTS,
  far: VOLTS,
  celsius: '°C, °F or K',
  length: 'm or cm',
};
/** What a line must tell once. */
const ONCE: readonly (readonly [Role, string])[] = [
  ['amps', 'the current'],
  ['drop', 'the drop'],
  ['near', 'the volts at the near end'],
  ['far', 'the volts at the far end'],
];

/** Smallest step a cell was written in, V. */
function stepOf(cell: string, column: Column): number {
  const [own = ''] = /[a-zµ]+$/i.exec(cell.trim().replace(/e[+-]?\d+$/i, '')) ?? [];
  const unit = findUnit('voltage', own) ?? findUnit('voltage', column.unit ?? 'V');
  return (unit?.factor ?? 1) * 10 ** -decimalsOf(cell);
}

/** Why a table of such columns cannot be read; null if it can. */
function wrongColumns(columns: readonly Column[], headed: boolean): string | null {
  const has = (role: Role) => columns.some((column) => column.role === role);
  const { amps, drop } = tells(columns);
  if (!headed && !(amps && drop))
    return 'without heads it has current and drop, or current and the volts at both ends.';
  if (!amps || !drop)
    return `the heads name no ${amps ? 'drop, nor the volts at both ends' : 'current'}. Call the columns current_A and drop_V, or current_A, near_V and far_V.`;
  const strange = columns.find((column) => column.strange !== null);
  if (strange)
    return `“${strange.head}”: ${strange.strange} is no unit it can be in. Write ${WRITE[strange.role] ?? ''}.`;
  for (const [role, what] of ONCE) {
    // Beside a drop the volts at an end are no more than a word about it.
    if ((role === 'near' || role === 'far') && has('drop')) continue;
    const [first, second] = columns.filter((column) => column.role === role && !column.last);
    if (first && second && headed)
      return `“${first.head}” and “${second.head}” both tell ${what}. ${role === 'drop' ? 'Give their sum in one column, or each as a table of its own.' : 'Leave one of them out.'}`;
  }
  return null;
}

function leftSays(where: string, lines: readonly string[]): readonly string[] {
  const [first] = lines;
  if (first === undefined) return [];
  const shown = `“${first.slice(0, 60)}”`;
  return lines.length === 1
    ? [`${where} the table a line was left out: ${shown}.`]
    : [`${where} the table ${lines.length} lines were left out, from ${shown} on.`];
}

/**
 * Read drops from a table. Any delimiter, either decimal sign, units in the heads or the cells; lines that begin with #,
 * lines of words above the table and lines that sum it up are left out. Without heads: current and drop; or current, near and far end, and the temperature. A number without a unit is
 * in A and V, and that is said; one that no cable carries is refused.
 * @returns the readings, or the first line that cannot be read and why
 * @example readDrops('current_A,drop_mV\n3,732').readings[0]?.drop // 0.732
 */
export function readDrops(text: string): DropTableRead {
  const layout = layoutOf(text);
  if (!layout) return { ok: false, line: 1, reason: 'nothing in it.' };
  const { columns, headed, rows } = layout;
  const comma = layout.delimiter !== ',';
  const reason = wrongColumns(columns, headed);
  if (reason !== null) return { ok: false, line: layout.line, reason };
  const at = (role: Role) => {
    const sure = columns.findIndex((column) => column.role === role && !column.last);
    return sure >= 0 ? sure : columns.findIndex((column) => column.role === role);
  };
  const ends = at('drop') < 0;
  const assumed = new Map<Role, string>();
  // A comma between whole numbers is a decimal sign only where something else parts the columns.
  const cellOf = (cells: readonly string[], role: Role) => {
    const cell = cells[at(role)] ?? '';
    return comma ? cell : cell.replace(/,/g, '');
  };
  const read = (cells: readonly string[], role: Role) => {
    const column = columns[at(role)];
    if (!column) return null;
    const cell = cellOf(cells, role);
    if (column.unit === null && QUANTITY[role] && BARE_NUMBER.test(cell)) assumed.set(role, column.head);
    return siOf(cell, column);
  };
  const readings: (DropReading & { readonly length: number | null })[] = [];
  const steps = new Map<Role, number>();
  const behind = summedUp(rows, at('amps'));
  for (const { cells, line } of rows.slice(0, rows.length - behind.length)) {
    if (cells.every((cell) => cell === '')) continue;
    const amps = read(cells, 'amps');
    const near = read(cells, 'near');
    const far = read(cells, 'far');
    const told = ends ? null : read(cells, 'drop');
    const drop = ends ? (near === null || far === null ? null : near - far) : told;
    const kelvin = read(cells, 'celsius');
    const length = read(cells, 'length');
    for (const [name, value] of [
      ['current', amps],
      ['drop', drop],
      ['temperature', kelvin],
      ['length', length],
    ] as const)
      if (value !== null && Number.isNaN(value)) return { ok: false, line, reason: `its ${name} is no number.` };
    if (amps === null || drop === null)
      return { ok: false, line, reason: `its ${amps === null ? 'current' : 'drop'} is missing.` };
    for (const [role, value] of [
      ['amps', amps],
      ['drop', told],
      ['near', near],
      ['far', far],
    ] as const) {
      const [most, smaller] = MOST[role] ?? [Number.POSITIVE_INFINITY];
      if (assumed.has(role) && value !== null && Math.abs(value) > most)
        return {
          ok: false,
          line,
          reason: `“${cellOf(cells, role)}” of what? ${headed ? `Name the unit in the head, as “${columns[at(role)]?.head}, ${smaller}”.` : `Write ${cellOf(cells, role)} ${smaller}.`}`,
        };
    }
    if (!headed && ends && drop < 0)
      return {
        ok: false,
        line,
        reason: 'without heads the volts of the near end come before those of the far end. Name the columns.',
      };
    for (const role of ends ? (['near', 'far'] as const) : (['drop'] as const))
      steps.set(
        role,
        Math.min(steps.get(role) ?? Number.POSITIVE_INFINITY, stepOf(cellOf(cells, role), columns[at(role)] as Column)),
      );
    const plugging = at('plugging') < 0 ? undefined : cells[at('plugging')];
    readings.push({
      amps,
      drop,
      near: Number.isFinite(near) && Number.isFinite(far) ? near : null,
      celsius: kelvin === null ? null : kelvin - ZERO_CELSIUS,
      length,
      ...(plugging === undefined ? {} : { plugging }),
    });
  }
  if (readings.length === 0) return { ok: false, line: layout.line, reason: 'no reading in it.' };
  return {
    ok: true,
    readings,
    // A drop of two readings is rounded twice.
    resolution: Math.hypot(...steps.values()),
    ends,
    assumed: headed ? assumedSays([...assumed].map(([role, head]) => [head, USUAL[role] ?? ''])) : [],
    left: [...leftSays('Above', layout.above), ...leftSays('Behind', behind)],
  };
}
