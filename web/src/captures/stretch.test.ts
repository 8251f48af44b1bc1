import { describe, expect, it } from 'vitest';
import { around, dragged, moved, turned, within } from './stretch.ts';

const WHOLE = { length: 10, samples: 100_001 };

describe('a stretch', () => {
  it('comes closer about its middle, and moves', () => {
    expect(around({ from: 2, to: 6 }, 0.5)).toEqual({ from: 3, to: 5 });
    expect(moved({ from: 2, to: 6 }, -0.5)).toEqual({ from: 0, to: 4 });
  });

  it('turned with the wheel keeps what is under the pointer', () => {
    const closer = turned({ from: 0, to: 10 }, 0.2, -100);
    expect(closer.from + 0.2 * (closer.to - closer.from)).toBeCloseTo(2, 12);
    expect(closer.to - closer.from).toBeCloseTo(10 / 1.5, 12);
    const back = turned(closer, 0.2, 100);
    expect([back.from, back.to]).toEqual([expect.closeTo(0, 12), expect.closeTo(10, 12)]);
    // One wild turn does not throw it out of sight.
    expect(turned({ from: 0, to: 10 }, 0.5, -1e6).to).toBeGreaterThan(5.9);
  });

  it('is what was dragged over, either way, and no slip of the hand', () => {
    expect(dragged({ from: 0, to: 10 }, 0.7, 0.2)).toEqual({ from: 2, to: 7 });
    expect(dragged({ from: 0, to: 10 }, 0.5, 0.505)).toBeNull();
  });

  it('stays within the trace and keeps twenty samples', () => {
    expect(within({ from: -3, to: 2 }, WHOLE)).toEqual({ from: 0, to: 5 });
    expect(within({ from: 8, to: 14 }, WHOLE)).toEqual({ from: 4, to: 10 });
    expect(within({ from: -1, to: 12 }, WHOLE)).toBeNull();
    // As wide again as it was, but for rounding.
    for (const factor of [1.5, 1.5 ** 4, 3, 7])
      for (const part of [0.1, 1 / 3, 0.5, 0.9]) {
        const turn = (now: { from: number; to: number }, by: number) => turned(now, part, by * 100 * factor);
        expect(within(turn(turn({ from: 0, to: 10 }, -0.5), 0.5), WHOLE), `${factor} at ${part}`).toBeNull();
      }
    const least = within({ from: 5, to: 5 }, WHOLE);
    expect((least?.to ?? 0) - (least?.from ?? 0)).toBeCloseTo(20 * 1e-4, 12);
  });
});
