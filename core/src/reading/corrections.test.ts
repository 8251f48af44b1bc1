import { describe, expect, it } from 'vitest';
import { correctionsOf } from './index.ts';
import type { Point, Reading } from './types.ts';

const reading = (id: string, typed: string, takenAt: string, supersedes: string | null = null): Reading => ({
  id,
  quantity: 'power',
  place: 'mains',
  port: null,
  value: typed === '' ? null : Number(typed),
  u: 0.1,
  count: 1,
  spread: 0,
  typed,
  instrumentId: null,
  takenAt,
  source: 'keypad',
  supersedes,
});
const point = (readings: Reading[]): Point => ({
  id: 'p',
  setupId: null,
  mains: { kind: 'ac', volts: 230, hertz: 50 },
  load: 0,
  attached: 'nothing',
  evidence: 'load',
  rigId: 'r',
  takenAt: '2026-03-02T09:00:00.000Z',
  override: null,
  readings,
});
const DAY = '2026-03-01T00:00:00.000Z';

describe('corrections', () => {
  const corrected = point([
    reading('a', '71', '2026-03-02T09:00:00.000Z'),
    reading('b', '61', '2026-03-02T09:05:00.000Z', 'a'),
    reading('c', '', '2026-03-03T09:00:00.000Z', 'b'),
  ]);
  it('say what it was and what it is now, the newest first', () =>
    expect(correctionsOf([corrected], DAY).map(({ was, now, standing }) => [was.typed, now.typed, standing])).toEqual([
      ['61', '', true],
      ['71', '61', false],
    ]));
  it('of long ago are left out', () =>
    expect(correctionsOf([corrected], '2026-03-02T23:00:00.000Z').map(({ now }) => now.id)).toEqual(['c']));
  it('of what was never corrected there are none', () => {
    expect(correctionsOf([point([reading('a', '71', '2026-03-02T09:00:00.000Z')])], DAY)).toEqual([]);
    expect(correctionsOf([point([reading('b', '61', '2026-03-02T09:00:00.000Z', 'lost')])], DAY)).toEqual([]);
  });
});
