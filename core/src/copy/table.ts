// Copies from a table as people keep them: a line a copy, heads in their own words.
import { type CopyRun, DIRECTIONS } from '../cable/index.ts';
import { textRows } from '../table/index.ts';
import { typedBytes, typedRate, typedSeconds } from './typed.ts';

/** A copy of a table; null where it does not say. */
export interface CopyLine {
  readonly mix: string | null;
  readonly direction: CopyRun['direction'] | null;
  readonly bytes: number;
  readonly seconds: number;
  readonly host: string | null;
  /** bit/s */
  readonly link: number | null;
  readonly hostLink: number | null;
  readonly errors: number;
  readonly fellBack: boolean;
  readonly note: string;
}

export type CopyTable =
  | { readonly ok: true; readonly copies: readonly CopyLine[] }
  | { readonly ok: false; readonly line: number; readonly reason: string };

type Role =
  | 'mix'
  | 'direction'
  | 'size'
  | 'time'
  | 'rate'
  | 'host'
  | 'link'
  | 'hostLink'
  | 'errors'
  | 'fellBack'
  | 'note'
  | 'none';

/** Names people give their columns, the surest first. */
const ROLES: readonly (readonly [Role, RegExp])[] = [
  ['fellBack', /fell|fall.?back|slowed/],
  ['hostLink', /(host|better|best|reference).*link|link.*(host|better|best|reference)/],
  ['link', /link|negotiated/],
  ['errors', /error|fail|mismatch|differ|corrupt/],
  ['rate', /rate|speed|throughput|\bmi?b\/s|\bmi?bps|\bgbit/],
  ['size', /size|bytes|volume|amount|^[kmgt]i?b$/],
  ['direction', /direction|way\b|read.?write|operation/],
  ['time', /time|second|duration|took|elapsed|^t$|^s$|\[s\]|\(s\)/],
  ['host', /host|computer|machine|drive|laptop/],
  ['mix', /file|mix|what|content|name/],
  ['note', /note|remark|comment/],
];

const roleOf = (head: string): Role =>
  ROLES.find(([, pattern]) => pattern.test(head.trim().toLowerCase()))?.[0] ?? 'none';

/** The unit a head names, as `size_GB`, `Time (s)`, `rate [MB/s]`. */
const unitOf = (head: string): string | undefined => {
  const words = head.split(/[\s_,;()[\]]+/).filter((word) => word !== '');
  return words.length > 1 ? words.at(-1) : undefined;
};

const TO = /^(to\b|write|written|up|send|sent|out)/i;
const FROM = /^(from\b|read|down|receive|back|in\b)/i;
const directionOf = (cell: string): CopyRun['direction'] | null | undefined =>
  cell === '' ? null : TO.test(cell) ? DIRECTIONS[0] : FROM.test(cell) ? DIRECTIONS[1] : undefined;

const orUsual = (value: number, read: (unit?: string) => number, unit: string | undefined): number =>
  // A head may end in a word that is no unit.
  unit !== undefined && Number.isNaN(value) ? read() : value;

/** NaN for a cell that is no whole number. */
const countOf = (cell: string): number =>
  cell === '' || /^(no|none|-|–)$/i.test(cell) ? 0 : /^\d+$/.test(cell) ? Number(cell) : Number.NaN;

/**
 * Read copies from a table with heads. Needed are a size, and a time or a rate; any delimiter, units in the heads or the
 * cells, lines that begin with # left out.
 * @returns the copies, or the first line that cannot be read and why
 * @example readCopies('size_GB,time_s\n8,204').copies[0].seconds // 204
 */
export function readCopies(text: string): CopyTable {
  const { rows: all, delimiter } = textRows(text);
  const [first, ...rows] = all;
  // Between commas a comma in a number parts its thousands.
  const plain = (typed: string) =>
    delimiter === ',' && /^\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(typed) ? typed.replaceAll(',', '') : typed;
  const heads = first?.cells;
  if (!first || !heads) return { ok: false, line: 1, reason: 'nothing in it.' };
  const columns = heads.map((head) => ({ role: roleOf(head), unit: unitOf(head) }));
  const at = (role: Role) => columns.findIndex((column) => column.role === role);
  if (at('size') < 0 || (at('time') < 0 && at('rate') < 0))
    return {
      ok: false,
      line: first.line,
      reason: `the heads name no ${at('size') < 0 ? 'size' : 'time, nor a rate'}. Call the columns files, direction, size_GB and time_s.`,
    };
  const copies: CopyLine[] = [];
  for (const { cells, line } of rows) {
    const cell = (role: Role): string => plain(cells[at(role)] ?? '');
    const wrong = (what: string, typed: string) =>
      ({ ok: false, line, reason: typed === '' ? `its ${what} is missing.` : `“${typed}” is no ${what}.` }) as const;
    const sizeUnit = columns[at('size')]?.unit;
    const readSize = (unit?: string) =>
      typedBytes(cell('size'), unit ?? (/bytes/i.test(heads[at('size')] ?? '') ? 'B' : 'GB'));
    const bytes = orUsual(readSize(sizeUnit), readSize, sizeUnit);
    if (!(bytes >= 1)) return wrong('size', cell('size'));
    const rateUnit = columns[at('rate')]?.unit;
    const readRate = (unit = 'MB/s') => typedRate(cell('rate'), unit);
    const rate = orUsual(readRate(rateUnit), readRate, rateUnit);
    const timed = at('time') >= 0 && cell('time') !== '';
    const timeUnit = columns[at('time')]?.unit;
    const readTime = (unit?: string) => typedSeconds(cell('time'), unit);
    const seconds = timed ? orUsual(readTime(timeUnit), readTime, timeUnit) : (bytes * 8) / rate;
    if (!(seconds > 0)) return timed || at('rate') < 0 ? wrong('time', cell('time')) : wrong('rate', cell('rate'));
    const direction = directionOf(cell('direction'));
    if (direction === undefined) return wrong('direction: to the device, or from the device', cell('direction'));
    const linkIn = (role: 'link' | 'hostLink') =>
      cell(role) === '' ? null : typedRate(cell(role), columns[at(role)]?.unit ?? '');
    const [link, hostLink] = [linkIn('link'), linkIn('hostLink')];
    if (Number.isNaN(link)) return wrong('link: write 480 Mbit/s, or 10 Gbit/s', cell('link'));
    if (Number.isNaN(hostLink)) return wrong('link: write 480 Mbit/s, or 10 Gbit/s', cell('hostLink'));
    const errors = countOf(cell('errors'));
    if (Number.isNaN(errors)) return wrong('count of errors', cell('errors'));
    copies.push({
      mix: cell('mix') || null,
      direction,
      bytes,
      seconds,
      host: cell('host') || null,
      link,
      hostLink,
      errors,
      fellBack: /^(yes|y|true|1|x)$/i.test(cell('fellBack')),
      note: cell('note'),
    });
  }
  return copies.length > 0 ? { ok: true, copies } : { ok: false, line: first.line, reason: 'no copy in it.' };
}
