import type { Capture } from '@lastmark/core/capture';
import type { LimitLine } from '@lastmark/core/limits';
import type { Verdict } from '@lastmark/core/verdict';
import { describe, expect, it } from 'vitest';
import { indicativeBecause, qualitySentences } from './quality.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const verdict = (idleLimits: readonly LimitLine[] = []) =>
  ({
    results: { efficiency: { series: [], limits: [] }, idle: { draws: [], limits: idleLimits } },
  }) as unknown as Verdict;
const inrush = (id: string, peak: number, supersedes: string | null = null) =>
  ({
    id,
    kind: 'inrush',
    mains: EU,
    setupId: null,
    load: 0,
    port: null,
    supersedes,
    withdrawn: false,
    figures: { kind: 'inrush', peak, at: 1e-4, squareSeconds: 0.29, length: 3e-4, findings: [] },
  }) as unknown as Capture;

describe('the supply side on the sheet', () => {
  it('is the newest capture of each kind and supply that stands', () => {
    expect(qualitySentences([inrush('a', 30), inrush('b', 41), inrush('c', 44, 'b')], verdict())).toEqual([
      'Current as it is switched on, 230 V 50 Hz: 44 A peak, over within 0.3 ms, 0.29 A²s; accuracy of probe and scope not stated.',
    ]);
    expect(qualitySentences([], verdict())).toEqual([]);
  });
});

describe('limits that only indicate', () => {
  const line = (standing: LimitLine['standing'], ...reasons: string[]) =>
    ({ standing, reasons }) as unknown as LimitLine;

  it('say why, the first deviation and how many more', () => {
    const lines = [
      line('indicative', 'Taken at 230 V 50 Hz; the set asks for 115 V 60 Hz.', 'Warm-up is not recorded.'),
      line('indicative', 'Warm-up is not recorded.', 'Supply voltage not recorded.'),
    ];
    expect(indicativeBecause(verdict(lines))).toBe('Limit sets only indicate: Warm-up is not recorded. And 1 more.');
  });

  it('say nothing where one is a verdict, and name the mains where that is all', () => {
    expect(indicativeBecause(verdict([line('verdict'), line('indicative', 'x')]))).toBeNull();
    expect(indicativeBecause(verdict())).toBeNull();
    const mains = [line('indicative', 'Taken at 120 V 60 Hz; the set asks for 230 V 50 Hz.')];
    expect(indicativeBecause(verdict(mains))).toContain('other mains than their own');
  });
});
