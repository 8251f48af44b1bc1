// A charger's allocation table as printed: rows of port sets with watts each, and what cannot be right about it.

import { mostWatts, type SourceObject } from '../pd/index.ts';
import { type Claim, sharePorts } from '../promise/index.ts';
import { formatPlain, parseDecimal } from '../quantity/index.ts';
import { ALL_SETS_TO, allSets } from './sets.ts';
import { setKey, stateKey } from './types.ts';

/** One promised combination. */
export interface PromisedRow {
  readonly claimId: string;
  readonly occupied: readonly string[];
  /** W per port that is promised a power of its own. */
  readonly watts: Readonly<Record<string, number>>;
  /** The shares as printed; several ports in one share it. */
  readonly shares: readonly { readonly ports: readonly string[]; readonly watts: number }[];
  readonly total: number;
}

const W = (value: number): string => formatPlain(value, 'power');

/** The promised combinations of a sample, ports in physical order. */
export function promisedRows(
  ports: readonly string[],
  claims: readonly Pick<Claim, 'id' | 'promise'>[],
): readonly PromisedRow[] {
  return claims.flatMap(({ id, promise }): PromisedRow[] => {
    if (promise.kind !== 'combination') return [];
    const shares = promise.shares.map((share) => ({ ports: sharePorts(share), watts: share.watts }));
    const single = shares.filter((share) => share.ports.length === 1);
    return [
      {
        claimId: id,
        occupied: ports.filter((port) => shares.some((share) => share.ports.includes(port))),
        watts: Object.fromEntries(single.map((share) => [share.ports[0] ?? '', share.watts])),
        shares,
        total: shares.reduce((sum, share) => sum + share.watts, 0),
      },
    ];
  });
}

/** Ports alone, each by the strongest line printed for it: that is a promise of the port alone. */
export function promisedAlone(
  ports: readonly string[],
  claims: readonly Pick<Claim, 'id' | 'promise'>[],
): readonly PromisedRow[] {
  return ports.flatMap((port): PromisedRow[] => {
    const own = claims.flatMap(({ id, promise }) =>
      promise.kind === 'port-line' && promise.port === port ? [{ id, watts: promise.volts * promise.amps }] : [],
    );
    const [first, ...others] = own;
    if (!first) return [];
    const { id, watts } = others.reduce((most, one) => (one.watts > most.watts ? one : most), first);
    return [
      { claimId: id, occupied: [port], watts: { [port]: watts }, shares: [{ ports: [port], watts }], total: watts },
    ];
  });
}

export interface TableFinding {
  /** The set it is about: "C1+C2". */
  readonly set: string;
  readonly says: string;
}

export interface PortAbility {
  readonly label: string;
  readonly offers: readonly SourceObject[];
}

/** Most a port promises or offers alone, W; null when nothing says. */
export function aloneWatts(
  port: string,
  claims: readonly Pick<Claim, 'promise'>[],
  offers: readonly SourceObject[],
): number | null {
  const promised = claims.flatMap(({ promise }) =>
    promise.kind === 'port-line' && promise.port === port ? [promise.volts * promise.amps] : [],
  );
  const alone = claims.flatMap(({ promise }) =>
    promise.kind === 'combination' &&
    promise.shares.length === 1 &&
    promise.shares[0]?.port === port &&
    !promise.shares[0].with
      ? [promise.shares[0].watts]
      : [],
  );
  const all = [...promised, ...alone, ...offers.map((object) => mostWatts(object))];
  return all.length > 0 ? Math.max(...all) : null;
}

/**
 * What a port gives alone, W: what it says itself where it was read out, else what is promised of it. Null when nothing tells.
 * @example givesAlone('C2', claims, []) // 75, as its label says
 */
export const givesAlone = (
  port: string,
  claims: readonly Pick<Claim, 'promise'>[],
  offers: readonly SourceObject[],
): number | null =>
  offers.length > 0 ? Math.max(...offers.map((object) => mostWatts(object))) : aloneWatts(port, claims, []);

/**
 * What is impossible or missing in a promised table: a sum above the total, a port above what it gives alone, a set
 * nobody promises anything for.
 */
