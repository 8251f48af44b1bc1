import type { ShareLine, SplitRow } from '@lastmark/core/split';
import { describe, expect, it } from 'vitest';
import { columnsOf, shareWords, totalWords } from './matrix.ts';

const line = (ports: string[], value: number | null = null): ShareLine => ({
  ports,
  promised: null,
  measured: value === null ? null : { low: value - 0.1, high: value + 0.1 },
  value,
  state: null,
  more: false,
});
const row = (lines: ShareLine[], total: SplitRow['total'] = null): SplitRow => ({
  occupied: lines.flatMap(({ ports }) => ports),
  promised: null,
  total,
  lines,
  charging: null,
  sourceIds: [],
});
const PORTS = ['C1', 'C2', 'A1'];
const shape = (lines: ShareLine[]) =>
  columnsOf(row(lines), PORTS).map(({ port, span, line: found }) => `${port}×${span} ${found?.ports.join('+') ?? '-'}`);

describe('a combination over the columns of the ports', () => {
  it('leaves ports that are not occupied empty', () =>
    expect(shape([line(['C1'], 60), line(['A1'], 12)])).toEqual(['C1×1 C1', 'C2×1 -', 'A1×1 A1']));
  it('draws a shared promise over neighbours as one', () =>
    expect(shape([line(['C1'], 60), line(['C2', 'A1'])])).toEqual(['C1×1 C1', 'C2×2 C2+A1']));
  it('names it once where its ports are no neighbours', () =>
    expect(shape([line(['A1', 'C1']), line(['C2'], 5)])).toEqual(['C1×1 A1+C1', 'C2×1 C2', 'A1×1 -']));
});

describe('its numbers', () => {
  it('say a metered value, or both ends rounded outwards', () => {
    expect(shareWords({ value: 59.96, measured: { low: 59.9, high: 60 } }, 1)).toBe('60.0');
    expect(shareWords({ value: null, measured: { low: 10.19, high: 11.01 } }, 1)).toBe('10.1…11.1');
    expect(shareWords({ value: null, measured: { low: 53, high: Number.POSITIVE_INFINITY } }, 0)).toBe('at least 53');
    expect(shareWords({ value: null, measured: null }, 0)).toBe('–');
  });
  it('add up only where every port was metered', () => {
    const total = { low: 71, high: 73, most: 73, assumed: null, unstated: [] };
    expect(totalWords(row([line(['C1'], 60), line(['A1'], 12)], total))).toBe('72.0 W');
    expect(totalWords(row([line(['C1'], 60), line(['A1'])], total))).toBe('71.0…73.0 W');
    expect(totalWords(row([line(['C1'])]))).toBe('not read');
  });
});
