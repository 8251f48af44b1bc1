// Reads a meter file by its plan: every line becomes part of a load point or is listed with what is wrong.
import Papa from 'papaparse';
import { findUnit, type QuantityId, type Unit } from '../quantity/index.ts';
import { mainsLabel, type Output } from '../reading/index.ts';
import { headerParts } from '../table/index.ts';
import { type ClockBase, LineClock } from './line-clock.ts';
import { meterNumber } from './number.ts';
import { isOverload, ownUnit, withBeside } from './own-unit.ts';
import { LOAD_REACH, placeLine } from './place.ts';
import { type FileContext, type FilePoint, filePoints, type Line, PointSums } from './points.ts';
import { slicesOf } from './slices.ts';
import { COLUMN_ROLES, type ColumnRole, type FilePlan, UNIT_CELL } from './sniff.ts';

export interface BadLine {
  /** 1-based line in the file. */
  readonly line: number;
  readonly reason: string;
  /** The line as written, shortened. */
  readonly text: string;
}

export interface FileReading {
  readonly points: readonly FilePoint[];
  readonly goodLines: number;
  /** The first of the bad lines; {@link badCount} tells how many there are. */
  readonly badLines: readonly BadLine[];
  readonly badCount: number;
  /** Lines whose own efficiency differs from the computed one by more than 0.1 percentage points. */
  readonly efficiencyDiffers: number;
  /** What times count from, and that of the last line; null where the file has none. */
  readonly clock: { readonly base: ClockBase; readonly last: number } | null;
}

const SHOWN_TEXT = 160;
/** Above it nothing is a reading; SCPI writes 9.9E37 for what is out of range. SCPI-99, volume 1, 7.2.1.4 */
const BEYOND = 1e30;
/** Bad lines that are kept with their reasons. */
const MOST_BAD_LINES = 2000;
/** So many bad lines and no good one: this is another kind of file, and the rest of it is not gone through. */
const HOPELESS = 50_000;

interface ColumnReader {
  readonly index: number;
  readonly role: ColumnRole;
  readonly name: string;
  readonly unit: Unit;
  readonly quantity: QuantityId | null;
  readonly output: number;
  /** The column that says the unit of each cell; negative for none. */
  readonly unitAt: number;
}

/** What a plan lacks before it can be used, ready to show. Empty when it is complete. */
export function planProblems(plan: FilePlan, context: FileContext): readonly string[] {
  const has = (role: ColumnRole, port: string | null = null) =>
    plan.columns.some((column) => column.role === role && (port === null || column.port === port));
  const problems: string[] = [];
  if (!has('input-watts')) problems.push('Say which column holds the input watts.');
  for (const { port } of context.outputs) {
    if (!has('output-volts', port)) problems.push(`Say which column holds the output volts of ${port}.`);
    if (!has('output-amps', port)) problems.push(`Say which column holds the output amps of ${port}.`);
  }
  if (!context.wholeFileMains && !has('mains-volts')) problems.push('Say at which mains the file was taken.');
  for (const { name, role, unit } of plan.columns) {
    const { quantity, label } = COLUMN_ROLES[role];
    const known = role === 'load' ? unit === '' || unit === '%' : quantity === null || findUnit(quantity, unit);
    if (!known) problems.push(`${name || label} is in "${unit}", which is not a unit of ${label.toLowerCase()}.`);
  }
  const used = plan.columns
    .filter(({ role }) => role !== 'ignore' && role !== 'unit')
    .map(({ role, port }) => `${role} ${port ?? ''}`);
  for (const twice of new Set(used.filter((key, index) => used.indexOf(key) !== index))) {
    const role = twice.split(' ')[0] as ColumnRole;
    problems.push(`${COLUMN_ROLES[role].label} is given by two columns.`);
  }
  return problems;
}

const NO_NUMBER: ReadonlySet<ColumnRole> = new Set(['ignore', 'date', 'time', 'unit']);

