import { describe, expect, it } from 'vitest';
import {
  EMPTY_TRIAL,
  heldIn,
  measureWords,
  namesOf,
  pairsNeeded,
  slotWords,
  type TrialForm,
  trialOf,
  valueTyped,
} from './trialForm.ts';

const arms = (...names: string[]) => names.map((name) => ({ name, sampleId: null }));
const form: TrialForm = {
  ...EMPTY_TRIAL,
  question: 'Is braid quicker?',
  factors: [{ name: 'cable', arms: arms('plain', 'braid') }],
  held: 'port: C1\n\nmains: 230 V',
  matters: '1',
  expected: '1',
};
const why = (part: Partial<TrialForm>) => {
  const trial = trialOf({ ...form, ...part }, 1);
  return 'reason' in trial ? trial.reason : 'planned';
};

describe('a trial as typed', () => {
  it('becomes one, in SI', () => {
    expect(trialOf(form, 5)).toMatchObject({
      kind: 'blocks',
      factor: 'cable',
      arms: arms('plain', 'braid'),
      held: [
        { name: 'port', value: 'C1' },
        { name: 'mains', value: '230 V' },
      ],
      matters: 60,
      expected: 60,
      blocks: 10,
      seed: 5,
      blind: false,
    });
    expect(
      trialOf({ ...form, kind: 'matrix', factors: [...form.factors, { name: 'port', arms: arms('C1', 'C2') }] }, 1),
    ).toMatchObject({
      kind: 'matrix',
      factors: [{ name: 'cable' }, { name: 'port', levels: arms('C1', 'C2') }],
    });
  });

  it('says what is missing', () => {
    expect(why({})).toBe('planned');
    expect(why({ question: ' ' })).toContain('question');
    expect(why({ measure: '' })).toContain('measured');
    expect(why({ blocks: 'often' })).toContain('how often');
    expect(why({ factors: [{ name: 'cable', arms: arms('plain', '') }] })).toContain('two of it or more');
    expect(why({ matters: 'much' })).toContain('cannot be read');
    expect(why({ held: 'port C1' })).toContain('a colon');
  });

  it('knows how many pairs it takes', () => {
    expect(pairsNeeded(form)).toBe(10);
    expect(pairsNeeded({ ...form, expected: '' })).toBeNull();
    expect(valueTyped('90 s', 'duration')).toBe(90);
    expect(valueTyped('1.5', 'duration')).toBe(90);
  });

  it('names arms by letters as long as it is blind', () => {
    const trial = trialOf(form, 1);
    if ('reason' in trial) throw new Error(trial.reason);
    expect(namesOf(trial, null)).toEqual(['A', 'B']);
    expect(namesOf(trial, [1, 0])).toEqual(['braid', 'plain']);
    expect(slotWords(trial, [1], [1, 0])).toBe('plain');
    expect(measureWords(trial.measure)).toBe('time to 50 %, min');
    expect(heldIn('')).toEqual([]);
  });
});
