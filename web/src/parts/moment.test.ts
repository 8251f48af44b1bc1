import { describe, expect, it } from 'vitest';
import { browserText, loggedText, momentText } from './moment.ts';

describe('a moment', () => {
  it('is told by the clock of whoever looks, to the minute', () => {
    const local = new Date(2026, 2, 2, 9, 5, 59);
    expect(momentText(local.toISOString())).toBe('2026-03-02 09:05');
    expect(loggedText(local.toISOString())).toBe('2026-03-02 09:05');
    expect(loggedText(`${local.toISOString().slice(0, 16)}Z`)).toBe('2026-03-02 09:05');
  });

  it.each(['2026-03-02', '20 V', 'at 2026-03-02T09:05:59.000Z', '2026-03-02T09:05', ''])(
    'is none for the log: %j stands as it is',
    (value) => expect(loggedText(value)).toBe(value),
  );
});

describe('a browser', () => {
  it.each([
    ['Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0', 'Firefox on Linux'],
    ['Mozilla/5.0 (Windows NT 10.0) Chrome/126.0 Safari/537.36 Edg/126.0', 'Edge on Windows'],
    ['Mozilla/5.0 (Linux; Android 14) Chrome/126.0 Mobile Safari/537.36', 'Chrome or Chromium on Android'],
    ['Mozilla/5.0 (iPhone; CPU iPhone OS 17_5 like Mac OS X) Version/17.5 Safari/604.1', 'Safari on iOS'],
    ['curl/8.5', 'curl/8.5'],
    ['', 'no name'],
  ])('is known by what it says: %s', (agent, text) => expect(browserText(agent)).toBe(text));
});
