// Which ports a printed line is about: one, several each, several together, and which of them share.
import type { Token } from './label-tokens.ts';

export interface Head {
  /** Ports in the order printed; those in one group share what is promised. */
  readonly groups: readonly (readonly string[])[];
  /** What follows holds for each of them by itself. */
  readonly each: boolean;
  readonly body: readonly Token[];
}

export interface Heads {
  /** What stands before the first port. */
  readonly before: readonly Token[];
  readonly entries: readonly Head[];
  /** Several heads joined by a plus: one combination. */
  readonly joined: boolean;
}

const isSign = (token: Token | undefined, ...signs: readonly string[]): boolean =>
  token?.kind === 'sign' && signs.includes(token.sign);
const isWord = (token: Token | undefined, ...words: readonly string[]): boolean =>
  token?.kind === 'word' && words.includes(token.word);
const isPlus = (token: Token | undefined): boolean => isSign(token, '+', '&') || isWord(token, 'and');
const isOr = (token: Token | undefined): boolean => isSign(token, '/', '|') || isWord(token, 'or');

/** Words by which one power is that of all its ports at once. */
const TOGETHER = ['together', 'combined', 'shared', 'share', 'total', 'sum', 'overall'] as const;

/** The ports between two of one name and a number: C1–C4. */
function between(from: string, to: string): readonly string[] | null {
  const [, name = '', first = ''] = /^(.*?)(\d+)$/.exec(from) ?? [];
  const [, other = '', last = ''] = /^(.*?)(\d+)$/.exec(to) ?? [];
  if (name === '' || name !== other || !(Number(first) < Number(last)) || Number(last) - Number(first) > 12)
    return null;
  return Array.from({ length: Number(last) - Number(first) + 1 }, (_, index) => `${name}${Number(first) + index}`);
}

interface Read extends Head {
  readonly end: number;
  /** A comma kept its ports apart: together where each is given its power, else each by itself. */
  readonly listed: boolean;
}

/** The head that begins at a port or an opening bracket before one. */
function headAt(tokens: readonly Token[], start: number): Read | { readonly reason: string } {
  const groups: string[][] = [];
  let open: string[] | null = null;
  let at = start;
  let plus = false;
  let or = false;
  let comma = false;
  for (;;) {
    const token = tokens[at];
    if (isSign(token, '(', '[') && tokens[at + 1]?.kind === 'port' && !open) {
      open = [];
      at += 1;
      continue;
    }
    if (token?.kind !== 'port') break;
    if (open) open.push(token.port);
    else groups.push([token.port]);
    at += 1;
    const dash = tokens[at];
    const last = tokens[at + 1];
    if ((isSign(dash, '-', '–', '~', '…') || isWord(dash, 'to')) && last?.kind === 'port') {
      const span = between(token.port, last.port);
      if (!span) return { reason: `${token.port} to ${last.port}: name the ports one by one.` };
      groups.pop();
      groups.push(...span.map((port) => [port]));
      or = true;
      at += 2;
    }
    if (open && isSign(tokens[at], ')', ']')) {
      groups.push(open);
      open = null;
      at += 1;
    }
    const next = tokens[at];
    const follows =
      tokens[at + 1]?.kind === 'port' || (isSign(tokens[at + 1], '(', '[') && tokens[at + 2]?.kind === 'port');
    if (!follows) break;
    if (isPlus(next)) plus = plus || !open;
    else if (isOr(next)) or = true;
    else if (isSign(next, ',')) comma = true;
    else break;
    at += 1;
  }
  if (open) groups.push(open);
  if (plus && or)
    return { reason: 'It names ports with + and with /: put those that share in brackets, such as C1 + (C2 + C3).' };
  const several = groups.length > 1 || (groups[0]?.length ?? 0) > 1;
  return { groups, each: !plus && (!several || or || comma), body: [], end: at, listed: comma && !or };
}

/** Find the ports of a line and what is said of each. */
export function headsOf(tokens: readonly Token[]): Heads | { readonly reason: string } {
  const which = tokens.find((token) => token.kind === 'which');
  if (which) return { reason: `${which.text} may be ${which.ports.join(' or ')}: name the port.` };
  const first = tokens.findIndex(({ kind }) => kind === 'port');
  if (first < 0) return { before: tokens, entries: [], joined: false };
  const starts = isSign(tokens[first - 1], '(', '[') ? first - 1 : first;
  const entries: Head[] = [];
  const joins: boolean[] = [];
  let at = starts;
  while (at < tokens.length) {
    const head = headAt(tokens, at);
    if ('reason' in head) return head;
    let end = head.end;
    while (end < tokens.length && tokens[end]?.kind !== 'port') end += 1;
    // A bracket before the next port belongs to that port.
    if (end < tokens.length && isSign(tokens[end - 1], '(', '[')) end -= 1;
    const body = tokens.slice(head.end, end);
    const powers = body.filter((token) => token.kind === 'amount' && token.quantity === 'power').length;
    const levels =
      body.some(({ kind }) => kind === 'levels' || kind === 'range') ||
      body.some((token) => token.kind === 'amount' && token.quantity === 'voltage');
    const summed = powers === 1 && !levels && body.some((token) => isWord(token, ...TOGETHER));
    const several = head.groups.length > 1;
    const together = several && (summed || (head.listed && powers === head.groups.length));
    entries.push({ groups: head.groups, each: head.each && !together, body });
    if (end < tokens.length) joins.push(isPlus(body.at(-1)));
    at = end;
  }
  const joined = joins.length > 0 && joins.every(Boolean);
  if (joins.some(Boolean) && !joined)
    return { reason: 'Some of its ports are joined by + and some are not: enter them as lines of their own.' };
  return { before: tokens.slice(0, starts), entries, joined };
}
