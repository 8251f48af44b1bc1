// Times as programs write them: seconds, clock times, dates, counts since 1970.
import { monthOf } from '../table/index.ts';
import { meterNumber } from './number.ts';

/** How a time column is written. */
export type TimeForm = 'number' | 'clock' | 'date' | 'unit';

/** Milliseconds of some loggers stand behind a further colon: `10:00:02:500`. */
const SECONDS = String.raw`(\d{1,2}(?:[.,]\d+|:\d{3})?)`;
const HALF = String.raw`\s*(?:([AaPp])\.?[Mm]\.?)?`;
const CLOCK = new RegExp(String.raw`^(?:(\d+)[d\s]\s*)?(\d{1,4}):(\d{1,2}(?:[.,]\d+(?!:))?)(?::${SECONDS})?${HALF}$`);
const OF_DAY = String.raw`(?:[T\s,]+(\d{1,2}):(\d{2})(?::${SECONDS})?${HALF})`;
const DATE = new RegExp(String.raw`^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})${OF_DAY}?\s*(Z|[+-]\d{2}:?\d{2})?$`);
/** `02.03.2026`, `3/2/26`. */
const IN_NUMBERS = new RegExp(String.raw`^(\d{1,2})([./-])(\d{1,2})\2(\d{4}|\d{2})${OF_DAY}$`);
/** `02-Mar-2026`. */
const NAMED = new RegExp(String.raw`^(\d{1,2})[-\s./]([A-Za-z]{3})[a-z]*[-\s./](\d{4}|\d{2})${OF_DAY}$`);
/** Seconds by the units times are written in. */
export const TIME_UNITS: Readonly<Record<string, number>> = {
  s: 1,
  sec: 1,
  secs: 1,
  second: 1,
  seconds: 1,
  ms: 1e-3,
  us: 1e-6,
  µs: 1e-6,
  μs: 1e-6,
  ns: 1e-9,
  ps: 1e-12,
  min: 60,
  mins: 60,
  minutes: 60,
  h: 3600,
  hr: 3600,
  hours: 3600,
  d: 86_400,
};
const WITH_UNIT = /^([+-]?[\d.,]+(?:[eE][+-]?\d+)?)\s*([a-zµμ]+)$/;
const HOUR = 3600;
const DAY = 86_400;

const decimal = (text = '0'): number => {
  // Nearly every cell of a long file is plain digits, which are read faster.
  const plain = meterNumber(text, text.includes(','));
  return Number.isNaN(plain) ? Number(text.replace(/[,:]/, '.')) : plain;
};

/** Hours of a day of which a half may be told. */
const hourOf = (hour: string, half: string | undefined): number =>
  half ? (Number(hour) % 12) + (/^p/i.test(half) ? 12 : 0) : Number(hour);

/** `hh:mm:ss`, `mm:ss.f` where `short` says that two parts are minutes and seconds; NaN for anything else. */
function clockSeconds(text: string, short: boolean): number {
  const found = CLOCK.exec(text);
  if (!found) return Number.NaN;
  const [, days, first = '0', second = '0', third, half] = found;
  if (third === undefined)
    return short ? Number(first) * 60 + decimal(second) : Number(first) * HOUR + Number(second) * 60;
  return Number(days ?? 0) * DAY + hourOf(first, half) * HOUR + Number(second) * 60 + decimal(third);
}

/** Year, month and day of a date in numbers, whichever of both comes first: a month is at most 12, and before AM or PM it leads. */
function dayOf(first: string, sign: string, second: string, half: string | undefined, monthFirst: boolean) {
  const leads = Number(second) > 12 || (Number(first) <= 12 && sign === '/' && (half !== undefined || monthFirst));
  return leads ? ([first, second] as const) : ([second, first] as const);
}

/** A clock without a zone is taken as it stands: only differences count. */
function dateSeconds(text: string, monthFirst = false): number {
  const at = (year: string, month: number, day: string, clock: readonly (string | undefined)[]) => {
    const [hour = '0', minute = '0', second, half] = clock;
    const days = Date.UTC(year.length === 2 ? 2000 + Number(year) : Number(year), month - 1, Number(day)) / 1000;
    return days + hourOf(hour, half) * HOUR + Number(minute) * 60 + decimal(second);
  };
  const iso = DATE.exec(text);
  if (iso) {
    const zone = iso[8];
    const shift =
      zone && zone !== 'Z'
        ? (zone.startsWith('-') ? -1 : 1) * (Number(zone.slice(1, 3)) * HOUR + Number(zone.slice(-2)) * 60)
        : 0;
    return at(iso[1] ?? '', Number(iso[2]), iso[3] ?? '', iso.slice(4, 8)) - shift;
  }
  const numbers = IN_NUMBERS.exec(text);
  if (numbers) {
    const [, first = '', sign = '', second = '', year = '', ...clock] = numbers;
    const [month, day] = dayOf(first, sign, second, clock[3], monthFirst);
    return at(year, Number(month), day, clock);
  }
  const [, day = '', name = '', year = '', ...clock] = NAMED.exec(text) ?? [];
  const month = monthOf(name);
  return month > 0 ? at(year, month, day, clock) : Number.NaN;
}

/**
 * A date in numbers read with its month first, s; NaN for anything else. Of `03/02/2026` alone nobody can tell which it is: a
 * log over midnight tells.
 */
export const monthFirstSeconds = (cell: string): number => dateSeconds(cell.trim(), true);

/** `12 ms` as seconds; NaN for anything else. */
function unitSeconds(text: string): number {
  const [, digits, unit = ''] = WITH_UNIT.exec(text) ?? [];
  return digits === undefined ? Number.NaN : decimal(digits) * (TIME_UNITS[unit] ?? Number.NaN);
}

/** How a cell of a time column is written; null for one that is no time. */
export function timeForm(cell: string): TimeForm | null {
  const text = cell.trim();
  if (text === '') return null;
  if (Number.isFinite(Number(text.replace(',', '.')))) return 'number';
  if (!Number.isNaN(unitSeconds(text))) return 'unit';
  if (!Number.isNaN(clockSeconds(text, false))) return 'clock';
  return Number.isNaN(dateSeconds(text)) ? null : 'date';
}

/**
 * A time as seconds.
 * @param short two parts are minutes and seconds, not hours and minutes
 * @returns NaN for what is no time of this form
 * @example secondsOf('1:02:03.5', 'clock', false) // 3723.5
 */
export function secondsOf(cell: string, form: TimeForm, short: boolean): number {
  const text = cell.trim();
  if (form === 'unit') return unitSeconds(text);
  return form === 'clock' ? clockSeconds(text, short) : form === 'date' ? dateSeconds(text) : decimal(text || 'x');
}
