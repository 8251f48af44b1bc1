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
const RANGE_WORD = '(?:range|rng\\.?|f\\.?s\\.?|full[- ]scale)';
const SHARE = '([\\d.,]+)\\s*(%|ppm)';
const FULL = '([\\d.,]+\\s*[^\\d\\s%()]+)';
/** The range by its words or behind "of": two figures side by side are no range. */
const OF_RANGE = new RegExp(
  `^${SHARE}\\s*(?:(?:of\\s+)?(?:the\\s+)?${RANGE_WORD}\\s*(?:of\\s+)?${FULL}|of\\s+(?:the\\s+)?${FULL}(?:\\s*${RANGE_WORD})?|${FULL}\\s*${RANGE_WORD})$`,
  'i',
);
const RANGE_ALONE = new RegExp(`^${SHARE}\\s*(?:of\\s+)?(?:the\\s+)?${RANGE_WORD}$`, 'i');
const OF_READING = new RegExp(`^${SHARE}(\\s*(?:of\\s+)?(?:the\\s+)?(?:readings?|rdg\\.?|value|mw))?$`, 'i');
const DIGITS = /^(\d+)\s*(?:digits?|dgts?\.?|counts?|lsd|d)$/i;
const WHOLE = /^\d+$/;
/** What parts stand between: a plus, another ±, a comma that is no decimal sign, a word. */
const BETWEEN = /\+|±|,\s+|\s(?:and|plus)\s/i;

const percentOf = (number: string, unit: string): number => parseDecimal(number) / (/ppm/i.test(unit) ? 1e4 : 1);

/**
 * Read an accuracy as a manual prints it: parts added up by plus signs.
 * @param resolution smallest step of the display, SI, for a part in digits; 0 when it is not known
 * @example parseAccuracy('±(0.5 % + 0.02 V)', 'voltage') // { ok: true, spec: { readingPercent: 0.5, offset: 0.02, … } }
 */
export function parseAccuracy(text: string, quantity: QuantityId, resolution = 0): ParsedAccuracy {
  const covered = COVERED.test(text) && /k\s*=\s*2|confidence/i.test(text);
  const bare = (covered ? text.replace(COVERED, '') : text).replace(/\+\/-/g, '±').replace(/[()]/g, ' ').trim();
  const parts = bare
    .split(BETWEEN)
    .map((one) =>
      one
        .replace(/[,;]\s*$/, '')
        .replace(/\s+/g, ' ')
        .trim(),
    )
    .filter((one) => one !== '');
  if (parts.length === 0) return { ok: false, reason: 'Nothing typed.' };
  const { usual: unit } = quantityOf(quantity);
  let spec: AccuracySpec = { ...NO_SPEC, resolution, coverage: covered ? 'k = 2 or 95 %' : 'not stated' };
  let plain = 0;
  for (const part of parts) {
    // "1.5 % + 3": behind a per cent a whole number is of digits.
    const digits = DIGITS.exec(part)?.[1] ?? (parts.length > 1 ? WHOLE.exec(part)?.[0] : undefined);
    if (digits !== undefined) {
      if (!(resolution > 0)) return { ok: false, reason: `"${part}" needs the resolution of the display.` };
      spec = { ...spec, offset: spec.offset + Number(digits) * resolution };
      continue;
    }
    const [, ofReading, per, said] = OF_READING.exec(part) ?? [];
    if (ofReading !== undefined && per !== undefined) {
      if (said === undefined) plain += 1;
      if (plain > 1)
        return { ok: false, reason: `Which per cent is of the range? Write it as ${ofReading} ${per} of 20 ${unit}.` };
      spec = { ...spec, readingPercent: spec.readingPercent + percentOf(ofReading, per) };
      continue;
    }
    const [, ofRange, share, ...full] = OF_RANGE.exec(part) ?? [];
    const written = full.find((one) => one !== undefined);
    if (ofRange !== undefined && share !== undefined && written !== undefined) {
      const range = parseQuantity(written, quantity);
      if (!range.ok) return { ok: false, reason: range.reason };
      if (spec.rangePercent > 0 && spec.range !== range.value)
        return { ok: false, reason: 'Two ranges in one line: give each its own.' };
      spec = { ...spec, rangePercent: spec.rangePercent + percentOf(ofRange, share), range: range.value };
      continue;
    }
    if (RANGE_ALONE.test(part))
      return { ok: false, reason: `"${part}": of which range? Write it as ${part} 20 ${unit}.` };
    const fixed = parseQuantity(part, quantity);
    if (!fixed.ok || fixed.value < 0)
      return { ok: false, reason: `"${part}" is not understood. Type it like ±(0.5 % + 0.02 ${unit}).` };
    if (!Number.isNaN(parseDecimal(part)))
      return { ok: false, reason: `"${part}" has no unit: write it as ${part} ${unit}, ${part} % or in digits.` };
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
