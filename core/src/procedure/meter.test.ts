import { describe, expect, it } from 'vitest';
import { NO_SPEC } from '../uncertainty/index.ts';
import { allowedUncertainty, procedureOf, tooCoarse } from './index.ts';

const fine = { ...NO_SPEC, readingPercent: 0.2, offset: 0.0015 };
const wall = { ...NO_SPEC, readingPercent: 1, offset: 0.1, resolution: 0.1 };

describe('a power meter', () => {
  it('must read to 2 % from half a watt on, and to 10 mW below', () => {
    expect(allowedUncertainty(procedureOf(), 50)).toBe(1);
    expect(allowedUncertainty(procedureOf(), 0.5)).toBe(0.01);
    expect(allowedUncertainty(procedureOf(), 0.075)).toBe(0.01);
  });
  it('fine enough is not spoken of', () => {
    expect(tooCoarse('Analyser', fine, 0.075)).toBeNull();
    expect(tooCoarse('Analyser', fine, 45)).toBeNull();
  });
  it('too coarse is said before it is used', () => {
    expect(tooCoarse('Wall meter', wall, 0.075)).toMatch(
      /^"Wall meter" reads 0\.075 W to ± 0\.13 W; the procedures ask for ± 0\.01 W\./,
    );
  });
  it('nobody stated decides nothing; no limit asks nothing', () => {
    expect(tooCoarse('Meter', undefined, 0.1)).toContain('not stated');
    expect(tooCoarse('Meter', wall, 0)).toBeNull();
    expect(tooCoarse('Meter', wall, Number.NaN)).toBeNull();
  });
});
