// Reads a label line as it is printed and typed: "C1: 5V 3A / 9V 3A / 20V 2.25A", "C1+A1 45W+18W", "total 65 W".

import { formatPlain } from '../quantity/index.ts';
import type { Mains } from '../reading/index.ts';
import { SIGNAL_MODES, type SignalMode } from '../signal/index.ts';
import { boundIn } from './bound-line.ts';
import { chargeTimeIn } from './charge-time.ts';
import { portBody, powersEach, togetherBody } from './label-body.ts';
import { headsOf } from './label-heads.ts';
import { LEAST_MAINS, type Token, tokensOf } from './label-tokens.ts';
import { type ClaimDuration, type Promised, sharePorts } from './types.ts';

export type ParsedLine =
  | {
      readonly promises: readonly Promised[];
      /** Text nothing was made of; named before the promises are kept. Left out when all was used. */
      readonly unused?: readonly string[];
      /** For how long, where the line says it. */
      readonly duration?: ClaimDuration;
    }
  | { readonly reason: string };

/** Words that are understood and add nothing. */
const FILLERS: ReadonlySet<string> = new Set(
  'output outputs out dc usb usb-c usb-a type type-c type-a port ports max maximum up to each only alone single or and together shared share shares total combined power pd pdo fixed peak continuous for with when used using simultaneously both per rated nominal x less than below under most'.split(
    ' ',
  ),
);
/** Signs that keep things apart, and those for direct current. */
const SILENT: ReadonlySet<string> = new Set([...'/:：;,，、|+&()[]{}.=⎓⎯═—–-~@×x*·•<≤≥>…']);

/** What of some tokens nothing was made of, neighbours joined. */
export const unusedOf = (tokens: readonly Token[]): string[] => {
  const found: string[] = [];
  let joined = false;
  for (const token of tokens) {
    const silent =
      (token.kind === 'word' && FILLERS.has(token.word)) || (token.kind === 'sign' && SILENT.has(token.sign));
    if (silent) {
      joined = false;
      continue;
    }
    if (joined) found.push(`${found.pop()} ${token.text}`);
    else found.push(token.text);
    joined = true;
  }
  return found;
};

/** Words that stand right before a number and belong to it: "PPS3.3-21V", "Max65W". */
const BEFORE_NUMBERS = /^(pps|apdo|avs|spr|epr|in|input|min|no|load|idle|standby|efficiency|gen|rev|ver|v|a|w)$/;

/** A number of which letters are left over: "l2V" is no 2 V. Null where there is none. */
function gluedIn(tokens: readonly Token[]): string | null {
  for (const [at, token] of tokens.entries()) {
    const before = tokens[at - 1];
    const isNumber = token.kind === 'amount' || token.kind === 'levels' || token.kind === 'range';
    if (!isNumber || !token.tight || before?.kind !== 'word') continue;
    if (!FILLERS.has(before.word) && !BEFORE_NUMBERS.test(before.word)) return before.text + token.text;
  }
  return null;
}

const hasWord = (tokens: readonly Token[], ...words: readonly string[]): boolean =>
  tokens.some((token) => token.kind === 'word' && words.includes(token.word));

/** "for 30 min", "peak 10 s", "continuous": how long a power is promised for. */
function durationOf(tokens: readonly Token[]): { duration?: ClaimDuration; rest: readonly Token[] } {
  const at = tokens.findIndex((token) => token.kind === 'amount' && token.quantity === 'duration');
  const time = tokens[at];
  const most = tokens[at - 1];
  const limited = most?.kind === 'word' && ['max', 'maximum', 'within'].includes(most.word);
  if (time?.kind === 'amount' && (limited || hasWord(tokens, 'for', 'peak')))
    return { duration: { kind: 'peak', seconds: time.value }, rest: tokens.filter((_, index) => index !== at) };
  return hasWord(tokens, 'continuous', 'continuously')
    ? { duration: { kind: 'continuous' }, rest: tokens }
    : { rest: tokens };
}

const done = (promises: readonly Promised[], unused: readonly string[], duration?: ClaimDuration): ParsedLine => ({
  promises,
  ...(unused.length > 0 ? { unused } : {}),
  ...(duration ? { duration } : {}),
});

/** Frequency of a supply that is named by its volts alone; others are named with theirs. */
const USUAL_HERTZ: Readonly<Record<number, number>> = { 110: 60, 115: 60, 120: 60, 127: 60, 220: 50, 230: 50, 240: 50 };