function columnReaders(plan: FilePlan, context: FileContext): ColumnReader[] {
  return plan.columns.flatMap((column, index) => {
    if (NO_NUMBER.has(column.role)) return [];
    const { quantity } = COLUMN_ROLES[column.role];
    const unit = quantity
      ? findUnit(quantity, column.unit)
      : { symbol: column.unit, factor: column.unit === '' ? 1 : 0.01 };
    if (!unit) return [];
    const unitAt = plan.columns[index + 1]?.role === 'unit' ? index + 1 : -1;
    const output = context.outputs.findIndex((candidate) => candidate.port === column.port);
    return [{ index, role: column.role, name: column.name || `column ${index + 1}`, unit, quantity, output, unitAt }];
  });
}

const freshLine = (): Line => ({
  load: 0,
  mainsVolts: 0,
  mainsHertz: 0,
  inputWatts: 0,
  powerFactor: 0,
  efficiency: 0,
  volts: [],
  amps: [],
  mains: 0,
  point: 0,
});

/** A power factor's sign says leading or lagging; a current without load wanders about nought. */
const mayBeNegative = (role: ColumnRole, si: number, output: Output | undefined): boolean =>
  role === 'power-factor' || (role === 'output-amps' && output !== undefined && si >= -LOAD_REACH * output.amps);

/** Take the numbers of a line; returns what is wrong with it, or null. */
function readCells(
  cells: readonly string[],
  readers: readonly ColumnReader[],
  comma: boolean,
  outputs: readonly Output[],
  line: Line,
): string | null {
  for (const { index, role, name, unit, quantity, output, unitAt } of readers) {
    const own = cells[index] ?? '';
    const cell = unitAt < 0 ? own : withBeside(own, cells[unitAt] ?? '', comma);
    const plain = meterNumber(cell, comma);
    // Looked at only where it is no plain number: a long file has millions of cells.
    if (!(plain < BEYOND) && isOverload(cell)) return `${name} is out of the meter’s range (${cell.trim()}).`;
    // A cell may carry its own unit: then that holds, not the head's.
    const value = Number.isNaN(plain) ? ownUnit(cell, comma, quantity ?? 'efficiency') / unit.factor : plain;
    if (Number.isNaN(value)) {
      return cell.trim() === '' ? `${name} is empty.` : `${name}: "${cell.trim()}" is not a number.`;
    }
    const si = value * unit.factor;
    if (value < 0 && !mayBeNegative(role, si, outputs[output])) return `${name} is negative (${cell.trim()}).`;
    if (role === 'input-watts') line.inputWatts = si;
    else if (role === 'output-volts') line.volts[output] = si;
    else if (role === 'output-amps') line.amps[output] = si;
    else if (role === 'mains-volts') line.mainsVolts = si;
    // A meter that does not find the frequency writes nought.
    else if (role === 'mains-hertz') line.mainsHertz = si > 0 ? si : Number.NaN;
    else if (role === 'load') line.load = si;
    else if (role === 'power-factor') line.powerFactor = Math.abs(si);
    else if (role === 'efficiency') line.efficiency = si;
  }
  return null;
}

/**
 * Reads a meter file piece by piece, so that a long one need not hold up anything else.
 * Lines at the same load and mains become one point: mean and spread of each quantity, with V·I formed per line.
 */
export class MeterFileReader {
  private readonly readers: readonly ColumnReader[];
  private readonly wholeFile: number;
  private readonly sums = new Map<number, PointSums>();
  private readonly badLines: BadLine[] = [];
  private readonly line: Line = freshLine();
  private badCount = 0;
  private goodLines = 0;
  private efficiencyDiffers = 0;
  private number = 0;
  private lastTime = Number.NaN;
  private readonly clock: LineClock;
  private readonly plan: FilePlan;
  private readonly context: FileContext;

