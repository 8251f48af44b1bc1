// Accuracies people can start from: what a manual prints in a line, and what is usual of a class of meter.
import { parseDecimal, parseQuantity, type QuantityId, quantityOf } from '../quantity/index.ts';
import { type AccuracySpec, NO_SPEC } from './spec.ts';

/** What a class of meter usually keeps, by quantity; said as such and never as its maker's word. */
export type UsualSpecs = Readonly<Partial<Record<'voltage' | 'current' | 'power', AccuracySpec>>>;

const usual = (readingPercent: number, offset: number, resolution: number, floor = 0): AccuracySpec => ({
  ...NO_SPEC,
  readingPercent,
  offset,
  resolution,
  floor,
});

/**
 * Accuracies usual of a class, rather too wide than too narrow: a cheap meter keeps to a few per cent and its last digits,
 * and does not see a load of a fraction of a watt at all.
 */
export const USUAL_OF_CLASS: Readonly<Record<string, UsualSpecs>> = {
  'plug-in wall meter': { power: usual(3, 0.5, 0.1, 0.5) },
  'inline USB meter': { voltage: usual(0.5, 0.02, 0.01), current: usual(1, 0.02, 0.01) },
  'bench multimeter': { voltage: usual(0.5, 0.02, 0.01), current: usual(1, 0.01, 0.001) },
  'DC load': { voltage: usual(0.1, 0.02, 0.001), current: usual(0.2, 0.02, 0.001) },
  'power analyser': { power: usual(0.5, 0.05, 0.001) },
};

export type ParsedAccuracy =
  | { readonly ok: true; readonly spec: AccuracySpec }
  | { readonly ok: false; readonly reason: string };

const COVERED = /\(?\s*k\s*=\s*2\s*\)?|95\s*%(?:\s*confidence)?/i;
const OF_RANGE =
  /^([\d.,]+)\s*%\s*(?:of\s+)?(?:the\s+)?(?:range|rng|fs|full scale)?\s*(?:of\s+)?\(?([\d.,]+\s*[^\d\s)]+)\)?$/i;
const OF_READING = /^([\d.,]+)\s*%(?:\s*(?:of\s+)?(?:the\s+)?(?:reading|rdg|value|mw))?$/i;
const DIGITS = /^(\d+)\s*(?:digits?|dgts?|counts?|lsd|d)$/i;

/**
 * Read an accuracy as a manual prints it: parts added up by plus signs.
 * @param resolution smallest step of the display, SI, for a part in digits; 0 when it is not known
 * @example parseAccuracy('±(0.5 % + 0.02 V)', 'voltage') // { ok: true, spec: { readingPercent: 0.5, offset: 0.02, … } }
 */
export function parseAccuracy(text: string, quantity: QuantityId, resolution = 0): ParsedAccuracy {
  const covered = COVERED.test(text) && /k\s*=\s*2|confidence/i.test(text);
  const bare = (covered ? text.replace(COVERED, '') : text).replace(/[±()]|\+\/-/g, ' ').trim();
  if (bare === '') return { ok: false, reason: 'Nothing typed.' };
  let spec: AccuracySpec = { ...NO_SPEC, resolution, coverage: covered ? 'k = 2 or 95 %' : 'not stated' };
  for (const part of bare.split('+').map((one) => one.replace(/[,;]\s*$/, '').trim())) {
    const [, digits] = DIGITS.exec(part) ?? [];
    if (digits !== undefined) {
      if (!(resolution > 0)) return { ok: false, reason: `"${part}" needs the resolution of the display.` };
      spec = { ...spec, offset: spec.offset + Number(digits) * resolution };
      continue;
    }
    const [, ofReading] = OF_READING.exec(part) ?? [];
    if (ofReading !== undefined) {
      spec = { ...spec, readingPercent: spec.readingPercent + parseDecimal(ofReading) };
      continue;
    }
    const [, ofRange, full] = OF_RANGE.exec(part) ?? [];
    if (ofRange !== undefined && full !== undefined) {
      const range = parseQuantity(full, quantity);
      if (!range.ok) return { ok: false, reason: range.reason };
      spec = { ...spec, rangePercent: parseDecimal(ofRange), range: range.value };
      continue;
    }
    const fixed = parseQuantity(part, quantity);
    if (!fixed.ok || fixed.value < 0) {
      const { usual: unit } = quantityOf(quantity);
      return { ok: false, reason: `"${part}" is not understood. Type it like ±(0.5 % + 0.02 ${unit}).` };
    }
    spec = { ...spec, offset: spec.offset + fixed.value };
  }
  const sum = spec.readingPercent + spec.rangePercent + spec.offset;
  if (!Number.isFinite(sum)) return { ok: false, reason: `"${bare}" is not understood.` };
  return sum > 0
    ? { ok: true, spec }
    : { ok: false, reason: 'An accuracy of exactly zero is no accuracy: give per cent or a fixed part.' };
}

/** Whether nothing but the last digit of a display is given: how fine it shows says nothing of how well it measures. */
export const isResolutionOnly = ({ readingPercent, rangePercent, offset, resolution }: AccuracySpec): boolean =>
  resolution > 0 && readingPercent + rangePercent + offset === 0;