/** The mains a figure is said for, "at 230 V 50 Hz", with what is left of the line; null where it names none for sure. */
function supplyIn(tokens: readonly Token[]): { readonly mains: Mains | null; readonly rest: readonly Token[] } {
  const at = tokens.findIndex(
    (token) => token.kind === 'amount' && token.quantity === 'voltage' && token.value >= LEAST_MAINS,
  );
  const volts = tokens[at];
  if (volts?.kind !== 'amount') return { mains: null, rest: tokens };
  const after = tokens.slice(at + 1).findIndex((token) => token.kind === 'word' && token.word === 'hz');
  const stated = after < 0 ? undefined : tokens[at + after];
  const hertz = stated?.kind === 'number' ? stated.value : after < 0 ? USUAL_HERTZ[volts.value] : undefined;
  if (hertz === undefined || !(hertz >= 40 && hertz <= 70)) return { mains: null, rest: tokens };
  const used = new Set<Token | undefined>([volts, ...(stated ? [stated, tokens[at + 1 + after]] : [])]);
  return {
    mains: { kind: 'ac', volts: volts.value, hertz },
    rest: tokens.filter((token) => !used.has(token) && !(token.kind === 'word' && token.word === 'at')),
  };
}

/** Words by which an efficiency is that of one load, or the best of all. */
const NO_AVERAGE: ReadonlySet<string> = new Set(['load', 'low', 'light', 'peak', 'up', 'max', 'maximum', 'best']);

/** A figure of the whole sample: total, idle, efficiency; null when it is none. */
function wholeLine(tokens: readonly Token[], labels: readonly string[], duration?: ClaimDuration): ParsedLine | null {
  const amounts = tokens.flatMap((token) => (token.kind === 'amount' ? [token] : []));
  const rest = (used: Token) => unusedOf(tokens.filter((token) => token !== used));
  const powers = amounts.filter(({ quantity }) => quantity === 'power');
  const [power] = powers;
  const says = tokens.flatMap((token) => (token.kind === 'word' ? [token.word] : []));
  if (
    says.some((word) => /^(idle|standby|stand-by|no-load|noload|vampire|phantom)$/.test(word)) ||
    (says.includes('no') && says.includes('load'))
  ) {
    if (!power || powers.length > 1) return { reason: 'Idle is one power, such as idle 0.075 W.' };
    const words = new Set([
      'idle',
      'standby',
      'stand-by',
      'no-load',
      'noload',
      'vampire',
      'phantom',
      'no',
      'load',
      'consumption',
      'draw',
      'input',
    ]);
    const { mains, rest: others } = supplyIn(tokens);
    const left = others.filter((token) => token !== power && !(token.kind === 'word' && words.has(token.word)));
    return done([{ kind: 'idle', watts: power.value, mains }], unusedOf(left));
  }
  if (says[0] === 'input') return { reason: 'This is what it takes: it belongs to the input rating at Intake.' };
  const shares = amounts.filter(({ quantity }) => quantity === 'efficiency');
  const [share] = shares;
  if (says.some((word) => /^(efficien|η)/.test(word))) {
    const light = shares.length > 1 || says.some((word) => NO_AVERAGE.has(word));
    if (!share || light)
      return { reason: 'Only an average efficiency is a claim, such as efficiency 91 %. Put anything else in quotes.' };
    const words = new Set(['average', 'active', 'avg', 'mean', 'of', 'mode']);
    const { mains, rest: others } = supplyIn(tokens);
    const left = others.filter(
      (token) =>
        token !== share && !(token.kind === 'word' && (words.has(token.word) || /^(efficien|η)/.test(token.word))),
    );
    return done([{ kind: 'average-efficiency', ratio: share.value, mains }], unusedOf(left));
  }
  const volts = tokens.some(
    (token) =>
      token.kind === 'levels' || token.kind === 'range' || (token.kind === 'amount' && token.quantity === 'voltage'),
  );
  if (power && powers.length === 1 && !volts && unusedOf(tokens.filter((token) => token !== power)).length <= 1)
    return done([{ kind: 'total', watts: power.value }], rest(power), duration);
  const [only] = labels;
  const head = tokens.slice(
    0,
    tokens.findIndex(({ kind }) => kind === 'amount' || kind === 'levels' || kind === 'range'),
  );
  if (
    volts &&
    labels.length === 1 &&
    only !== undefined &&
    unusedOf(head).every((text) => /^(pps|avs|spr|epr)\b/i.test(text))
  )
    return portPromises([only], tokens, duration);
  return null;
}

