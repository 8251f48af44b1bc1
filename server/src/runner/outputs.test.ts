import type { LiveEvent, StoredInstrument, StoredRig } from '@lastmark/contract';
import type { Mains } from '@lastmark/core/reading';
import { describe, expect, it } from 'vitest';
import type { Hands } from './hands.ts';
import { Looks } from './looks.ts';
import { OutputWatch } from './outputs.ts';
import { levelShown } from './steps/set-up.ts';
import { DrawsNothing, Silent } from './turns.ts';

const rig = {
  meters: { mains: 'analyser', outputVolts: 'inline', outputAmps: 'inline', loadEnd: null },
  drives: { load: 'load' },
  outputPlace: 'port',
} as unknown as StoredRig;
const MAINS: Mains = { kind: 'ac', volts: 230, hertz: 50 };
const step = { mains: MAINS, outputs: [{ port: 'C1', volts: 20, amps: 2 }], load: 1, attended: false };
const instrument = (id: string, kind: string) =>
  ({ id, class: kind, name: id, address: '127.0.0.1:1' }) as StoredInstrument;

/** @param shows volts and amps of the inline meter at a time, s, which is asked ten times a second */
function bench(shows: (seconds: number) => readonly [number, number]) {
  let now = 0;
  const own = [
    instrument('analyser', 'power analyser'),
    instrument('inline', 'inline USB meter'),
    instrument('load', 'DC load'),
  ];
  const looks = new Looks(rig, own, ['C1'], () => now);
  const outputs = new OutputWatch(looks, 'port', 'Slate load', ['analyser', 'inline']);
  const look = () => {
    now += 100;
    const tell = (instrumentId: string, values: readonly number[]) =>
      looks.take({ instrumentId, values, problem: null } as unknown as LiveEvent);
    tell('analyser', [now / 1000, 50, 230, 0.3, 0.7]);
    tell('inline', [now / 1000, ...shows(now / 1000)]);
  };
  look();
  /** Mind the output for some seconds. @returns when that ended, s, and why */
  const mind = (seconds: number): { readonly at: number; readonly why: unknown } | null => {
    outputs.expect(step, 60);
    const begun = now;
    while (now - begun < seconds * 1000) {
      look();
      try {
        outputs.mind();
      } catch (why) {
        return { at: (now - begun) / 1000, why };
      }
    }
    return null;
  };
  const hands = {
    looks,
    rig,
    until: async (holds: () => boolean) => {
      while (!holds()) look();
    },
  } as unknown as Hands;
  return { looks, mind, hands, seconds: () => now / 1000 };
}

describe('an output that should be there', () => {
  it('is minded while it is', () => {
    expect(bench(() => [20, 2]).mind(10)).toBeNull();
  });

  it('that is gone in two looks is said to be at once', () => {
    const found = bench((seconds) => (seconds < 1 ? [20, 2] : [0.1, 0])).mind(10);
    expect(found?.why).toBeInstanceOf(Silent);
    expect(found?.at).toBeLessThan(1.4);
  });

  it('a load that draws nothing from it is said to after seconds', () => {
    const found = bench(() => [20, 0]).mind(10);
    expect(found?.why).toBeInstanceOf(DrawsNothing);
    expect(String(found?.why)).toContain('"Slate load" draws 0.000 A from C1 instead of 2.000 A');
    expect(found?.at).toBeGreaterThan(2.4);
    expect(found?.at).toBeLessThan(3);
  });

  it.each([1, 2])('a meter that takes %d s to show the current is waited for', (seconds) => {
    expect(bench((now) => [20, now < seconds ? 0 : 2]).mind(10)).toBeNull();
  });
});

describe('a level that was asked for', () => {
  it('is there when the meter shows it', async () => {
    const { hands, seconds } = bench((now) => [now < 1.2 ? 5.1 : 20, 0]);
    await levelShown(hands, step);
    expect(seconds()).toBeCloseTo(1.2, 6);
  });

  it('that is never shown is not waited for for ever', async () => {
    const { hands, seconds, mind } = bench(() => [5.1, 0]);
    await levelShown(hands, step);
    expect(seconds()).toBeGreaterThan(3);
    expect(seconds()).toBeLessThan(4);
    expect(mind(1)?.why).toBeInstanceOf(Silent);
  });

  it('needs a look newer than the asking', async () => {
    const { hands, seconds } = bench(() => [20, 0]);
    await levelShown(hands, step);
    expect(seconds()).toBeCloseTo(0.3, 6);
  });
});
