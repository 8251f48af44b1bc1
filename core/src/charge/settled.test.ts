import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../random/index.ts';
import { readTrace } from '../trace/index.ts';
import { settledOf } from './settled.ts';

const normal = seededNormal(seededRandom(3));
/** A log of a second each: watts at 9 V. */
function settled(watts: (t: number) => number, seconds: number) {
  const rows = Array.from({ length: seconds }, (_, t) => {
    const volts = 9 + 0.003 * normal();
    return `${t},${volts.toFixed(3)},${(watts(t) / volts).toFixed(4)}`;
  });
  const read = readTrace(['time [s],V [V],A [A]', ...rows].join('\n'));
  if (!read.ok) throw new Error(read.reason);
  const found = settledOf(read.trace);
  if ('reason' in found) throw new Error(found.reason);
  return found;
}

describe('a settled device reading', () => {
  it('has peak, plateau and mean apart', () => {
    // A ramp of a minute, 20 W with a peak of ten seconds, then 14 W for the last two minutes.
    const found = settled(
      (t) => (t < 60 ? t / 3 : t >= 300 && t < 310 ? 30 : t < 600 ? 20 : 14) + 0.05 * normal(),
      720,
    );
    expect(found.peak).toBeCloseTo(30, 0);
    expect(found.plateau?.watts).toBeCloseTo(20, 1);
    expect(found.plateau?.volts).toBeCloseTo(9, 2);
    expect(found.plateau?.seconds).toBeGreaterThan(280);
    // After three minutes: 410 s at 20 W, 10 s at 30 W, 120 s at 14 W.
    expect(found.mean).toBeCloseTo((410 * 20 + 10 * 30 + 120 * 14) / 540, 1);
    expect(found.spread).toBeGreaterThan(2);
    expect(found.findings).toContain('It was still falling at the end: not settled.');
  });

  it('takes no flicker for a plateau', () => {
    const found = settled((t) => (t % 40 < 8 ? 25 : 12 + (t % 40) / 8), 600);
    expect(found.plateau).toBeNull();
    expect(found.findings).toContain('It never stayed within 3 % for a minute: there is no plateau.');
  });

  it('says that it ramps, was logged too shortly, or drew nothing', () => {
    expect(settled((t) => 5 + t / 60, 600).findings).toContain('It was still rising at the end: not settled.');
    expect(settled(() => 18, 120).findings[0]).toBe('Logged for 2 min: 3 min are the least to settle.');
    expect(settled(() => 0.05, 400)).toMatchObject({
      plateau: null,
      findings: ['It drew next to nothing: asleep, full, or not started.'],
    });
  });

  it('says that power flows the other way', () => {
    expect(settled(() => -8, 400).findings[0]).toContain('Power flows the other way');
  });

  it('is none in thousandths that do not say so', () => {
    const read = readTrace(
      `t,Power\n${Array.from({ length: 300 }, (_, t) => `${t},${20_000 + (t % 7)}`).join('\n')}\n`,
    );
    expect(read.ok && settledOf(read.trace)).toEqual({ reason: expect.stringContaining('is that mW?') });
  });

  it('is none without power, or in three seconds', () => {
    const read = (text: string) => {
      const found = readTrace(text);
      if (!found.ok) throw new Error(found.reason);
      return settledOf(found.trace);
    };
    expect(read('time [s],level [%]\n0,20\n60,21\n120,22')).toEqual({
      reason: 'No power in it. Name columns with their unit, such as W, or V and A.',
    });
    expect(read('time [s],power [W]\n0,20\n1,21\n2,20')).toEqual({ reason: 'Too short: log a few minutes.' });
  });
});
