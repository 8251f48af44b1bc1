import { describe, expect, it } from 'vitest';
import { aCable, aCopy, aLook, aSeries } from '../testing/cable.ts';
import { cableRunRefusal, cableWords, describeCableRun, placesOf, pricePerMetre, stiffnessWords } from './index.ts';

describe('what sits in a line', () => {
  it('is said in a few words', () => {
    expect(cableWords(aCable({ braid: true, length: 1.5 }))).toBe('C plug to C plug, 1.5 m, braided');
    expect(cableWords(aCable({ form: 'data blocker', ends: ['A plug', 'A socket'], length: null }))).toBe(
      'data blocker, A plug to A socket',
    );
    expect(stiffnessWords({ how: 'droop', over: 0.2, droop: 0.05 })).toBe('droops 50 mm over 200 mm');
    expect(stiffnessWords({ how: 'bend radius', radius: 0.019 })).toBe('bends to a radius of 19 mm');
  });
  it('costs so much a metre, of what one of a pack costs', () => {
    expect(pricePerMetre({ amount: 18, pack: 2, length: 1.5 })).toBe(6);
    expect(pricePerMetre({ amount: 18, pack: 2, length: null })).toBeNull();
    expect(pricePerMetre({ amount: 18, pack: 0, length: 1 })).toBeNull();
  });
  it('is read at both ends, a charger at its ports', () => {
    expect(placesOf({ kind: 'cable', ports: [] })).toEqual(['near', 'far']);
    expect(placesOf({ kind: 'wall', ports: [{ label: 'C1' }] })).toEqual(['C1']);
  });
});

describe('what is done with it', () => {
  it('is told by its number', () => {
    expect(describeCableRun(aSeries(0.1))).toBe('Both conductors, 8 readings up to 3 A');
    expect(describeCableRun(aCopy())).toBe('one file of 2 GB to the device: 40.0 MB/s');
    expect(describeCableRun(aLook(2000, { fault: 'bump' }))).toBe('2000 bends: bump');
  });

  const step = { amps: 3, near: null, far: null, drop: null, temperature: null };
  it.each([
    [aSeries(0.1), null],
    [aSeries(0.1, { steps: [step] }), 'Reading 1: type the drop.'],
    [aSeries(0.1, { how: 'two meters', steps: [{ ...step, near: 20 }] }), 'Reading 1: type the volts at both ends.'],
    [aSeries(0.1, { how: 'two meters', steps: [{ ...step, near: 19.4, far: 20 }] }), 'Are the two swapped?'],
    [aSeries(0.1, { how: 'two meters', steps: [{ ...step, amps: 0.001, near: 20, far: 20.0004 }] }), null],
    [aSeries(0.1, { how: 'two meters', steps: [{ ...step, amps: 0.001, near: 5, far: 5.2 }] }), 'Are the two swapped?'],
    [aSeries(0.1, { steps: [{ ...step, drop: 7 }] }), 'Check the meters.'],
    [aSeries(0.1, { steps: [{ ...step, amps: 0, drop: 0 }] }), 'Without a current there is no drop'],
    [aCopy({ seconds: 0.001 }), 'more than any cable carries'],
    [aCopy({ seconds: 20, link: 480e6 }), 'from a cache'],
    [aCopy({ link: 480e6 }), null],
    [aLook(3000, { bends: 4000 }), 'It had 4000 bends before'],
    [aLook(3000), 'It had 6000 bends already'],
    [aLook(3000, { supersedes: 'look', withdrawn: true }), null],
    [aLook(9000), null],
  ])('%# is taken, or refused with a sentence', (run, why) => {
    const refusal = cableRunRefusal(run, [aLook(6000)]);
    if (why === null) expect(refusal).toBeNull();
    else expect(refusal).toContain(why);
  });
});