function portPromises(ports: readonly string[], body: readonly Token[], duration?: ClaimDuration): ParsedLine {
  const powers = powersEach(ports, body);
  if (powers) {
    const promises = ports.map(
      (port, at): Promised => ({ kind: 'combination', shares: [{ port, watts: powers[at] ?? 0 }] }),
    );
    return done(promises, unusedOf(body.filter(({ kind }) => kind !== 'amount')), duration);
  }
  const read = portBody(body);
  if ('reason' in read) return { reason: `${ports.join(', ')}: ${read.reason}` };
  const promises = ports.flatMap((port): Promised[] => [
    ...read.lines.map(({ volts, amps }): Promised => ({ kind: 'port-line', port, volts, amps })),
    ...read.ranges.map((range): Promised => ({ kind: 'range', port, ...range })),
    ...(read.watts === null ? [] : [{ kind: 'combination', shares: [{ port, watts: read.watts }] } as const]),
  ]);
  return done(promises, unusedOf(read.unused), duration);
}

/**
 * Understand one typed label line.
 * @param labels the port labels of the sample
 * @param modes signalling outside PD that a line may name by its title
 * @returns the promises in it, with the text nothing was made of; or why it was not understood
 */
export function parseClaimLine(
  text: string,
  labels: readonly string[],
  modes: readonly SignalMode[] = SIGNAL_MODES,
): ParsedLine {
  const line = text.trim();
  if (line === '') return { reason: 'Nothing typed.' };
  const quoted = /^["“](.+)["”]$/.exec(line);
  if (quoted?.[1]) return { promises: [{ kind: 'wording', text: quoted[1] }] };
  const charge = chargeTimeIn(line);
  if (charge) return 'reason' in charge ? charge : { promises: [charge] };
  const bound = boundIn(line);
  if (bound) return { promises: [bound] };
  const tokens = tokensOf(line, labels);
  const glued = gluedIn(tokens);
  if (glued !== null) return { reason: `“${glued}” cannot be read: is one of its letters a digit?` };
  const first = tokens.find(({ kind }) => kind !== 'word' && kind !== 'sign');
  if (first?.kind === 'port') {
    const after = line
      .slice(line.indexOf(first.text) + first.text.length)
      .replace(/^[:\s]+/, '')
      .toLowerCase();
    const mode = modes.find(({ title }) => title.toLowerCase() === after);
    if (mode) return { promises: [{ kind: 'signal', port: first.port, mode: mode.id, title: mode.title }] };
  }
  const { duration, rest } = durationOf(tokens);
  const heads = headsOf(rest);
  if ('reason' in heads) return heads;
  if (heads.entries.length === 0) {
    const whole = wholeLine(rest, labels, duration);
    if (whole) return whole;
    return {
      reason: `Start with a port (${labels.join(', ') || 'none entered'}), "total", "idle", "efficiency", "ripple" or "surface"; put a slogan in quotes.`,
    };
  }
  const before = unusedOf(heads.before);
  const parts = heads.entries.map(({ groups, each, body }) =>
    each ? portPromises(groups.flat(), body) : togetherBody(groups, body, unusedOf),
  );
  const bad = parts.find((part) => 'reason' in part);
  if (bad) return bad;
  const good = parts.flatMap((part) => ('promises' in part ? [part] : []));
  const unused = [...before, ...good.flatMap((part) => part.unused ?? [])];
  const promises = good.flatMap((part) => part.promises);
  const several = promises.find(
    (promise) =>
      promise.kind === 'combination' &&
      new Set(promise.shares.flatMap(sharePorts)).size < promise.shares.flatMap(sharePorts).length,
  );
  if (several) return { reason: 'It names a port twice: each port of a combination stands there once.' };
  if (!heads.joined) return done(promises, unused, duration);
  // "C1 45 W + C2 20 W": each port with its power, together.
  const shares = promises.flatMap((promise) => (promise.kind === 'combination' ? promise.shares : wattsOf(promise)));
  const named = shares.flatMap((share) => sharePorts(share).map((port) => ({ port, watts: share.watts })));
  const twice = named.find(({ port }, index) => named.findIndex((share) => share.port === port) !== index);
  return twice
    ? { reason: `${twice.port} stands there twice with ${formatPlain(twice.watts, 'power')}: name each port once.` }
    : done([{ kind: 'combination', shares }], unused, duration);
}

/** A level of a port in a combination counts by its power. */
const wattsOf = (promise: Promised) =>
  promise.kind === 'port-line' ? [{ port: promise.port, watts: promise.volts * promise.amps }] : [];
