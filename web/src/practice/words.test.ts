import type { DrillRow } from '@lastmark/contract/practice';
import type { DrillResult } from '@lastmark/core/drill';
import { describe, expect, it } from 'vitest';
import { benchTime, drillWords, progressOf, resultWords } from './words.ts';

const effort = { steps: 1, seconds: 60 };
const result = (part: Partial<DrillResult> = {}): DrillResult => ({
  found: 1,
  hidden: 1,
  slips: [],
  used: effort,
  good: effort,
  budget: 900,
  passed: true,
  ...part,
});
const slip = { kind: 'missed' as const, partId: 'a', faultId: 'lossy', says: '', caughtBy: '' };
const row = (part: Partial<DrillRow>): DrillRow => ({
  id: 'd',
  person: 'Ines',
  levelId: 'one',
  seed: 1,
  state: 'stated',
  startedAt: '2026-03-01T08:00:00.000Z',
  endedAt: null,
  result: result(),
  ...part,
});

describe('drills in words', () => {
  it('tell bench time', () => {
    expect([benchTime(0), benchTime(3540), benchTime(3900), benchTime(-5)]).toEqual([
      '0 min',
      '59 min',
      '1 h 05 min',
      '0 min',
    ]);
  });
  it('tell how one went', () => {
    expect(resultWords(result())).toBe('Passed: all of 1 found');
    expect(resultWords(result({ found: 0, hidden: 0 }))).toBe('Passed: nothing was hidden');
    expect(resultWords(result({ hidden: 2, slips: [slip], passed: false }))).toBe('1 of 2 found, one slip');
    expect(resultWords(result({ hidden: 0, found: 0, slips: [slip, slip], passed: false }))).toBe(
      'Nothing was hidden, 2 slips',
    );
    expect(drillWords(row({ state: 'left', result: null }))).toBe('left without a verdict');
    expect(drillWords(row({ state: 'under way', result: null }))).toBe('under way');
  });
  it('tell how far each person is', () => {
    const rows = [
      row({}),
      row({ levelId: 'two', result: result({ passed: false, slips: [slip] }) }),
      row({ person: 'Odo', state: 'left', result: null }),
      row({ levelId: 'one' }),
    ];
    expect(progressOf(rows)).toEqual([
      { person: 'Ines', tried: 3, passed: 2, levels: new Set(['one']) },
      { person: 'Odo', tried: 0, passed: 0, levels: new Set() },
    ]);
    expect(progressOf([])).toEqual([]);
  });
});
