import { describe, expect, it } from 'vitest';
import { CLAIM_STATES, evidenceInterval, settle, worstState } from '../evidence/index.ts';
import { measured } from '../uncertainty/index.ts';
import { describeDuration, describePromise } from './describe.ts';
import type { Promised } from './types.ts';

const eu = { kind: 'ac', volts: 230, hertz: 50 } as const;

describe('claims in words', () => {
  it.each<[Promised, string]>([
    [{ kind: 'port-line', port: 'C1', volts: 20, amps: 3.25 }, 'C1: 20 V 3.25 A'],
    [{ kind: 'total', watts: 65 }, 'Total 65 W'],
    [{ kind: 'average-efficiency', ratio: 0.912, mains: null }, 'Average efficiency 91.2 %'],
    [{ kind: 'average-efficiency', ratio: 0.9, mains: eu }, 'Average efficiency 90 % at 230 V 50 Hz'],
    [{ kind: 'idle', watts: 0.075, mains: eu }, 'Idle below 0.075 W at 230 V 50 Hz'],
    [{ kind: 'wording', text: 'calm power' }, '“calm power”'],
  ])('%j', (promise, words) => expect(describePromise(promise)).toBe(words));

  it('say for how long', () => {
    expect(describeDuration({ kind: 'unstated' })).toBe('for how long not stated');
    expect(describeDuration({ kind: 'continuous' })).toBe('continuous');
    expect(describeDuration({ kind: 'peak', seconds: 600 })).toBe('for 600 s');
  });
});

describe('states', () => {
  it('the worst of several comes first in the order', () => {
    expect(worstState(['proven', 'not tested', 'short'], CLAIM_STATES)).toBe('short');
    expect(worstState(['proven', 'assumed'], CLAIM_STATES)).toBe('assumed');
    expect(worstState([], CLAIM_STATES)).toBe('not tested');
  });

  it('one-sided evidence gives way to two-sided, and advertised to both', () => {
    expect(settle(['at least', 'short']).state).toBe('short');
    expect(settle(['advertised only', 'at least']).state).toBe('at least');
    expect(settle(['advertised only', 'not tested']).state).toBe('advertised only');
    expect(settle(['borderline', 'at least']).state).toBe('borderline');
  });

  it('the simple rule takes the value as the truth', () => {
    expect(evidenceInterval('load', measured(45, 1), 'simple')).toEqual({ low: 45, high: 45 });
    expect(evidenceInterval('device', measured(45, 1), 'simple')).toEqual({ low: 45, high: Number.POSITIVE_INFINITY });
  });
});
