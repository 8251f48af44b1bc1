// Heads of a table of copies: what each column holds, and in which unit.
import { findUnit } from '../quantity/index.ts';
import { type HeadUnit, headUnit } from '../table/index.ts';
import { rateFactor, sizeFactor } from './typed.ts';

export type Role =
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
  // When it was done is not how long it took.
  ['none', /start|began|begun|stamp|date|clock|when\b|finished|stopped|until|\bend(?:ed)?\b|^end_|^#|^n[or]\b/],
  ['hostLink', /(host|better|best|reference).*link|link.*(host|better|best|reference)/],
  ['link', /link|negotiated/],
  ['errors', /error|fail|mismatch|differ|corrupt/],
  ['rate', /rate|speed|throughput|bandwidth|(?:^|[^a-z])[kmgt]?i?(?:b|bits?|bytes?)(?:\/s|ps)/],
  ['size', /size|bytes|volume|amount|^[kmgt]?i?b$/],
  ['direction', /direction|way\b|read.?write|operation/],
  ['time', /duration|took|elapsed/],
  ['time', /time|second|^t(?:[^a-z]|$)|^(?:m?s|secs?|min|mins|minutes|h|hours)$|\[s\]|\(s\)/],
  ['host', /host|computer|machine|drive|laptop/],
  ['mix', /file|mix|what|content|name/],
  ['note', /note|remark|comment/],
];

/** How times are written, not in what. */
const CLOCK = /^(?:h+:)?m+(?:in)?:s+(?:ec)?(?:[.,]\w+)?$/i;
/** What looks like a unit at the end of a name. */
const LIKE_TIME = /^(?:ns|nanoseconds?|ticks?|d|days?)$/i;
const LIKE_DATA = /^[kmgt]i?(?:b|bits?|bytes?)?(?:\/s(?:ec)?|ps)?$/i;

const KNOWN: Readonly<Partial<Record<Role, (unit: string) => boolean>>> = {
  size: (unit) => sizeFactor(unit) !== null,
  rate: (unit) => rateFactor(unit) !== null,
  link: (unit) => rateFactor(unit) !== null,
  hostLink: (unit) => rateFactor(unit) !== null,
  time: (unit) => findUnit('duration', unit) !== undefined || CLOCK.test(unit),
};

export interface Column extends HeadUnit {
  readonly head: string;
  readonly role: Role;
  /** How sure its name is of that, the less the surer. */
  readonly rank: number;
}

function unitIn(head: string, role: Role): HeadUnit {
  const known = KNOWN[role];
  if (!known) return { unit: null, strange: null };
  const found = headUnit(head, known, role === 'time' ? LIKE_TIME : LIKE_DATA);
  return found.unit !== null && CLOCK.test(found.unit) ? { unit: null, strange: null } : found;
}

/** What a column is by its head. @example columnOf('size_GB') // { role: 'size', unit: 'GB', … } */
export function columnOf(head: string): Column {
  const rank = ROLES.findIndex(([, pattern]) => pattern.test(head.trim().toLowerCase()));
  const role = ROLES[rank]?.[0] ?? 'none';
  return { head: head.trim(), role, rank, ...unitIn(head, role) };
}
