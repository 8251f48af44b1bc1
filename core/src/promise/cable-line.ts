// What is printed on a cable: what it carries, what data, how many bends.
import { parseQuantity } from '../quantity/index.ts';
import type { LabelLine } from './label.ts';
import type { Promised } from './types.ts';

const NUMBER = '(?<![\\d.,])(\\d+(?:[.,]\\d+)?)';
/** Thousands apart belong to counts only: "Gen 2 480 Mbps" is no 2480. */
const COUNT = "(?<![\\d.,])(\\d{1,3}(?:[ .,\\u00a0’']\\d{3})+|\\d+)\\s*(k)?\\s*\\+?";
const RATE = new RegExp(`${NUMBER}\\s*(g|m)(bit\\/?s|bps|b\\/s)`, 'i');
const BENDS = [
  new RegExp(`${COUNT}\\s*(?:x\\s*|times\\s*)?(?:bends?|bending|bend cycles|flex(?:es)?|cycles)\\b`, 'i'),
  new RegExp(`\\b(?:bend|flex)[a-z]*\\b[^\\d]*${COUNT}\\s*(?:times|x|cycles)\\b`, 'i'),
];
const WATTS = new RegExp(`${NUMBER}\\s*w(?:att)?s?\\b`, 'gi');
const AMPS = new RegExp(`${NUMBER}\\s*a(?:mp)?s?\\b`, 'gi');
const VOLTS = new RegExp(`${NUMBER}\\s*v(?:olt)?s?\\b`, 'gi');

/** A printed power may be rounded by this part. */
const ROUNDED = 0.02;
/** V: the rating of a cable above 100 W, and what it carries at most. Source: USB Type-C R2.1, EPR cables; USB PD R3.1, EPR levels. */
const BUILT_FOR = 50;
const CARRIES = 48;

/** Names with a digit that promise no more than the figures beside them. */
const NAMES = /\busb[- ]?\d(?:\.\d)?\b/gi;

