// A trace read from a file of text as a stream: bytes in, columns out, never the whole text in memory.
import { decodeText } from '../table/index.ts';
import { joined, wideOf } from './bytes.ts';
import { cellTold } from './cell.ts';
import { GrowingColumn } from './column.ts';
import { type Head, type HeadColumn, isShortClock, readHead } from './head.ts';
import { unitWritten } from './names.ts';
import { Pace } from './pace.ts';
import { assumedUnits, counted } from './remarks.ts';
import { type Bounds, hasDigit, isEmpty, numberAt, type Row, spaced, split, textOf } from './row.ts';
import { RowClock } from './row-clock.ts';
import { cellsOf } from './table.ts';
import type { Channel, TraceHints, TraceReading } from './types.ts';

/** So much is looked at before anything is read, bytes. */
const HEAD_BYTES = 65_536;
const LONGEST_LINE = 100_000;
/** Lines behind a table that sum it up; more are a table of their own. */
const MOST_BEHIND = 60;
const LF = 10;
const CR = 13;
const HASH = 35;
const QUOTE = 34;
const ZERO = 48;
const NINE = 57;
const BLANK = 32;
/** Above it nothing is a reading: 9.9E37 is out of range, 9.91E37 no number. SCPI-1999, volume 1, 7.2.1.4 */
const BEYOND = 1e30;

interface Wanted {
  readonly at: number;
  readonly column: HeadColumn;
  readonly values: GrowingColumn;
}

const shown = (text: string): string => (text.length > 60 ? `${text.slice(0, 60)}…` : text);

/** Reads a trace from text. Call {@link push} with pieces in order, then {@link result}. */
export class TraceReader {
  readonly #hints: TraceHints;
  #head: Head | null = null;
  #held: Uint8Array[] = [];
  #heldBytes = 0;
  /** The beginning of a line whose end has not come yet. */
  #rest: Uint8Array = new Uint8Array(0);
  #end = LF;
  #line = 0;
  #wanted: readonly Wanted[] = [];
  #time: { readonly at: number; readonly column: HeadColumn; readonly clock: RowClock } | null = null;
  /** The column of time, or else the one that counts; negative for none. */
  #leadAt = -1;
  /** The last column anything is read from. */
  #lastWanted = 0;
  #pace = new Pace();
  #rows = 0;
  #outOfRange = 0;
  #gaps = 0;
  /** The first line of what is no row of the table, and how many there are: what stands behind it is passed over. */
  #behind: { readonly line: number; readonly reason: string; readonly text: string } | null = null;
  #linesBehind = 0;
  /** Lines of delimiters alone since the last row. */
  #empty = 0;
  #cutOff = false;
  #problem: { readonly line: number | null; readonly reason: string } | null = null;
  #wide: TextDecoder | null = null;

  constructor(hints: TraceHints = {}) {
    this.#hints = hints;
  }

  /** Whether something is wrong already: the rest need not be read. */
  get failed(): boolean {
    return this.#problem !== null;
  }