export function tableFindings(
  ports: readonly PortAbility[],
  claims: readonly Pick<Claim, 'id' | 'promise'>[],
): readonly TableFinding[] {
  const labels = ports.map(({ label }) => label);
  const rows = promisedRows(labels, claims);
  const total = claims.flatMap(({ promise }) => (promise.kind === 'total' ? [promise.watts] : [])).at(0);
  const findings = rows.flatMap((row): TableFinding[] => {
    const set = setKey(row.occupied);
    const above =
      total !== undefined && row.total > total * 1.001
        ? [`adds up to ${W(row.total)}; ${W(total)} is promised in total.`]
        : [];
    const ports_ = row.occupied.flatMap((port) => {
      const ability = ports.find(({ label }) => label === port);
      const most = aloneWatts(port, claims, ability?.offers ?? []);
      const share = row.watts[port] ?? 0;
      const offers = ability?.offers ?? [];
      const made = offers.length > 0 ? Math.max(...offers.map((object) => mostWatts(object))) : null;
      return [
        ...(most !== null && share > most * 1.01
          ? [`${port} ${W(share)} is above what ${port} gives alone: ${W(most)}.`]
          : []),
        ...(made !== null && share > made * 1.01
          ? [`none of the levels ${port} offers makes ${W(share)}; the most is ${W(made)}.`]
          : []),
      ];
    });
    return [...above, ...ports_].map((says) => ({ set, says }));
  });
  const twice = rows.filter(
    (row, index) => rows.findIndex((other) => stateKey(other.occupied) === stateKey(row.occupied)) !== index,
  );
  const promised = new Set(rows.map(({ occupied }) => stateKey(occupied)));
  const missing =
    rows.length > 0 && labels.length <= ALL_SETS_TO
      ? allSets(labels).filter((set) => set.length > 1 && !promised.has(stateKey(set)))
      : [];
  return [
    ...findings,
    ...twice.map((row) => ({ set: setKey(row.occupied), says: 'is promised twice.' })),
    ...missing.map((set) => ({ set: setKey(set), says: 'is not promised: nothing is said about this set.' })),
  ];
}

export type ParsedTable = { readonly rows: readonly Readonly<Record<string, number>>[] } | { readonly reason: string };

const SHORTHAND = /^any\s+(two|three|four|2|3|4)\s+([a-z]+)\s*(?:ports?)?\s*:?\s*(.+)$/i;
const COUNTS: Readonly<Record<string, number>> = { two: 2, three: 3, four: 4, 2: 2, 3: 3, 4: 4 };

/** Numbers such as "45 W + 45 W" or "45+45". */
function wattsIn(text: string): readonly number[] | null {
  const parts = text.split('+').map((part) => /^\s*(\d+(?:[.,]\d+)?)\s*W?\s*$/i.exec(part)?.[1]);
  return parts.every((part) => part !== undefined) ? parts.map((part) => parseDecimal(part ?? '')) : null;
}

/** Ports joined by plus signs, also where a label holds one itself; null where something else is among them. */
export function portsIn(text: string, ports: readonly string[]): readonly string[] | null {
  const longestFirst = [...ports].sort((a, b) => b.length - a.length);
  const found: string[] = [];
  let rest = text.trim();
  for (;;) {
    const lower = rest.toLowerCase();
    const port = longestFirst.find((one) => {
      const after = rest.slice(one.length).trimStart();
      return lower.startsWith(one.toLowerCase()) && (after === '' || after.startsWith('+'));
    });
    if (port === undefined) return null;
    found.push(port);
    rest = rest.slice(port.length).trim();
    if (rest === '') return found;
    rest = rest.slice(1).trim();
  }
}

/** The port a list names a second time. */
export const twiceIn = (ports: readonly string[]): string | undefined =>
  ports.find((port, index) => ports.indexOf(port) !== index);

/**
 * A row as printed: "C1+C2: 60 W + 45 W", or the shorthand "any two C ports: 45 W + 45 W" for every pair of ports whose
 * label begins with C. In a shorthand with different watts the order is that of the ports.
 */
export function parseTableRow(text: string, ports: readonly string[]): ParsedTable {
  const short = SHORTHAND.exec(text.trim());
  if (short) {
    const [, word = '', letter = '', rest = ''] = short;
    const size = COUNTS[word.toLowerCase()] ?? 2;
    const alike = ports.filter((port) => port.toLowerCase().startsWith(letter.toLowerCase()));
    const watts = wattsIn(rest);
    if (!watts || watts.length !== size)
      return { reason: `Give ${size} powers, such as ${Array(size).fill('45 W').join(' + ')}.` };
    const sets = allSets(alike).filter((set) => set.length === size);
    if (sets.length === 0) return { reason: `There are no ${size} ports whose label begins with ${letter}.` };
    return { rows: sets.map((set) => Object.fromEntries(set.map((port, index) => [port, watts[index] ?? 0]))) };
  }
  const at = text.lastIndexOf(':');
  const left = at < 0 ? text : text.slice(0, at);
  const right = at < 0 ? undefined : text.slice(at + 1);
  const named = portsIn(left, ports);
  const watts = right === undefined ? null : wattsIn(right);
  if (!named) return { reason: `Name ports of this sample: ${ports.join(', ')}.` };
  const twice = twiceIn(named);
  if (twice) return { reason: `${twice} stands there twice: name each port once.` };
  if (!watts || watts.length !== named.length)
    return { reason: `Give each port its watts, such as ${named.join('+')}: ${named.map(() => '30').join('+')}.` };
  return { rows: [Object.fromEntries(named.map((port, index) => [port, watts[index] ?? 0]))] };
}
