import { type Condition, USUAL_CONDITIONS } from '@lastmark/core/plan';
import { describe, expect, it } from 'vitest';
import { fromConditionText, toConditionText } from './conditionText.ts';

const ALL = Object.values(USUAL_CONDITIONS);
const read = (part: object) => {
  const problems: string[] = [];
  const conditions = fromConditionText({ ...toConditionText(ALL), ...part }, problems);
  return { conditions, problems };
};

describe('conditions as texts', () => {
  it('come back as they went in', () => {
    expect(read({})).toEqual({ conditions: ALL, problems: [] });
    const own: Condition[] = [
      { kind: 'repeat', within: 0.0125, most: 7 },
      { kind: 'unsettled', longest: 600 },
    ];
    expect(fromConditionText(toConditionText(own), [])).toEqual(own);
    expect(fromConditionText(toConditionText([]), [])).toEqual([]);
  });
  it('are read as people write them', () => {
    expect(read({ within: '0,8 %', longest: '1 h', share: '90' }).conditions).toEqual([
      { kind: 'repeat', within: 0.008, most: 4 },
      { kind: 'unsettled', longest: 3600 },
      { kind: 'folded', share: 0.9 },
      { kind: 'dropped' },
      { kind: 'gone' },
    ]);
  });
  it('that cannot be read are said by name, and only while they are on', () => {
    const wrong = { within: '', most: '1', longest: 'long', share: '120' };
    expect(read(wrong).problems).toEqual([
      'Readings altogether: write a number from 2 to 50.',
      'U at most: write per cent between 0 and 100.',
      'Going on: write a time up to 4 h, such as 30 min.',
      'A port must give: write per cent between 0 and 100.',
    ]);
    expect(read({ ...wrong, on: ['gone'] })).toEqual({ conditions: [{ kind: 'gone' }], problems: [] });
  });
});
