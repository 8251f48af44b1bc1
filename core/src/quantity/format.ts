// Numbers as people read them: as many digits as the uncertainty supports, bounds rounded outwards.
import { findUnit, fromSi, type QuantityId, quantityOf } from './units.ts';

const EXPONENT = (value: number): number => Math.floor(Math.log10(Math.abs(value)) + 1e-12);

/**
 * Decimals that an expanded uncertainty supports: two significant digits of U when it starts with 1 or 2, else one.
 * A zero, infinite or NaN uncertainty supports no statement; `fallback` decimals are used.
 */
export function decimalsFor(uncertainty: number, fallback = 3): number {
  if (!Number.isFinite(uncertainty) || uncertainty <= 0) return fallback;
  const exponent = EXPONENT(uncertainty);
  const leading = uncertainty / 10 ** exponent;
  return Math.min(9, Math.max(0, (leading < 3 ? 1 : 0) - exponent));
}

/** Round up at a number of decimals, forgiving the last bits of binary arithmetic. */
export const roundUp = (value: number, decimals: number): number =>
  Math.ceil(value * 10 ** decimals - 1e-9) / 10 ** decimals;

/** Round down at a number of decimals, forgiving the last bits of binary arithmetic. */
export const roundDown = (value: number, decimals: number): number =>
  Math.floor(value * 10 ** decimals + 1e-9) / 10 ** decimals;

/** With a true minus sign, as wide as a plus. */
const signed = (text: string): string => text.replace(/^-/, '\u2212');

/** A number with fixed decimals and a true minus sign; "–" for NaN and infinities, never "−0". */
export function fixed(value: number, decimals: number): string {
  if (!Number.isFinite(value)) return '–';
  const text = value.toFixed(decimals);
  return Number(text) === 0 ? text.replace('-', '') : signed(text);
}

const withUnit = (number: string, unit: string): string => (unit === '' ? number : `${number} ${unit}`);

/** An SI value in a unit with fixed decimals: `formatValue(0.9, 'efficiency', 1)` → `90.0 %`. */
export function formatValue(si: number, id: QuantityId, decimals: number, unitSymbol = quantityOf(id).usual): string {
  const unit = findUnit(id, unitSymbol);
  if (!unit) throw new RangeError(`"${unitSymbol}" is not a unit of ${id}.`);
  return withUnit(fixed(fromSi(si, unit), decimals), unitSymbol);
}

/** A value for people without an uncertainty: up to four significant digits, trailing zeros dropped. */
export function formatPlain(si: number, id: QuantityId, unitSymbol = quantityOf(id).usual): string {
  const unit = findUnit(id, unitSymbol);
  if (!unit) throw new RangeError(`"${unitSymbol}" is not a unit of ${id}.`);
  const value = fromSi(si, unit);
  if (!Number.isFinite(value)) return '–';
  return withUnit(signed(String(Number(value.toPrecision(4)))), unitSymbol);
}

/** A probability in words people trust: `97.7 %`, `> 99.9 %`, `< 0.1 %`. */
export function formatProbability(probability: number): string {
  if (!(probability >= 0 && probability <= 1)) return '–';
  if (probability > 0.999) return '> 99.9 %';
  return probability < 0.001 ? '< 0.1 %' : `${fixed(probability * 100, 1)} %`;
}

/**
 * A value with its expanded uncertainty: `61.8 ± 0.3 W`. The uncertainty is rounded up, the value to the same place; an
 * unknown one (infinite) reads `61.8 ± ? W`.
 * @param si value in SI
 * @param expanded expanded uncertainty U in SI, not negative
 */
export function formatMeasured(
  si: number,
  expanded: number,
  id: QuantityId,
  unitSymbol = quantityOf(id).usual,
): string {
  const unit = findUnit(id, unitSymbol);
  if (!unit) throw new RangeError(`"${unitSymbol}" is not a unit of ${id}.`);
  const value = fromSi(si, unit);
  const shownU = expanded / unit.factor;
  if (shownU === Number.POSITIVE_INFINITY && Number.isFinite(value))
    return withUnit(`${signed(String(Number(value.toPrecision(4))))} ± ?`, unitSymbol);
  if (!Number.isFinite(shownU) || shownU <= 0) return formatPlain(si, id, unitSymbol);
  const decimals = decimalsFor(shownU);
  return withUnit(`${fixed(value, decimals)} ± ${fixed(roundUp(shownU, decimals), decimals)}`, unitSymbol);
}

/** An interval with both bounds rounded outwards: `100.1…103.6 W`. Infinite ends read "at least" / "at most". */
export function formatInterval(low: number, high: number, id: QuantityId, decimals: number): string {
  const { usual } = quantityOf(id);
  const unit = findUnit(id, usual);
  if (!unit) throw new RangeError(`${id} has no usual unit.`);
  const from = fixed(roundDown(fromSi(low, unit), decimals), decimals);
  const to = fixed(roundUp(fromSi(high, unit), decimals), decimals);
  if (high === Number.POSITIVE_INFINITY) return withUnit(`at least ${from}`, usual);
  if (low === Number.NEGATIVE_INFINITY) return withUnit(`at most ${to}`, usual);
  return withUnit(`${from}…${to}`, usual);
}

/** An upper bound for people: rounded up to three significant digits, `0.0841 W`. */
export function formatAtMost(si: number, id: QuantityId, unitSymbol = quantityOf(id).usual): string {
  if (!(si > 0) || !Number.isFinite(si)) return formatPlain(si, id, unitSymbol);
  const digit = 10 ** (EXPONENT(si) - 2);
  return formatPlain(Math.ceil(si / digit - 1e-9) * digit, id, unitSymbol);
}

/** An uncertainty for people: rounded up to two significant digits, as it is said beside a result. JCGM 100:2008, 7.2.6 */
export function formatUncertainty(si: number, id: QuantityId, unitSymbol = quantityOf(id).usual): string {
  if (!(si > 0) || !Number.isFinite(si)) return formatPlain(si, id, unitSymbol);
  const digit = 10 ** (Math.floor(Math.log10(si)) - 1);
  return formatPlain(Math.ceil(si / digit - 1e-9) * digit, id, unitSymbol);
}
