// A trace read from a file of text as a stream: bytes in, columns out, never the whole text in memory.
import { monthFirstSeconds, secondsOf, type TimeForm } from '../meter-file/index.ts';
import { isOverload, ownUnit } from '../meter-file/own-unit.ts';
import { decodeText } from '../table/index.ts';
import { GrowingColumn } from './column.ts';
import { type Head, type HeadColumn, isShortClock, readHead } from './head.ts';
import { assumedSays } from './names.ts';
import { Pace } from './pace.ts';
import { numberAt, textOf } from './row.ts';
import { cellsOf } from './table.ts';
import type { Channel, TraceHints, TraceReading } from './types.ts';

/** So much is looked at before anything is read, bytes. */
const HEAD_BYTES = 65_536;
const LONGEST_LINE = 100_000;
const LF = 10;
const CR = 13;
const DAY = 86_400;
/** From one sample to the next, s: weeks are no pause, an hour may be one. */
const LEAP = 20 * DAY;
const GOES_ON = 3600;
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
  #time: { readonly at: number; readonly column: HeadColumn; readonly short: boolean } | null = null;
  #pace = new Pace();
  #dayShift = 0;
  #lastTime = Number.NaN;
  #lastText = '';
  #monthFirst = false;
  #rows = 0;
  #outOfRange = 0;
  #gaps = 0;
  #cut: string | null = null;
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
      this.#time = {
        at: place,
        column,
        short: column.form === 'clock' && isShortClock(cells.filter((cell) => cell !== '')),
      };
    }
    this.#wanted = head.columns.flatMap((one, at) =>
      one.role === 'value' ? [{ at, column: one, values: new GrowingColumn(expected) }] : [],
    );
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
    if (first === 35 || (first !== undefined && first > 57 && head.above.has(textOf(bytes, rowFrom, rowTo)))) return;
    if (bounds.length - 2 < this.#lastWanted()) {
      const text = textOf(bytes, rowFrom, rowTo);
      if (text.trim() === '' || head.above.has(text)) return;
      this.#cut = `Line ${this.#line} has ${(bounds.length - 1).toString()} of ${head.columns.length} columns: "${shown(text)}".`;
      this.#fail(this.#cut);
      return;
    }
    if (this.#time && !this.#clock(bytes, bounds, decimal)) return;
    for (const { at, column, values } of this.#wanted) {
      const from = bounds[at] as number;
      const to = (bounds[at + 1] as number) - 1;
      let value = numberAt(bytes, from, to, decimal);
      if (Number.isNaN(value)) value = this.#cell(textOf(bytes, from, to).trim(), column);
      else if (value > BEYOND || value < -BEYOND) {
        this.#outOfRange += 1;
        value = Number.NaN;
      } else value = value * column.factor + column.offset;
      values.push(value);
    }
    this.#rows += 1;
  }

  #lastWanted(): number {
    return Math.max(this.#time?.at ?? 0, this.#wanted.at(-1)?.at ?? 0);
  }

  /** A cell that is no plain number. */
  #cell(text: string, column: HeadColumn): number {
    const cell = text.replace(/^"(.*)"$/s, '$1').trim();
    if (isOverload(cell)) {
      this.#outOfRange += 1;
      return Number.NaN;
    }
    if (/^(?:|nan|n\/a|null|none|-+)$/i.test(cell)) {
      this.#gaps += 1;
      return Number.NaN;
    }
    const comma = (this.#head as Head).comma;
    const quantity = column.quantity === 'level' ? null : (column.quantity ?? 'voltage');
    const own = quantity === null ? Number.NaN : ownUnit(cell, comma, quantity);
    if (!Number.isNaN(own)) {
      // `ownUnit` gives SI; energy is kept in Wh, temperatures in °C.
      if (quantity === 'energy') return own / 3600;
      return own;
    }
    const percent = /^([+-]?[\d.,]+)\s*%$/.exec(cell)?.[1];
    const celsius = /^([+-]?[\d.,]+)\s*(?:°|deg ?)?\s*C$/i.exec(cell)?.[1];
    if (percent !== undefined) return Number(percent.replace(',', '.')) / 100;
    if (celsius !== undefined) return Number(celsius.replace(',', '.'));
    this.#fail(`"${shown(cell)}" under "${column.name}" is no number. Correct it, or cut the file there.`);
    return Number.NaN;
  }

  /** The time of a row. @returns false where the row does not count */
  #clock(bytes: Uint8Array, bounds: Bounds, decimal: number): boolean {
    const { at, column, short } = this.#time as { at: number; column: HeadColumn; short: boolean };
    const from = bounds[at] as number;
    const to = (bounds[at + 1] as number) - 1;
    let time = Number.NaN;
    if (column.form === 'number') time = numberAt(bytes, from, to, decimal) * column.factor;
    else time = this.#written(textOf(bytes, from, to).replaceAll('"', ''), column.form, short);
    if (Number.isNaN(time)) {
      const cell = textOf(bytes, from, to).trim();
      this.#fail(`"${shown(cell)}" is no time. Correct it, or cut the file there.`);
      return false;
    }
    if (column.form === 'clock' && !short && this.#lastTime - time > DAY / 2) {
      // Past midnight.
      this.#dayShift += DAY;
      time += DAY;
    }
    if (!this.#pace.push(time)) {
      this.#fail('Its time is before that of the line above. Two recordings in one file? Cut it in two.');
      return false;
    }
    this.#lastTime = time;
    return true;
  }

  /** A time that is no plain number. A date leaping ahead by weeks, which with its month first goes on, has its month first. */
  #written(text: string, form: TimeForm, short: boolean): number {
    if (form !== 'date') return secondsOf(text, form, short) + this.#dayShift;
    let time = this.#monthFirst ? monthFirstSeconds(text) + this.#dayShift : secondsOf(text, form, short);
    if (!this.#monthFirst && time - this.#lastTime > LEAP) {
      const [before, now] = [monthFirstSeconds(this.#lastText), monthFirstSeconds(text)];
      if (now >= before && now - before < GOES_ON) {
        this.#monthFirst = true;
        this.#dayShift = this.#lastTime - before;
        time = now + this.#dayShift;
      }
    }
    this.#lastText = text;
    return time;
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
      ...(this.#cut ? [`The last line was cut off and left out. ${this.#cut}`] : []),
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
    const before = this.#rows;
    this.#take(rest, 0, rest.length);
    if (this.#problem && this.#cut && this.#rows === before && before > 0) this.#problem = null;
    else this.#cut = null;
  }
}

const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;

const USUAL = { voltage: 'V', current: 'A', power: 'W', temperature: '°C', energy: 'Wh', level: '%' } as const;

/** Which units were assumed where none is stated: a file may mean others. */
function assumedUnits(columns: Head['columns']): string[] {
  const assumed = columns.flatMap(({ name, role, form, unit, quantity, bare }): (readonly [string, string])[] => {
    if (unit !== '' || !bare) return [];
    if (role === 'time') return form === 'number' ? [[name, 's']] : [];
    return role === 'value' && quantity !== null ? [[name, USUAL[quantity]]] : [];
  });
  return assumedSays(assumed);
}

type Bounds = readonly number[] | Int32Array;
interface Row {
  readonly bytes: Uint8Array;
  /** Where each cell begins; the last entry is one beyond the end. */
  readonly bounds: Bounds;
}

const scratch: number[] = [];
/** Where the cells of a line begin. The list is one and the same for every line. */
function split(bytes: Uint8Array, from: number, to: number, delimiter: number, most: number): Bounds {
  scratch.length = 0;
  scratch.push(from);
  for (let at = from; at < to && scratch.length < most; at += 1) if (bytes[at] === delimiter) scratch.push(at + 1);
  if (scratch.length < most) scratch.push(to + 1);
  else {
    const end = bytes.indexOf(delimiter, scratch[scratch.length - 1]);
    scratch.push((end >= 0 && end < to ? end : to) + 1);
  }
  return scratch;
}

/** A line whose cells are parted by runs of blanks, as one parted by single ones. */
function spaced(bytes: Uint8Array, from: number, to: number): Row {
  const text = new TextEncoder().encode(textOf(bytes, from, to).trim().replace(/\s+/g, ' '));
  return { bytes: text, bounds: split(text, 0, text.length, 32, Number.MAX_SAFE_INTEGER) };
}

function joined(pieces: readonly Uint8Array[], length: number): Uint8Array {
  const all = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
}

/** UTF-16, by its mark or by its zeros. */
function wideOf(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  if (bytes.length > 3 && bytes[1] === 0 && bytes[3] === 0 && bytes[0] !== 0) return 'utf-16le';
  return bytes.length > 3 && bytes[0] === 0 && bytes[2] === 0 && bytes[1] !== 0 ? 'utf-16be' : null;
}

/** Read a trace that is in memory. */
export function readTrace(content: Uint8Array | string, hints: TraceHints = {}): TraceReading {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const reader = new TraceReader({ bytes: bytes.length, ...hints });
  for (let from = 0; from < bytes.length && !reader.failed; from += 1 << 20)
    reader.push(bytes.subarray(from, from + (1 << 20)));
  return reader.result();
}