/** Figures of a line nothing was made of, with the words right behind them: "1.8 m". */
const leftOf = (line: string): readonly string[] =>
  [...line.replace(NAMES, ' ').matchAll(/[\p{L}]*\d[\p{L}\d.,]*(?:\s?[\p{L}°%"″′]+)?/gu)].map(([text]) => text);

/** What names of generations mean on the wire, bit/s. A name that is none of these promises nothing. */
const NAMED: readonly (readonly [RegExp, number])[] = [
  [/\busb\s*2(?:\.0)?\b|\bhi(?:gh)?[- ]?speed\b/i, 480e6],
  [/\bgen\s*4(?:\s*[x×]\s*\d)?\b/i, 80e9],
  [/\bgen\s*3(?:\s*[x×]\s*\d)?\b/i, 40e9],
  [/\bgen\s*2\s*[x×]\s*2\b|\busb\s*4\b.*\bgen\s*2\b/i, 20e9],
  [/\bgen\s*2\b|\bgen\s*1\s*[x×]\s*2\b/i, 10e9],
  [/\bgen\s*1\b|\busb\s*3\.0\b/i, 5e9],
];

/** A count with its thousands apart, or a `k`. */
const countOf = (text: string, kilo: string | undefined): number =>
  Number(text.replace(/[ .,\u00a0’']/g, '')) * (kilo ? 1000 : 1);

/** The highest of what a line says of a quantity. */
const found = (line: string, pattern: RegExp, quantity: 'power' | 'current' | 'voltage'): number | null => {
  const all = [...line.matchAll(pattern)].flatMap(([, number = '']) => {
    const parsed = parseQuantity(number, quantity);
    return parsed.ok ? [parsed.value] : [];
  });
  return all.length > 0 ? Math.max(...all) : null;
};

/** Levels a cable is rated for: a power alone says which, where it is one of the usual. */
function ratingOf(line: string): Promised | { readonly reason: string } | null {
  const watts = found(line, WATTS, 'power');
  const amps = found(line, AMPS, 'current');
  const volts = found(line, VOLTS, 'voltage');
  if (watts === null && amps === null) return null;
  if (amps !== null && volts !== null) {
    if (watts === null || Math.abs(amps * volts - watts) <= ROUNDED * watts)
      return { kind: 'cable-rating', amps, volts };
    // A cable is built for 50 V and carries 48 V.
    if (volts === BUILT_FOR && amps * CARRIES === watts) return { kind: 'cable-rating', amps, volts: CARRIES };
    return {
      reason: `${watts} W are not ${amps} A at ${volts} V. Give two of the three, or each rating in a line of its own.`,
    };
  }
  if (amps !== null && watts !== null)
    return { kind: 'cable-rating', amps, volts: Number((watts / amps).toPrecision(3)) };
  if (amps !== null) return { kind: 'cable-rating', amps, volts: 20 };
  const power = watts as number;
  // Above 100 W a cable carries 5 A at a higher level; from 60 to 100 W, 5 A at 20 V; below, 3 A.
  if (power > 240.5) return { reason: `${power} W is more than any cable of this kind carries: 240 W at most.` };
  if (power > 60.5)
    return { kind: 'cable-rating', amps: 5, volts: power > 100.5 ? Number((power / 5).toPrecision(3)) : 20 };
  return { kind: 'cable-rating', amps: 3, volts: Number((power / 3).toPrecision(3)) };
}

/**
 * Understand a line as it is printed on a cable or its box.
 * @example parseCableLine('240 W, 480 Mbps') // carries 5 A at 48 V, and data at 480 Mbit/s
 */
export function parseCableLine(text: string): LabelLine {
  const line = text.trim();
  if (line === '') return { line, reason: 'Nothing typed.' };
  const quoted = /^["“](.+)["”]$/.exec(line);
  if (quoted?.[1]) return { line, promises: [{ kind: 'wording', text: quoted[1] }] };
  const promises: Promised[] = [];
  const [bent, count, kilo] = BENDS.map((pattern) => pattern.exec(line)).find((one) => one !== null) ?? [];
  if (count !== undefined) promises.push({ kind: 'bends', count: countOf(count, kilo) });
  const rest = bent ? line.replace(bent, ' ') : line;
  const [rated, number, prefix, per = ''] = RATE.exec(rest) ?? [];
  if (per.startsWith('B'))
    return {
      line,
      reason: `“${rated}” are bytes, and cables are told in bits: write ${number} ${prefix}bit/s, or eight times as much.`,
    };
  const named = NAMED.find(([pattern]) => pattern.test(rest));
  if (number !== undefined && prefix !== undefined) {
    const value = Number(number.replace(',', '.')) * (prefix.toLowerCase() === 'g' ? 1e9 : 1e6);
    promises.push({ kind: 'data-rate', bits: value });
  } else if (named) promises.push({ kind: 'data-rate', bits: named[1] });
  const power = ratingOf(rated ? rest.replace(rated, ' ') : rest);
  if (power && 'reason' in power) return { line, reason: power.reason };
  if (power) promises.push(power);
  const bad = promises.find(
    (one) =>
      (one.kind === 'bends' && !(one.count >= 1 && one.count <= 1e7)) ||
      (one.kind === 'cable-rating' && !(one.amps > 0 && one.amps <= 20 && one.volts >= 3 && one.volts <= 60)) ||
      (one.kind === 'data-rate' && !(one.bits >= 1e6 && one.bits <= 1e12)),
  );
  if (bad) return { line, reason: 'These numbers make no sense for a cable.' };
  if (promises.length === 0)
    return {
      line,
      reason:
        'Write watts or amps (240 W, 5 A), a data rate (480 Mbit/s, 10 Gbit/s), bends (10 000 bends), or a slogan in quotes.',
    };
  const unused = leftOf(
    [...(rated ? [rated] : []), ...NAMED.map(([pattern]) => pattern), WATTS, AMPS, VOLTS].reduce(
      (left: string, used) => left.replace(used, ' '),
      rest,
    ),
  );
  return { line, promises, ...(unused.length > 0 ? { unused } : {}) };
}

/** The same for a whole label, line by line. */
export const parseCableLabel = (text: string): readonly LabelLine[] =>
  text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .map(parseCableLine);
