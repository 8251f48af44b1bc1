import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random/index.ts';
import { captureFigures, type IdleFigures, readCapture } from './index.ts';

/** An idle record: 45 mW with a burst of 345 mW every thirty seconds. */
const watts = (second: number) => (second % 30 === 0 ? 0.345 : 0.045);

/** @param when where each second is logged, s; null where its line is missing @param cell what stands there */
function logged(
  when: (second: number) => number | null,
  cell: (second: number) => string = (at) => watts(at).toFixed(4),
) {
  const lines = Array.from({ length: 900 }, (_, second) => {
    const time = when(second);
    return time === null ? [] : [`${time.toFixed(3)},${cell(second)}`];
  }).flat();
  return ['t (s),Power (W)', ...lines].join('\n');
}

function idle(text: string) {
  const read = readCapture('idle', text);
  if (!read.ok) throw new Error(read.reason);
  const figures = captureFigures('idle', read.trace);
  if ('reason' in figures) throw new Error(figures.reason);
  return { figures: figures as IdleFigures, remarks: read.remarks, gaps: read.trace.gaps ?? [] };
}

/** Mean of the whole: one burst in thirty. */
const MEAN = 0.045 + 0.3 / 30;

describe('a log with lines left out', () => {
  const random = seededRandom(4);
  const missing = Array.from({ length: 900 }, (_, second) => second % 30 !== 0 && random() < 0.03);
  const found = idle(logged((second) => (missing[second] ? null : second + (second % 3) * 0.02)));

  it('keeps every sample where it was, and says what it did', () => {
    expect(found.remarks).toEqual(['Lines are left out in it: in their place the values lie on straight lines.']);
    expect(found.gaps).toEqual([]);
    expect(found.figures.watts).toBeCloseTo(MEAN, 3);
  });

  it('has its bursts as high as they were', () => {
    expect(found.figures.bursts).toBe(30);
    expect(found.figures.burst).toBeGreaterThan(0.33);
  });
});

describe('a log with cells left out', () => {
  it('goes on straight over a few, and has a gap over many', () => {
    const few = idle(
      logged(
        (second) => second,
        (at) => (at % 50 === 7 ? '' : watts(at).toFixed(4)),
      ),
    );
    expect([few.gaps, few.remarks.some((one) => one.includes('empty'))]).toEqual([[], true]);
    expect(few.figures.watts).toBeCloseTo(MEAN, 3);
    const many = idle(
      logged(
        (second) => second,
        (at) => (at > 600 && at < 700 ? '' : watts(at).toFixed(4)),
      ),
    );
    expect(many.gaps).toEqual([{ from: 600, to: 700 }]);
    expect(many.figures.findings.join(' ')).toContain('600.0 to 700.0 s');
  });
});

describe('a log that is early and late', () => {
  const random = seededRandom(9);
  const found = idle(logged((second) => second + (random() - 0.5) * 0.8));

  it('has its mean, and says that short things show lower', () => {
    expect(Math.abs(found.figures.watts / MEAN - 1)).toBeLessThan(0.03);
    expect(found.remarks.join(' ')).toMatch(/^Its times are uneven, mostly .* lower than it was\.$/);
  });
});

describe('a log that paused', () => {
  it('has a gap there, which is not bridged', () => {
    const found = idle(logged((second) => (second < 450 ? second : second + 3600)));
    expect(found.gaps).toEqual([{ from: 449, to: 4050 }]);
    expect(found.figures.watts).toBeCloseTo(MEAN, 3);
  });
});

it('a wave with uneven times is refused with where', () => {
  const lines = Array.from({ length: 200 }, (_, at) => `${(at + (at > 100 ? 3 : 0)) * 1e-4},1,1`);
  expect(readCapture('waveform', ['t (s),U (V),I (A)', ...lines].join('\n'))).toMatchObject({
    ok: false,
    reason: 'Times are not evenly spaced from 0.01 s on (mostly 0.0001 s apart). Export it with a fixed sample rate.',
  });
});
