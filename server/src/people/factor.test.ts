import { Secret } from 'otpauth';
import { describe, expect, it } from 'vitest';
import { factorUri, newFactorSecret, stepOf } from './factor.ts';
import { plainSecret, readableSecret } from './secrets.ts';

// RFC 6238, appendix B: the SHA-1 secret, times, and the last six of its eight digits.
const RFC_SECRET = Secret.fromLatin1('12345678901234567890').base32;

describe('codes by time', () => {
  it.each([
    [59, '287082'],
    [1_111_111_109, '081804'],
    [1_111_111_111, '050471'],
    [1_234_567_890, '005924'],
    [2_000_000_000, '279037'],
  ])('are those of RFC 6238 at %i s', (seconds, code) => {
    expect(stepOf(RFC_SECRET, code, seconds * 1000)).toBe(Math.floor(seconds / 30));
  });

  it('may be typed in two groups, and half a minute early or late', () => {
    expect(stepOf(RFC_SECRET, '279 037', 2_000_000_000_000)).toBe(66_666_666);
    expect(stepOf(RFC_SECRET, '279037', 2_000_000_030_000)).toBe(66_666_666);
    expect(stepOf(RFC_SECRET, '279037', 2_000_000_000_000 - 30_000)).toBe(66_666_666);
    expect(stepOf(RFC_SECRET, '279037', 2_000_000_100_000)).toBeNull();
  });

  it.each(['', '27903', '2790370', '２７９０３７', 'abcdef', '-79037'])('are nothing else: %s', (code) => {
    expect(stepOf(RFC_SECRET, code, 2_000_000_000_000)).toBeNull();
  });

  it('come from secrets of 160 bits, and say whose they are', () => {
    const secret = newFactorSecret();
    expect(secret).toMatch(/^[A-Z2-7]{32}$/);
    expect(factorUri(secret, 'ada@fernwall')).toMatch(/^otpauth:\/\/totp\/Lastmark:ada%40fernwall\?/);
  });
});

describe('codes that are read aloud', () => {
  it('are groups of signs nobody mixes up, and the same however they are typed', () => {
    const code = readableSecret(3);
    expect(code).toMatch(/^[ABCDEFGHJKMNPQRSTVWXYZ2-9]{4}(-[ABCDEFGHJKMNPQRSTVWXYZ2-9]{4}){2}$/);
    expect(plainSecret(` ${code.toLowerCase().replaceAll('-', ' ')}`)).toBe(code.replaceAll('-', ''));
  });
});
