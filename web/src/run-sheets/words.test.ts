import { describe, expect, it } from 'vitest';
import { countdown, howLong, isOver, RUN_WORDS } from './words.ts';

describe('time is told', () => {
  it.each([
    [0, '0 s'],
    [59.4, '59 s'],
    [60, '1 min'],
    [3600, '1 h'],
    [12_000, '3 h 20 min'],
    [-5, '0 s'],
  ])('%d s at a glance as %s', (seconds, text) => expect(howLong(seconds)).toBe(text));

  it.each([
    [0, '0:00'],
    [4.2, '0:05'],
    [245, '4:05'],
    [4800, '1:20:00'],
    [-1, '0:00'],
  ])('%d s as a countdown %s', (seconds, text) => expect(countdown(seconds)).toBe(text));
});

it('every state has a shape of its own, and only two are over', () => {
  const shapes = Object.values(RUN_WORDS).map((words) => words[0]);
  expect(new Set(shapes).size).toBe(shapes.length);
  expect(Object.keys(RUN_WORDS).filter((state) => isOver(state as 'done'))).toEqual(['stopped', 'done']);
});
