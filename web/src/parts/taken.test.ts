import { describe, expect, it } from 'vitest';
import { parseTaken, toTaken } from './taken.ts';

const NOW = new Date(2026, 2, 10, 12, 0);
const shown = (text: string) => {
  const read = parseTaken(text, NOW);
  return 'reason' in read ? read.reason : toTaken(read.at.toISOString());
};

describe('a moment as typed', () => {
  it.each([
    ['', '2026-03-10 12:00'],
    ['2026-03-02', '2026-03-02 12:00'],
    ['2026-03-02 14:30', '2026-03-02 14:30'],
    ['2026-03-02T09:05', '2026-03-02 09:05'],
    [' 2026-02-28 7.15 ', '2026-02-28 07:15'],
  ])('%j is %s', (text, at) => expect(shown(text)).toBe(at));
  it.each([
    ['yesterday', 'Write it like'],
    ['2.3.2026', 'Write it like'],
    ['2026-02-30', 'no such day'],
    ['2026-03-02 25:00', 'no such day or time'],
    ['2026-03-02 10:75', 'no such day or time'],
    ['2026-03-10 12:01', 'still to come'],
  ])('%j is refused: %s', (text, why) => expect(shown(text)).toContain(why));
});
