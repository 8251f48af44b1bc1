// Times as programs write them: seconds, clock times, dates, counts since 1970.

/** How a time column is written. */
export type TimeForm = 'number' | 'clock' | 'date' | 'unit';

const CLOCK = /^(?:(\d+)[d\s]\s*)?(\d{1,4}):(\d{1,2}(?:[.,]\d+(?!:))?)(?::(\d{1,2}(?:[.,]\d+)?))?\s*([AaPp][Mm])?$/;
const DATE =
  /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T\s,]+(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?)?\s*(Z|[+-]\d{2}:?\d{2})?$/;
const DAY_FIRST = /^(\d{1,2})[./](\d{1,2})[./](\d{4})[T\s,]+(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?$/;
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

const decimal = (text: string | undefined): number => Number((text ?? '0').replace(',', '.'));

/** `hh:mm:ss`, `mm:ss.f` where `short` says that two parts are minutes and seconds; NaN for anything else. */
function clockSeconds(text: string, short: boolean): number {
  const found = CLOCK.exec(text);
  if (!found) return Number.NaN;
  const [, days, first = '0', second = '0', third, half] = found;
  if (third === undefined)
    return short ? Number(first) * 60 + decimal(second) : Number(first) * HOUR + Number(second) * 60;
  const hour = half ? (Number(first) % 12) + (/^p/i.test(half) ? 12 : 0) : Number(first);
  return Number(days ?? 0) * DAY + hour * HOUR + Number(second) * 60 + decimal(third);
}

function dateSeconds(text: string): number {
  const iso = DATE.exec(text);
  const other = iso ? null : DAY_FIRST.exec(text);
  const parts = iso ?? (other && [other[0], other[3], other[2], other[1], other[4], other[5], other[6], undefined]);
  if (!parts) return Number.NaN;
  const [, year, month, day, hour = '0', minute = '0', second, zone] = parts;
  const days = Date.UTC(Number(year), Number(month) - 1, Number(day)) / 1000;
  // A clock without a zone is taken as it stands: only differences count.
  const shift =
    zone && zone !== 'Z'
      ? (zone.startsWith('-') ? -1 : 1) * (Number(zone.slice(1, 3)) * HOUR + Number(zone.slice(-2)) * 60)
      : 0;
  return days + Number(hour) * HOUR + Number(minute) * 60 + decimal(second) - shift;
}

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
