// When the lines of a meter file were taken, as far as the file says.
import { secondsOf, TIME_UNITS, type TimeForm, timeForm } from './clock.ts';
import type { Column } from './sniff.ts';

/**
 * What a file's clock counts from: 1970 in universal time, 1970 by the wall clock of its place, or a beginning of its
 * own, of which only differences are known.
 */
export type ClockBase = 'utc' | 'local' | 'own';

const DAY = 86_400;
/** A count beyond it is of seconds since 1970, or of milliseconds: 2001-09-09. */
const EPOCH = 1e9;
const EPOCH_MILLI = 1e12;
/** A calendar before it is that of a meter whose clock was never set: 2010-01-01. */
const NEVER_SET = 1_262_304_000;
const ZONED = /(?:Z|[+-]\d{2}:?\d{2})$/i;
const TWELVE_HOURS = /^(\S*\d{4}\S*)[\s,]+(\d{1,2}:\S+\s*[AaPp][Mm])$/;
const SLASHED = /^(\d{1,2})\/(\d{1,2})\/(\d{4})(?=$|[T\s,])/;

/** Day and month in the order the digits allow; null where both orders do, and nothing says which is meant. */
function slashed(text: string): string | null {
  const [whole = '', first = '', second = '', year = ''] = SLASHED.exec(text) ?? [];
  if (whole === '') return text;
  if (Number(first) <= 12 && Number(second) <= 12 && first !== second) return null;
  const [day, month] = Number(second) > 12 ? [second, first] : [first, second];
  return `${year}-${month}-${day}${text.slice(whole.length)}`;
}

/**
 * Reads the time of each line, in order. A clock that passes midnight goes on; a date whose day and month could be
 * exchanged, or of a clock that was never set, gives differences only.
 */
export class LineClock {
  private readonly time: number;
  private readonly date: number;
  private readonly factor: number;
  private form: TimeForm | null = null;
  private days = 0;
  private last = Number.NaN;
  /** Null until a line had a time. */
  base: ClockBase | null = null;

  constructor(columns: readonly Column[]) {
    this.time = columns.findIndex(({ role }) => role === 'time');
    this.date = columns.findIndex(({ role }) => role === 'date');
    this.factor = TIME_UNITS[columns[this.time]?.unit ?? 's'] ?? 1;
  }

  /** Whether the file has a time at all. */
  get given(): boolean {
    return this.time >= 0;
  }

  /** Seconds of a line from the file's {@link base}; NaN where its cell is no time. */
  at(cells: readonly string[]): number {
    const written = (cells[this.time] ?? '').trim();
    // `3/14/2026 2:05:00 PM`: a clock of twelve hours is a column of its own.
    const halved = written.endsWith('M') || written.endsWith('m');
    const [, before, half] = this.date < 0 && halved ? (TWELVE_HOURS.exec(written) ?? []) : [];
    const cell = half ?? written;
    const day = before ?? (this.date < 0 ? '' : (cells[this.date] ?? '').trim());
    this.form ??= timeForm(cell.replace(SLASHED, '2000-01-01'));
    if (this.form === null) return Number.NaN;
    if (this.form === 'date') return this.dated(cell);
    const value = secondsOf(cell, this.form, false);
    if (this.form === 'clock') return day === '' ? this.clock(value) : this.dated(day, value);
    if (this.form !== 'number') return this.since('own', value);
    const seconds = this.factor === 1 && value > EPOCH_MILLI ? value / 1000 : value * this.factor;
    return this.since(seconds > EPOCH && seconds < EPOCH_MILLI ? 'utc' : 'own', seconds);
  }

  private dated(text: string, clock = 0): number {
    const plain = slashed(text);
    const seconds = secondsOf(plain ?? text.replaceAll('/', '.'), 'date', false);
    const value = (Number.isNaN(seconds) ? secondsOf(`${plain ?? text} 00:00`, 'date', false) : seconds) + clock;
    return this.since(plain === null || value < NEVER_SET ? 'own' : ZONED.test(text) ? 'utc' : 'local', value);
  }

  private clock(value: number): number {
    if (value < this.last - DAY / 2) this.days += 1;
    if (!Number.isNaN(value)) this.last = value;
    return this.since('own', value + this.days * DAY);
  }

  /** One line that is not sure of its day makes the whole file so. */
  private since(base: ClockBase, value: number): number {
    if (!Number.isNaN(value) && this.base !== 'own') this.base = base;
    return value;
  }
}

/**
 * The moment a file's seconds stand for.
 * @param seconds from the file's base
 * @param lastSeconds those of its last line
 * @param end when the file was written last, ISO 8601; a clock of its own is taken to end then
 * @param offsetMinutes of the wall clock it was written by, ahead of universal time
 * @example momentOf(60, 'own', 120, '2026-03-02T09:00:00Z', 0) // 2026-03-02T08:59:00.000Z
 */
export function momentOf(
  seconds: number,
  base: ClockBase,
  lastSeconds: number,
  end: string,
  offsetMinutes: number,
): string {
  const at =
    base === 'own'
      ? Date.parse(end) + (seconds - lastSeconds) * 1000
      : seconds * 1000 - (base === 'local' ? offsetMinutes * 60_000 : 0);
  return new Date(Math.round(at)).toISOString();
}
