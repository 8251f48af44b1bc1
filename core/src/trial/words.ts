// A trial in words: each figure with its base.
import { findUnit, formatMeasured, type QuantityId, quantityOf } from '../quantity/index.ts';
import { ALIKE, signsAlone } from '../repeats/index.ts';
import type { Comparison } from './blocks.ts';
import type { BlockTrial, MatrixTrial } from './types.ts';

type Said = Omit<Comparison, 'sentence'>;

/** How things are called in a sentence. */
export interface Namer {
  readonly arm: (arm: number) => string;
  readonly value: (si: number) => string;
}

/** A number to three digits. */
export const numberOf = (value: number): string => String(Number(value.toPrecision(value >= 10 ? 3 : 2)));

/** A value of a measure to three digits in its usual unit. */
export function valueWords(quantity: QuantityId, si: number): string {
  const { usual } = quantityOf(quantity);
  const unit = findUnit(quantity, usual);
  // A difference of temperatures has no nought to count from.
  const shown = unit ? si / unit.factor : si;
  const text = String(Number(shown.toPrecision(3))).replace('-', '\u2212');
  return usual === '' ? text : `${text} ${usual}`;
}

/** A bound, rounded up to two digits. */
export function boundWords(quantity: QuantityId, si: number): string {
  const factor = findUnit(quantity, quantityOf(quantity).usual)?.factor ?? 1;
  const shown = si / factor;
  const digit = shown > 0 ? 10 ** (Math.floor(Math.log10(shown)) - 1) : 1;
  return valueWords(quantity, Math.ceil(shown / digit - 1e-9) * digit * factor);
}

/** Pairs that differ by the same to the digit: no spread is told of, and no bound. */
function alikeSays(
  { difference: { mean, count }, from, to, base, called }: Said,
  { arm, value }: Namer,
  good: string,
): string {
  const [a, b] = [`“${arm(from)}”`, `“${arm(to)}”`];
  if (Math.abs(mean) <= ALIKE * Math.abs(base))
    return `${a} and ${b} are the same to the digit in ${count} pairs: read finer to say how small a difference is. That is no proof of none.`;
  const more = `${b} ${value(Math.abs(mean))} ${mean < 0 ? 'less' : 'more'} than ${a}`;
  const chance = numberOf(signsAlone(count) * 100);
  return called
    ? `${more}${good}, to the digit in each of ${count} pairs: chance alone puts so many on one side ${chance} times in 100.`
    : `${more} in each of ${count} pairs, to the digit: read too coarsely to tell how they scatter. Chance alone puts so many on one side ${chance} times in 100: read finer, or run more pairs.`;
}

const halfOf = ([low, high]: readonly [number, number]): number => (high - low) / 2;

/**
 * A comparison in one sentence, with its base: what differs and by how much, or no difference larger than what.
 * @example '“B” took 1.1 ± 0.4 min more than “A” (2.2 % of its 51 min; 95 %, 5 pairs).'
 */
export function comparisonSays({ measure }: BlockTrial, said: Said, name: Namer): string {
  const { from, to, difference, base, called, alike } = said;
  const { arm, value } = name;
  const { mean, interval, count } = difference;
  const [a, b] = [`“${arm(from)}”`, `“${arm(to)}”`];
  if (interval === null)
    return `One pair: ${b} ${value(Math.abs(mean))} ${mean < 0 ? 'less' : 'more'} than ${a}. One pair says nothing of chance.`;
  const { quantity, better } = measure;
  const good = better === null ? '' : mean < 0 === (better === 'lower') ? ', which is better' : ', which is worse';
  if (alike) return alikeSays(said, name, good);
  const half = halfOf(interval);
  const many = `95 %, ${count} pairs`;
  if (!called) {
    const most = Math.max(...interval.map(Math.abs));
    return `No difference larger than ${boundWords(quantity, most)} between ${a} and ${b} (${formatMeasured(mean, half, quantity)}; ${many}). That is no proof of none.`;
  }
  const verb = quantity === 'duration' ? 'took' : 'gave';
  const share = base !== 0 ? `${numberOf((Math.abs(mean) / Math.abs(base)) * 100)} % of its ${value(base)}; ` : '';
  return `${b} ${verb} ${formatMeasured(Math.abs(mean), half, quantity)} ${mean < 0 ? 'less' : 'more'} than ${a}${good} (${share}${many}).`;
}

/** What is compared, in a few words. */
export const trialWords = (trial: BlockTrial | MatrixTrial): string =>
  trial.kind === 'blocks'
    ? `${trial.factor}: ${trial.arms.map(({ name }) => name).join(' or ')}`
    : trial.factors.map(({ name, levels }) => `${name} (${levels.length})`).join(' × ');
