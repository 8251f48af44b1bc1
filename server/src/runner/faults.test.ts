import type { SheetStep } from '@lastmark/core/plan';
import { NO_LIMITS } from '@lastmark/core/plan';
import { describe, expect, it } from 'vitest';
import type { RigDriver } from './driver.ts';
import { faultNow } from './faults.ts';
import type { Looks } from './looks.ts';

const driver = {
  lost: false,
  isOn: true,
  switchedOff: false,
  asked: [],
  loadName: 'Slate DC load',
} as unknown as RigDriver;
const looking = (part: object = {}) =>
  ({
    stands: () => null,
    moment: () => ({ ports: [], hottest: null }),
    heat: () => ({ room: 296, hottest: null }),
    unminded: () => null,
    lost: () => null,
    suspicion: null,
    ...part,
  }) as unknown as Looks;
const now = (part: Partial<Parameters<typeof faultNow>[0]> = {}) =>
  faultNow({ driver, looks: looking(), limits: NO_LIMITS, step: null, telling: [], unwatchedSince: 0, ...part });
const silent = looking({ unminded: () => '"Slate logger" tells nothing any more' });

describe('what switches loads off by itself', () => {
  it('is nothing while all is well, or while no load draws', () => {
    expect(now()).toBeNull();
    const off = { ...driver, isOn: false } as unknown as RigDriver;
    expect(now({ driver: off, looks: silent, limits: { ...NO_LIMITS, hottest: 363.15 } })).toBeNull();
  });

  it('is a limit of temperature that nobody minds any more', () => {
    expect(now({ looks: silent, limits: { ...NO_LIMITS, hottest: 363.15 } })).toBe(
      '"Slate logger" tells nothing any more: nobody minds the limit of 90 °C. See whether a sensor came off; to go on is to go on without it.',
    );
    const step = { hottest: 343.15 } as SheetStep;
    expect(now({ looks: silent, step, limits: { ...NO_LIMITS, hottest: 363.15 } })).toContain('the limit of 70 °C');
    expect(now({ looks: silent })).toBeNull();
  });

  it('is a spot above the limit of its step', () => {
    const looks = looking({ heat: () => ({ room: null, hottest: 344 }) });
    expect(now({ looks, step: { hottest: 343.15 } as SheetStep })).toMatch(/^Hottest spot 70\.85 °C: above this step/);
  });

  it('is an empty chair, the load’s lost connection, a meter that fell silent', () => {
    expect(now({ unwatchedSince: 10_001 })).toContain('Nobody is at the console');
    expect(now({ driver: { ...driver, lost: true } as unknown as RigDriver })).toBe(
      'The connection to "Slate DC load" was lost while it drew.',
    );
    expect(now({ looks: looking({ lost: () => ({ name: 'Slate meter' }) }) })).toBe(
      '"Slate meter" tells nothing any more.',
    );
  });
});