  push(piece: Uint8Array): void {
    if (this.#problem) return;
    if (this.#head) {
      this.#lines(this.#plain(piece, true));
      return;
    }
    this.#held.push(piece);
    this.#heldBytes += piece.length;
    if (this.#heldBytes >= HEAD_BYTES) this.#begin(true);
  }

  /** UTF-16 as bytes a line can be read from; everything else as it is. */
  #plain(piece: Uint8Array, more: boolean): Uint8Array {
    return this.#wide ? new TextEncoder().encode(this.#wide.decode(piece, { stream: more })) : piece;
  }

  /** The beginning is there: find out how the file is written. */
  #begin(more: boolean): void {
    let all = joined(this.#held, this.#heldBytes);
    this.#held = [];
    const wide = wideOf(all);
    if (wide) {
      this.#wide = new TextDecoder(wide);
      all = this.#plain(all, more);
    } else if (all[0] === 0xef && all[1] === 0xbb && all[2] === 0xbf) all = all.subarray(3);
    const look = all.subarray(0, HEAD_BYTES);
    // No text has a zero byte.
    if (look.includes(0)) {
      this.#problem = {
        line: null,
        reason: 'It is no text. Binary samples need the JSON that describes them: choose both.',
      };
      return;
    }
    this.#end = look.includes(LF) || !look.includes(CR) ? LF : CR;
    const whole = look.length < all.length || more ? look.subarray(0, look.lastIndexOf(this.#end) + 1) : look;
    const text = decodeText(whole.length > 0 ? whole : look);
    const head = readHead(text);
    if ('reason' in head) {
      this.#problem = { line: null, reason: head.reason };
      return;
    }
    this.#start(head, text, whole.length);
    this.#lines(all);
  }

  #start(head: Head, text: string, bytes: number): void {
    const lines = text.split(this.#end === LF ? '\n' : '\r');
    const aLine = bytes / Math.max(1, lines.length - 1);
    const expected = this.#hints.bytes ? Math.ceil((this.#hints.bytes / aLine) * 1.02) : 0;
    this.#head = head;
    const place = head.columns.findIndex(({ role }) => role === 'time');
    const column = head.columns[place];
    if (column) {
      const delimiter = String.fromCharCode(head.delimiter);
      const cells = lines
        .slice(head.firstLine, head.firstLine + 200)
        .map((line) => cellsOf(line, delimiter)[place] ?? '');
      const short = column.form === 'clock' && isShortClock(cells.filter((cell) => cell !== ''));
      this.#time = { at: place, column, clock: new RowClock(column.form, short) };
    }
    this.#leadAt = this.#time?.at ?? head.columns.findIndex(({ role }) => role === 'index');
    this.#wanted = head.columns.flatMap((one, at) =>
      one.role === 'value' ? [{ at, column: one, values: new GrowingColumn(expected) }] : [],
    );
    this.#lastWanted = Math.max(this.#time?.at ?? 0, column?.dayAt ?? 0, this.#wanted.at(-1)?.at ?? 0);
    if (this.#wanted.length === 0) this.#problem = { line: head.firstLine + 1, reason: 'No column holds values.' };
  }

  #lines(piece: Uint8Array): void {
    const all = this.#rest.length > 0 ? joined([this.#rest, piece], this.#rest.length + piece.length) : piece;
    let from = 0;
    for (;;) {
      const end = all.indexOf(this.#end, from);
      if (end < 0) break;
      this.#take(all, from, end);
      if (this.#problem) return;
      from = end + 1;
    }
    this.#rest = all.slice(from);
    if (this.#rest.length > LONGEST_LINE)
      this.#problem = { line: this.#line + 1, reason: `A line of over ${LONGEST_LINE} characters is none of a trace.` };
  }

  #take(bytes: Uint8Array, from: number, lineEnd: number): void {
    const head = this.#head as Head;
    this.#line += 1;
    if (this.#line <= head.firstLine) return;
    const to = lineEnd > from && bytes[lineEnd - 1] === CR ? lineEnd - 1 : lineEnd;
    if (to === from) return;
    if (head.delimiter === 32) this.#row(spaced(bytes, from, to));
    else this.#row({ bytes, bounds: split(bytes, from, to, head.delimiter, head.columns.length) });
  }

  #row({ bytes, bounds }: Row): void {
    const head = this.#head as Head;
    const decimal = head.comma ? 44 : 46;
    const rowFrom = bounds[0] ?? 0;
    const rowTo = (bounds[bounds.length - 1] ?? 1) - 1;
    const first = bytes[rowFrom];
    // A remark, or the head of the table once more.
    if (first === HASH) return;
    if (first !== undefined && (first > NINE || first === QUOTE) && head.above.has(textOf(bytes, rowFrom, rowTo)))
      return;
    // Nearly every row begins with a digit or a sign.
    if (
      (first === head.delimiter || first === QUOTE || first === BLANK) &&
      isEmpty(bytes, rowFrom, rowTo, head.delimiter)
    ) {
      this.#empty += 1;
      return;
    }
    const strange = this.#fits(bytes, bounds) ? null : this.#strange(bytes, bounds);
    if (strange !== null) this.#aside(strange, textOf(bytes, rowFrom, rowTo));
    // What is no row stands behind the last one, or the file is wrong there.
    else if (this.#behind) this.#problem = this.#behind;
    if (strange !== null || this.#problem) return;
    if (this.#empty > 0) this.#missing();
    if (this.#time && !this.#clock(bytes, bounds, decimal)) return;
    for (const { at, column, values } of this.#wanted) {
      const from = bounds[at] as number;
      const to = (bounds[at + 1] as number) - 1;
      let value = numberAt(bytes, from, to, decimal);
      const other = column.unitAt === null ? '' : this.#otherUnit(bytes, bounds, column);
      if (other !== '' && !Number.isNaN(value))
        value = this.#cell(`${textOf(bytes, from, to).trim()} ${other}`, column);
      else if (Number.isNaN(value)) value = this.#cell(textOf(bytes, from, to).trim(), column);
      else if (value > BEYOND || value < -BEYOND) {
        this.#outOfRange += 1;
        value = Number.NaN;
      } else value = value * column.factor + column.offset;
      values.push(value);
    }
    this.#rows += 1;
  }

  /** Lines of delimiters alone between rows: without a time or a number of their own they are samples nothing was told of. */
  #missing(): void {
    for (; this.#empty > 0; this.#empty -= 1) {
      if (this.#leadAt >= 0) continue;
      for (const { values } of this.#wanted) values.push(Number.NaN);
      this.#gaps += this.#wanted.length;
      this.#rows += 1;
    }
  }

  /** Whether a line is plainly a row: as wide as is needed, and its time or number begins with a digit. */
  #fits(bytes: Uint8Array, bounds: Bounds): boolean {
    if (bounds.length - 2 < this.#lastWanted) return false;
    if (this.#leadAt < 0) return true;
    const code = bytes[bounds[this.#leadAt] as number] as number;
    return code >= ZERO && code <= NINE;
  }

  /** Why a line is no row of the table; null where it is one. */
  #strange(bytes: Uint8Array, bounds: Bounds): string | null {
    const head = this.#head as Head;
    if (bounds.length - 2 < this.#lastWanted)
      return `Line ${this.#line} has ${bounds.length - 1} of ${head.columns.length} columns: "${shown(textOf(bytes, bounds[0] ?? 0, (bounds[bounds.length - 1] ?? 1) - 1))}".`;
    const at = this.#leadAt;
    const [from, to] = [bounds[at] ?? 0, (bounds[at + 1] ?? 1) - 1];
    if (at < 0 || hasDigit(bytes, from, to)) return null;
    const cell = shown(textOf(bytes, from, to).trim());
    return `"${cell}" is no ${this.#time ? 'time' : 'number of a row'}. Correct it, or cut the file there.`;
  }

  #aside(reason: string, text: string): void {
    if ((this.#head as Head).above.has(text)) return;
    this.#behind ??= { line: this.#line, reason, text };
    this.#linesBehind += 1;
    if (this.#linesBehind > MOST_BEHIND) this.#problem = this.#behind;
  }

  /** The unit of this row where it is another than the column's; a cell without a number needs none. */
  #otherUnit(bytes: Uint8Array, bounds: Bounds, { unit, unitAt }: HeadColumn): string {
    const [from, end] = [bounds[unitAt ?? 0], bounds[(unitAt ?? 0) + 1]];
    const text =
      from === undefined || end === undefined
        ? ''
        : textOf(bytes, from, end - 1)
            .replaceAll('"', '')
            .trim();
    return unitWritten(text) === unit ? '' : text;
  }

  /** A cell that is no plain number. */
  #cell(text: string, column: HeadColumn): number {
    const cell = text.replace(/^"(.*)"$/s, '$1').trim();
    const told = cellTold(cell, column, (this.#head as Head).comma);
    if (typeof told === 'number') return told;
    if (told === 'beyond') this.#outOfRange += 1;
    else if (told === 'nothing') this.#gaps += 1;
    else this.#fail(`"${shown(cell)}" under "${column.name}" is no number. Correct it, or cut the file there.`);
    return Number.NaN;
  }

  /** The time of a row. @returns false where the row does not count */
  #clock(bytes: Uint8Array, bounds: Bounds, decimal: number): boolean {
    const { at, column, clock } = this.#time as { at: number; column: HeadColumn; clock: RowClock };
    const from = bounds[at] as number;
    const to = (bounds[at + 1] as number) - 1;
    const time =
      column.form === 'number'
        ? numberAt(bytes, from, to, decimal) * column.factor
        : clock.at(this.#said(bytes, bounds, at, column.dayAt));
    if (Number.isNaN(time)) {
      const cell = textOf(bytes, from, to).trim();
      this.#fail(`"${shown(cell)}" is no time. Correct it, or cut the file there.`);
      return false;
    }
    if (!this.#pace.push(time)) {
      this.#fail('Its time is before that of the line above. Two recordings in one file? Cut it in two.');
      return false;
    }
    return true;
  }

  /** What stands in the column of time, behind its day where that is a column of its own. */
  #said(bytes: Uint8Array, bounds: Bounds, at: number, dayAt: number | null): string {
    const text = (index: number) =>
      textOf(bytes, bounds[index] as number, (bounds[index + 1] as number) - 1)
        .replaceAll('"', '')
        .trim();
    return dayAt === null ? text(at) : `${text(dayAt)} ${text(at)}`;
  }

  #fail(reason: string): void {
    this.#problem ??= { line: this.#line, reason };
  }

  /** The trace, or what is wrong, where, and what to do. */
  result(): TraceReading {
    if (!this.#head && !this.#problem) this.#begin(false);
    if (this.#head && !this.#problem && this.#rest.length > 0) this.#tail();
    if (this.#problem) return { ok: false, ...this.#problem };
    const head = this.#head as Head;
    if (this.#rows < 2 && this.#behind) return { ok: false, line: this.#behind.line, reason: this.#behind.reason };
    if (this.#rows < 2) return { ok: false, line: null, reason: 'It has fewer than two samples.' };
    const spacing = this.#time ? this.#pace.result() : null;
    if (this.#time && !spacing) return { ok: false, line: null, reason: 'Its times do not rise.' };
    const stated = this.#hints.rate ? 1 / this.#hints.rate : head.interval;
    if (!spacing && stated === null)
      return {
        ok: false,
        line: null,
        reason: 'It has no column of time and states no sample interval. Say the sample rate.',
      };
    const channels = this.#wanted.map(
      ({ column: { name, quantity, unit }, values }): Channel => ({ name, quantity, unit, values: values.values() }),
    );
    const remarks = [
      ...assumedUnits(head.columns),
      ...(this.#time?.clock.remarks ?? []),
      ...this.#leftOut(),
      ...(this.#outOfRange > 0
        ? [`${counted(this.#outOfRange, 'value is', 'values are')} out of range and no number.`]
        : []),
      ...(this.#gaps > 0 ? [`${counted(this.#gaps, 'cell is', 'cells are')} empty.`] : []),
    ];
    const dated = this.#time?.column.form === 'date' || (spacing?.first ?? 0) > 1e9;
    return {
      ok: true,
      trace: {
        samples: this.#rows,
        interval: spacing?.interval ?? (stated as number),
        times: spacing?.times ?? null,
        began: spacing && dated ? spacing.first : null,
        channels,
        facts: head.facts,
        remarks,
      },
    };
  }

  /** A last line without an end: taken when it is whole, left out when it was cut off. */
  #tail(): void {
    const rest = this.#rest;
    this.#rest = new Uint8Array(0);
    this.#take(rest, 0, rest.length);
    this.#cutOff = this.#behind?.line === this.#line;
  }

  #leftOut(): string[] {
    if (!this.#behind) return [];
    if (this.#cutOff) return [`The last line was cut off and left out. ${this.#behind.reason}`];
    const lines = this.#linesBehind === 1 ? 'a line was' : `${this.#linesBehind} lines were`;
    return [`Behind the table ${lines} left out: "${shown(this.#behind.text)}"${this.#linesBehind === 1 ? '' : ' …'}.`];
  }
}