  /**
   * @param plan how to read it; see {@link planProblems} for what it must have
   * @throws RangeError when the plan is incomplete
   */
  constructor(plan: FilePlan, context: FileContext) {
    const problems = planProblems(plan, context);
    if (problems.length > 0) throw new RangeError(problems.join(' '));
    const { wholeFileMains } = context;
    this.plan = plan;
    this.context = context;
    this.readers = columnReaders(plan, context);
    this.clock = new LineClock(plan.columns);
    this.wholeFile = wholeFileMains
      ? context.mains.findIndex((one) => mainsLabel(one) === mainsLabel(wholeFileMains))
      : -1;
  }

  /** Nothing in it can be read: whoever adds may stop. */
  get hopeless(): boolean {
    return this.goodLines === 0 && this.badCount >= HOPELESS;
  }

  /** Add whole lines, in order. The line end after the last one may be missing. */
  add(lines: string): void {
    const text = (this.number === 0 ? lines.replace(/^\ufeff/, '') : lines).replace(/\r?\n$/, '');
    const { data } = Papa.parse<string[]>(text, { delimiter: this.plan.delimiter });
    const quoted = text.includes('"');
    for (const cells of data) {
      this.number += 1;
      const own = this.number;
      // A quoted cell may run over several lines of the file.
      if (quoted) for (const cell of cells) this.number += cell.split('\n').length - 1;
      const blank = cells.length === 1 && (cells[0] ?? '').trim() === '';
      if (own > this.plan.headerLine && !blank && !this.isHeader(cells)) this.take(cells, own);
    }
  }

  /** The header written once more in the middle of a log, or its line of units. */
  private isHeader(cells: readonly string[]): boolean {
    const { columns } = this.plan;
    const first = (cells[0] ?? '').charAt(0);
    if (cells.length !== columns.length || (first >= '0' && first <= '9')) return false;
    return columns.every(({ name }, index) => {
      const cell = (cells[index] ?? '').trim();
      return headerParts(cell).name === name || UNIT_CELL.test(cell);
    });
  }

  private take(cells: readonly string[], number: number): void {
    const { line, plan } = this;
    line.load = line.mainsVolts = line.mainsHertz = line.powerFactor = line.efficiency = Number.NaN;
    const at = this.clock.given ? this.clock.at(cells) : Number.NaN;
    if (!Number.isNaN(at)) this.lastTime = at;
    const reason =
      cells.length !== plan.columns.length
        ? `${cells.length} ${cells.length === 1 ? 'value' : 'values'} where the header has ${plan.columns.length}.`
        : (readCells(cells, this.readers, plan.decimal === ',', this.context.outputs, line) ??
          placeLine(line, this.context, this.wholeFile));
    if (reason !== null) {
      this.badCount += 1;
      if (this.badLines.length < MOST_BAD_LINES) {
        const text = cells.slice(0, SHOWN_TEXT).join(plan.delimiter).slice(0, SHOWN_TEXT);
        this.badLines.push({ line: number, reason, text });
      }
      return;
    }
    this.goodLines += 1;
    const key = line.mains * 1000 + line.point;
    let point = this.sums.get(key);
    if (!point) {
      point = new PointSums(this.context.outputs.length);
      this.sums.set(key, point);
    }
    point.add(line, number, at);
    if (!Number.isNaN(line.efficiency)) {
      const output = line.volts.reduce((total, volts, index) => total + volts * (line.amps[index] ?? 0), 0);
      if (Math.abs(output / line.inputWatts - line.efficiency) > 0.001) this.efficiencyDiffers += 1;
    }
  }

  /** What the lines so far amount to. */
  result(): FileReading {
    const { goodLines, badLines, badCount, efficiencyDiffers } = this;
    const { base } = this.clock;
    const clock = base === null || Number.isNaN(this.lastTime) ? null : { base, last: this.lastTime };
    return { points: filePoints(this.sums, this.context), goodLines, badLines, badCount, efficiencyDiffers, clock };
  }
}

/** Read a whole meter file at once. See {@link MeterFileReader}. */
export function readMeterFile(text: string, plan: FilePlan, context: FileContext): FileReading {
  const reader = new MeterFileReader(plan, context);
  for (const slice of slicesOf(text)) {
    reader.add(slice);
    if (reader.hopeless) break;
  }
  return reader.result();
}
