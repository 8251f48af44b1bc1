// An accuracy spec as typed, in the units people know.
import { formatPlain, parseDecimal, type QuantityId } from '@lastmark/core/quantity';
import { type AccuracySpec, type Coverage, NO_SPEC } from '@lastmark/core/uncertainty';
import { typedSi } from '../parts/fields.tsx';

export interface SpecText {
  readonly readingPercent: string;
  readonly rangePercent: string;
  readonly range: string;
  readonly offset: string;
  readonly resolution: string;
  readonly floor: string;
  readonly coverage: Coverage;
}

export const EMPTY_SPEC: SpecText = {
  readingPercent: '',
  rangePercent: '',
  range: '',
  offset: '',
  resolution: '',
  floor: '',
  coverage: 'not stated',
};

const shown = (value: number, quantity: QuantityId): string => (value === 0 ? '' : formatPlain(value, quantity));

export function toSpecText(spec: AccuracySpec | undefined, quantity: QuantityId): SpecText {
  if (!spec) return EMPTY_SPEC;
  return {
    readingPercent: spec.readingPercent === 0 ? '' : String(spec.readingPercent),
    rangePercent: spec.rangePercent === 0 ? '' : String(spec.rangePercent),
    range: shown(spec.range, quantity),
    offset: shown(spec.offset, quantity),
    resolution: shown(spec.resolution, quantity),
    floor: shown(spec.floor, quantity),
    coverage: spec.coverage,
  };
}

/** The spec typed; undefined when nothing was. Unreadable parts become NaN and are refused on saving. */
export function fromSpecText(text: SpecText, quantity: QuantityId): AccuracySpec | undefined {
  const { coverage, ...parts } = text;
  if (Object.values(parts).every((part) => part.trim() === '')) return undefined;
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

/** A spec as one line: `±(0.1 % of reading + 0.03 W)`. */
export function describeSpec(spec: AccuracySpec, quantity: QuantityId): string {
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
