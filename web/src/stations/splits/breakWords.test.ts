import { expect, it } from 'vitest';
import { breakWords } from './breakWords.ts';

it.each<[number, number | null | undefined, string]>([
  [0.82, 0.2, '0.82 ± 0.20 s'],
  [0.824, 0.012, '0.824 ± 0.012 s'],
  [1.1, undefined, '1.1 s'],
  [1.1, null, '1.1 s'],
])('a break of %s s, off by %s, is told as %s', (seconds, offBy, words) => {
  expect(breakWords(seconds, offBy)).toBe(words);
});
