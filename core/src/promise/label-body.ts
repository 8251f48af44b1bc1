// What a printed line says of a port: levels, ranges, a power; and of ports together: powers.
import { formatPlain } from '../quantity/index.ts';
import type { RangeSupply } from '../reading/index.ts';
import type { Token } from './label-tokens.ts';
import type { ParsedLine } from './parse.ts';

interface Range {
  readonly supply: RangeSupply;
  readonly low: number;
  readonly high: number;
  readonly amps: number;
}

export interface PortBody {
  readonly lines: readonly { readonly volts: number; readonly amps: number }[];
  readonly ranges: readonly Range[];
  /** W the port is said to give; null where nothing says it besides its levels. */
  readonly watts: number | null;
  readonly unused: readonly Token[];
}

/** A printed power may be rounded by this part of volts × amps. */
const ROUNDED = 0.05;

const SUPPLY_WORDS = /^(pps|apdo|avs|spr|epr)$/;

/** The range a word stands for; an AVS that goes beyond 20 V is an EPR one. */
function supplyOf(words: ReadonlySet<string>, high: number): RangeSupply | null {
  if (words.has('pps') || words.has('apdo')) return 'pps';
  if (!words.has('avs')) return null;
  return words.has('epr') || high > 20 ? 'epr-avs' : 'spr-avs';
}

/** Read what follows one port, or several that are alike. */
export function portBody(tokens: readonly Token[]): PortBody | { readonly reason: string } {
  const lines: { volts: number; amps: number }[] = [];
  const open: { low: number; high: number; amps: number; words: ReadonlySet<string> }[] = [];
  const unused: Token[] = [];
  let words = new Set<string>();
  let levels: number[] = [];
  let range: { low: number; high: number } | null = null;
  let pair: number | null = null;
  let watts: number | null = null;
  const close = (amps: number) => {
    if (range) open.push({ ...range, amps, words });
    range = null;
  };
  for (const token of tokens) {
    if (token.kind === 'word' && SUPPLY_WORDS.test(token.word)) {
      // After a range it names that range; before one it names what follows.
      const last = open.at(-1);
      if (last && last.words.size === 0 && !range) last.words = new Set([token.word]);
      else words = new Set([...(token.word === 'pps' ? [] : words), token.word]);
    } else if (token.kind === 'range') {
      if (!(token.low < token.high)) return { reason: 'a range runs from the lower voltage to the higher one.' };
      range = { low: token.low, high: token.high };
    } else if (token.kind === 'levels') levels = [...levels, ...token.volts];
    else if (token.kind !== 'amount') unused.push(token);
    else if (token.quantity === 'voltage') {
      levels = [...levels, token.value];
      if (!range) words = new Set();
    } else if (token.quantity === 'current' && range) close(token.value);
    else if (token.quantity === 'current' && levels.length > 0) {
      for (const volts of levels) lines.push({ volts, amps: token.value });
      pair = Math.max(...levels) * token.value;
      levels = [];
    } else if (token.quantity === 'power' && range) close(token.value / (range as { high: number }).high);
    else if (token.quantity === 'power' && levels.length > 0) {
      for (const volts of levels) lines.push({ volts, amps: Number((token.value / volts).toFixed(3)) });
      levels = [];
    } else if (token.quantity === 'power' && pair !== null && Math.abs(token.value - pair) <= ROUNDED * pair)
      pair = null;
    else if (token.quantity === 'power' && watts === null) watts = token.value;
    else unused.push(token);
  }
  if (range)
    return {
      reason: `${formatPlain((range as { low: number }).low, 'voltage')}–${formatPlain((range as { high: number }).high, 'voltage')} has no amps.`,
    };
  const [bare] = levels;
  if (bare !== undefined)
    return { reason: `${formatPlain(bare, 'voltage')} has no amps: give them in pairs, such as 20 V 3.25 A.` };
  const ranges: Range[] = [];
  for (const { low, high, amps, words: said } of open) {
    const supply = supplyOf(said, high);
    if (!supply)
      return {
        reason: `${formatPlain(low, 'voltage')}–${formatPlain(high, 'voltage')} is a range: write PPS or AVS before it.`,
      };
    ranges.push({ supply, low, high, amps });
  }
  if (lines.length === 0 && ranges.length === 0 && watts === null)
    return { reason: 'volts and amps are expected in pairs, such as 20 V 3.25 A, or watts.' };
  return { lines, ranges, watts, unused };
}

const nearly = (a: number, b: number): boolean => Math.abs(a - b) <= ROUNDED * Math.max(a, b);

/** Most ports one power is printed once for: "50 W × 2". */
const MOST_TIMES = 12;

