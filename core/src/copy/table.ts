// Copies from a table as people keep them: a line a copy, heads in their own words.
import { type CopyRun, DIRECTIONS } from '../cable/index.ts';
import { textRows } from '../table/index.ts';
import { assumedSays } from '../trace/index.ts';
import { type Column, columnOf, type Role } from './heads.ts';
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
  | {
      readonly ok: true;
      readonly copies: readonly CopyLine[];
      /** What is taken for granted where no unit is stated, in a sentence. */
      readonly assumed: readonly string[];
    }
  | { readonly ok: false; readonly line: number; readonly reason: string };

const HOST = /^(?:host|computer|laptop|notebook|desktop|pc|machine)\b/i;
const TO = /^(?:to|w|wr|write|writing|written|up|upload|send|sent|out)\b/i;
const FROM = /^(?:from|r|rd|read|reading|down|download|receive|received|back|in)\b/i;

const VERB =
  /^(?:wr|write|writing|written|upload|send|sent|rd|read|reading|download|receive|received|copy|copied|copying)$/i;

/** Undefined where it cannot be told, as for names of two things that say not which is the device. */
function directionOf(cell: string): CopyRun['direction'] | null | undefined {
  if (cell === '') return null;
  const [to, from] = DIRECTIONS;
  const [, source, target] =
    /^(?:from\s+)?(?:the\s+|my\s+)?(\S.*?)\s*(?:\bto\b|->|→)\s*(?:the\s+|my\s+)?(.+)$/i.exec(cell) ?? [];
  if (source !== undefined && target !== undefined) {
    // "write to the stick" names one end, "phone to laptop" both.
    const host = HOST.test(target);
    if (VERB.test(source)) return host ? from : FROM.test(source) ? undefined : to;
    return HOST.test(source) === host ? undefined : host ? from : to;
  }
  const [, word = '', what = ''] = /^(to|from)\s+(?:the\s+|my\s+)?(.+)$/i.exec(cell) ?? [];
  if (word !== '') return (word.toLowerCase() === 'to') === HOST.test(what) ? from : to;
  return TO.test(cell) ? to : FROM.test(cell) ? from : undefined;
}

/** NaN for a cell that is no whole number. */
const countOf = (cell: string): number =>
  cell === '' || /^(no|none|-|–)$/i.test(cell) ? 0 : /^\d+$/.test(cell) ? Number(cell) : Number.NaN;

/** What a number without a unit is taken in. */
const USUAL = { size: 'GB', time: 's', rate: 'MB/s' } as const;
type Measured = keyof typeof USUAL;
const READ = { size: typedBytes, time: typedSeconds, rate: typedRate } as const;
/** A larger number without a unit is hardly in gigabytes. */
const MOST_BARE = 1e5;
const BARE = /^[\d.,'\s]+$/;

const RATES = 'MB/s or Mbit/s';
const WRITE: Readonly<Partial<Record<Role, string>>> = {
  size: 'GB, MB, GiB or B',
  time: 's, min or h',
  rate: RATES,
  link: RATES,
  hostLink: RATES,
};

/** The column that tells something, by its surest name; undefined where none does. */
const surest = (columns: readonly Column[], role: Role): Column | undefined =>
  columns.filter((one) => one.role === role).sort((a, b) => a.rank - b.rank)[0];

/** Why a table with such heads cannot be read; null if it can. */
function wrongHeads(columns: readonly Column[]): string | null {
  const strange = columns.find((column) => column.strange !== null);
  if (strange)
    return `“${strange.head}”: ${strange.strange} is no unit it can be in. Write ${WRITE[strange.role] ?? ''}.`;
  for (const role of Object.keys(USUAL) as Measured[]) {
    const first = surest(columns, role);
    const second = columns.find((one) => one !== first && one.role === role && one.rank === first?.rank);
    if (first && second)
      return `“${first.head}” and “${second.head}” both tell a ${role}. A line is one copy, in one direction.`;
  }
  const has = (role: Role) => columns.some((column) => column.role === role);
  const lacks = has('size') ? (has('time') || has('rate') ? null : 'time, nor a rate') : 'size';
  return lacks && `the heads name no ${lacks}. Call the columns files, direction, size_GB and time_s.`;
}

/**
 * Read copies from a table with heads. Needed are a size, and a time or a rate; any delimiter, units in the heads or the
 * cells, lines that begin with # left out. A number without a unit is taken in GB, s or MB/s, and that is said.
 * @returns the copies, or the first line that cannot be read and why
 * @example readCopies('size_GB,time_s\n8,204').copies[0].seconds // 204
 */
export function readCopies(text: string): CopyTable {
  const { rows: all, delimiter } = textRows(text);
  const [first, ...rows] = all;
  if (!first) return { ok: false, line: 1, reason: 'nothing in it.' };
  // Between commas a comma in a number parts its thousands.
  const plain = (typed: string) =>
    delimiter === ',' && /^\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(typed) ? typed.replaceAll(',', '') : typed;
  const columns = first.cells.map(columnOf);
  const reason = wrongHeads(columns);
  if (reason !== null) return { ok: false, line: first.line, reason };
  const places = new Map(columns.map(({ role }) => [role, columns.indexOf(surest(columns, role) as Column)]));
  const of = (role: Role): Column | undefined => columns[places.get(role) ?? -1];
  const assumed = new Map<Measured, string>();
  const copies: CopyLine[] = [];
  for (const { cells, line } of rows) {
    const cell = (role: Role): string => plain(cells[places.get(role) ?? -1] ?? '');
    const wrong = (what: string, typed: string) =>
      ({ ok: false, line, reason: typed === '' ? `its ${what} is missing.` : `“${typed}” is no ${what}.` }) as const;
    const measured = (role: Measured): number => {
      const column = of(role);
      const typed = cell(role);
      if (column?.unit == null && BARE.test(typed)) assumed.set(role, column?.head ?? role);
      return READ[role](typed, column?.unit ?? USUAL[role]);
    };
    const bytes = measured('size');
    if (!(bytes >= 1)) return wrong('size', cell('size'));
    if (assumed.has('size') && bytes > MOST_BARE * 1e9)
      return { ok: false, line, reason: `“${cell('size')}” of what? Call the column size_B, or size_GB.` };
    const timed = cell('time') !== '';
    const seconds = timed ? measured('time') : (bytes * 8) / measured('rate');
    if (!(seconds > 0)) return timed || !of('rate') ? wrong('time', cell('time')) : wrong('rate', cell('rate'));
    const direction = directionOf(cell('direction'));
    if (direction === undefined) return wrong('direction: to the device, or from the device', cell('direction'));
    const linkIn = (role: 'link' | 'hostLink') =>
      cell(role) === '' ? null : typedRate(cell(role), of(role)?.unit ?? '');
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
  if (copies.length === 0) return { ok: false, line: first.line, reason: 'no copy in it.' };
  return { ok: true, copies, assumed: assumedSays([...assumed].map(([role, head]) => [head, USUAL[role]])) };
}
