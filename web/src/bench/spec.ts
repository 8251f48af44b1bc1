// An accuracy spec as typed, in the units people know.
import { formatPlain, parseDecimal, type QuantityId } from '@lastmark/core/quantity';
import { type AccuracySpec, type Coverage, NO_SPEC, type RangeSpec } from '@lastmark/core/uncertainty';
import { typedSi } from '../parts/fields.tsx';

export interface SpecText {
  readonly readingPercent: string;
  readonly rangePercent: string;
  readonly range: string;
  readonly offset: string;
  readonly resolution: string;
  readonly floor: string;
  readonly coverage: Coverage;
  /** Finer ranges, each with a spec of its own. */
  readonly finer: readonly RangeText[];
}

/** The spec of one finer range as typed. */
export type RangeText = Omit<SpecText, 'finer'>;

export const EMPTY_RANGE: RangeText = {
  readingPercent: '',
  rangePercent: '',
  range: '',
  offset: '',
  resolution: '',
  floor: '',
  coverage: 'not stated',
};
export const EMPTY_SPEC: SpecText = { ...EMPTY_RANGE, finer: [] };

const shown = (value: number, quantity: QuantityId): string => (value === 0 ? '' : formatPlain(value, quantity));

const toRangeText = (spec: RangeSpec, quantity: QuantityId): RangeText => ({
  readingPercent: spec.readingPercent === 0 ? '' : String(spec.readingPercent),
  rangePercent: spec.rangePercent === 0 ? '' : String(spec.rangePercent),
  range: shown(spec.range, quantity),
  offset: shown(spec.offset, quantity),
  resolution: shown(spec.resolution, quantity),
  floor: shown(spec.floor, quantity),
  coverage: spec.coverage,
});

export const toSpecText = (spec: AccuracySpec | undefined, quantity: QuantityId): SpecText =>
  spec
    ? { ...toRangeText(spec, quantity), finer: (spec.finer ?? []).map((one) => toRangeText(one, quantity)) }
    : EMPTY_SPEC;

/** Parts as numbers; null when nothing was typed. Unreadable parts become NaN and are refused on saving. */
function fromRangeText({ coverage, ...parts }: RangeText, quantity: QuantityId): RangeSpec | null {
  if (Object.values(parts).every((part) => part.trim() === '')) return null;
  const percent = (typed: string) => (typed.trim() === '' ? 0 : parseDecimal(typed));
  const si = (typed: string) => typedSi(typed, quantity) ?? 0;
  return {
    ...NO_SPEC,
    readingPercent: percent(parts.readingPercent),
    rangePercent: percent(parts.rangePercent),
    range: si(parts.range),
    offset: si(parts.offset),
    resolution: si(parts.resolution),
    floor: si(parts.floor),
    coverage,
  };
}

/** The spec typed; undefined when nothing was. */
export function fromSpecText({ finer, ...outer }: SpecText, quantity: QuantityId): AccuracySpec | undefined {
  const spec = fromRangeText(outer, quantity);
  const ranges = finer.flatMap((one) => fromRangeText(one, quantity) ?? []);
  return spec ? { ...spec, ...(ranges.length > 0 ? { finer: ranges } : {}) } : undefined;
}

/** A spec as one line: `±(0.1 % of reading + 0.03 W)`. */
export function describeSpec(spec: AccuracySpec, quantity: QuantityId): string {
  const finer = (spec.finer ?? []).map(
    (one) => `to ${formatPlain(one.range, quantity)} ${describeRange(one, quantity)}`,
  );
  return [describeRange(spec, quantity), ...finer].join('; ');
}

function describeRange(spec: RangeSpec, quantity: QuantityId): string {
  const parts = [
    spec.readingPercent > 0 && `${spec.readingPercent} % of reading`,
    spec.rangePercent > 0 && `${spec.rangePercent} % of ${formatPlain(spec.range, quantity)}`,
    spec.offset > 0 && formatPlain(spec.offset, quantity),
    spec.resolution > 0 && `½ of ${formatPlain(spec.resolution, quantity)}`,
  ].filter(Boolean);
  const more = [
    spec.coverage === 'not stated' ? '' : 'k = 2',
    spec.floor > 0 ? `from ${formatPlain(spec.floor, quantity)}` : '',
  ].filter(Boolean);
  return `±(${parts.join(' + ')})${more.length > 0 ? `, ${more.join(', ')}` : ''}`;
}