/** How many times a power at a place is meant: "2 × 50 W", "50 W x 2"; what says so is left out with it. */
function timesAt(tokens: readonly Token[], at: number): { readonly times: number; readonly used: number } | null {
  const isTimes = (token: Token | undefined) =>
    (token?.kind === 'sign' && /[×x*]/.test(token.sign)) || (token?.kind === 'word' && token.word === 'x');
  const isPower = (token: Token | undefined) => token?.kind === 'amount' && token.quantity === 'power';
  const [one, sign, other] = tokens.slice(at, at + 3);
  const count = isPower(one) ? other : isPower(other) ? one : undefined;
  if (!isTimes(sign) || count?.kind !== 'number') return null;
  return Number.isInteger(count.value) && count.value >= 1 && count.value <= MOST_TIMES
    ? { times: count.value, used: 3 }
    : null;
}

/** Powers in the order printed: watts, volts × amps, or plain numbers between pluses. */
function powersIn(tokens: readonly Token[]): { powers: readonly number[]; unused: readonly Token[] } {
  const powers: number[] = [];
  const unused: Token[] = [];
  let volts: number | null = null;
  /** Volts × amps that were just read: watts behind them say them once more. */
  let pair: number | null = null;
  for (let at = 0; at < tokens.length; at += 1) {
    const token = tokens[at] as Token;
    const repeated = timesAt(tokens, at);
    if (repeated) {
      const power = tokens.slice(at, at + repeated.used).find(({ kind }) => kind === 'amount');
      for (let time = 0; power?.kind === 'amount' && time < repeated.times; time += 1) powers.push(power.value);
      at += repeated.used - 1;
    } else if (token.kind === 'number') powers.push(token.value);
    else if (token.kind !== 'amount') unused.push(token);
    else if (token.quantity === 'power' && pair !== null && nearly(token.value, pair)) pair = null;
    else if (token.quantity === 'power') powers.push(token.value);
    else if (token.quantity === 'voltage' && volts === null) volts = token.value;
    else if (token.quantity === 'current' && volts !== null) {
      pair = volts * token.value;
      powers.push(pair);
      volts = null;
    } else unused.push(token);
  }
  return { powers, unused };
}

/** Powers of ports by themselves, one each in their order: "C1/C2: 100W/60W"; null for anything else. */
export function powersEach(ports: readonly string[], tokens: readonly Token[]): readonly number[] | null {
  const amounts = tokens.flatMap((token) => (token.kind === 'amount' ? [token] : []));
  const others = tokens.some(({ kind }) => kind === 'levels' || kind === 'range' || kind === 'number');
  return ports.length > 1 &&
    !others &&
    amounts.length === ports.length &&
    amounts.every(({ quantity }) => quantity === 'power')
    ? amounts.map(({ value }) => value)
    : null;
}

/** Read what follows several ports joined by a plus: a power for each, or one they share. */
export function togetherBody(
  printed: readonly (readonly string[])[],
  tokens: readonly Token[],
  unusedOf: (tokens: readonly Token[]) => readonly string[],
): ParsedLine {
  const { powers, unused } = powersIn(tokens);
  const left = unusedOf(unused);
  const ports = printed.flat();
  // All of them in one bracket share nothing when each is given its watts: "(C1+C2): 65W+30W".
  const apart = printed.length === 1 && ports.length > 1 && [ports.length, ports.length + 1].includes(powers.length);
  const groups = apart ? ports.map((port) => [port]) : printed;
  const shareOf = ([port = '', ...others]: readonly string[], watts: number) =>
    others.length > 0 ? { port, with: others, watts } : { port, watts };
  const made = (shares: readonly ReturnType<typeof shareOf>[], rest = left): ParsedLine => ({
    promises: [{ kind: 'combination', shares }],
    ...(rest.length > 0 ? { unused: rest } : {}),
  });
  const [only] = powers;
  const each = tokens.some((token) => token.kind === 'word' && token.word === 'each');
  if (powers.length === 1 && only !== undefined)
    return made(each ? groups.map((group) => shareOf(group, only)) : [shareOf(ports, only)]);
  const all = groups.map((group, index) => shareOf(group, powers[index] ?? 0));
  if (powers.length === groups.length) return made(all);
  const total = powers.at(-1) ?? 0;
  if (powers.length === groups.length + 1) {
    // The sum is often printed before or behind, sometimes rounded.
    const [first = 0, ...others] = powers;
    if (
      nearly(
        first,
        others.reduce((together, watts) => together + watts, 0),
      )
    )
      return made(groups.map((group, index) => shareOf(group, others[index] ?? 0)));
    const sum = all.reduce((together, { watts }) => together + watts, 0);
    return made(all, nearly(sum, total) ? left : [...left, formatPlain(total, 'power')]);
  }
  return {
    reason: `${ports.join(' + ')} are ${ports.length} ports and ${powers.length} powers: give each its watts, such as ${ports.map(() => '30 W').join(' + ')}, or put those that share in brackets.`,
  };
}
