import { describe, expect, it } from 'vitest';
import { countAbout, isBehind, isOutdated } from './news.ts';

const A = '01JZZZZZZZZZZZZZZZZZZZZZZA';
const B = '01JZZZZZZZZZZZZZZZZZZZZZZB';
const entry = (sampleId: string | null, subject: string | null = sampleId) => ({
  who: 'Ada',
  what: 'x',
  sampleId,
  subject,
});

describe('what others did', () => {
  it('makes what is about the same sample out of date, and nothing about another', () => {
    expect(isOutdated(['attachments', A], [entry(A)])).toBe(true);
    expect(isOutdated(['attachments', A], [entry(B)])).toBe(false);
    expect(isOutdated(['trials', A], [entry(B, A)])).toBe(true);
  });

  it('at the bench makes its lists out of date; on a sample it does not', () => {
    expect(isOutdated(['rigs'], [entry(null, A)])).toBe(true);
    expect(isOutdated(['rigs'], [entry(A)])).toBe(false);
  });

  it('makes lists without a sample out of date', () => {
    expect(isOutdated(['reports'], [entry(A)])).toBe(true);
    expect(isOutdated(['reports'], [])).toBe(false);
  });

  it('leaves alone what looks after itself, and the shelf, which stands still while it is read', () => {
    for (const name of ['samples', 'dossier', 'who', 'today']) expect(isOutdated([name, A], [entry(A)])).toBe(false);
  });
});

describe('a list', () => {
  it('counts what is about its sample, or may be; one of everything counts all', () => {
    const told = [entry(A), entry(A, B), entry(B), entry(B, A), entry(null, B), null];
    expect(countAbout(told, A)).toBe(4);
    expect(countAbout(told, '')).toBe(6);
    expect(countAbout([], A)).toBe(0);
  });
});

describe('a sample', () => {
  it('is behind when a part of it was changed more often than what is shown', () => {
    expect(isBehind({ points: 3 }, { points: 4 })).toBe(true);
    expect(isBehind({ points: 3 }, { points: 3, runs: 1 })).toBe(true);
    expect(isBehind({ points: 3 }, { points: 3 })).toBe(false);
    // What was written here is ahead of what was told before.
    expect(isBehind({ points: 4 }, { points: 3 })).toBe(false);
    expect(isBehind({}, null)).toBe(false);
  });
});
