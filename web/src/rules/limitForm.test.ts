import { LIMIT_SETS, limitSetProblems } from '@lastmark/core/limits';
import { describe, expect, it } from 'vitest';
import { fromText, toText } from './limitForm.ts';

const [shipped] = LIMIT_SETS;
if (!shipped) throw new Error('No set ships.');

describe('a limit set as it is typed', () => {
  it('comes back the same for every set that ships', () => {
    for (const { id, ...set } of LIMIT_SETS) {
      const read = fromText(toText({ id, ...set }));
      expect(read.ok && { ...read.set, tests: [] }).toEqual({ ...set, tests: [] });
      expect(read.ok && read.set.tests.length).toBe(set.tests.length);
      expect(read.ok && limitSetProblems(read.set)).toEqual([]);
    }
  });

  it('takes a decimal comma, and worked values to the digits they are written with', () => {
    const text = toText(shipped);
    const [first, ...others] = text.formulas;
    if (!first) throw new Error('No formula.');
    const read = fromText({ ...text, formulas: [{ ...first, worked: '10 = 0,8195\n27=0.87' }, ...others] });
    const own = read.ok
      ? read.set.tests.filter(({ nameplateClass, watts }) => nameplateClass === 'basic' && watts < 30)
      : [];
    expect(own).toMatchObject([
      { watts: 10, value: 0.8195, within: expect.closeTo(5e-5, 12) },
      { watts: 27, value: 0.87, within: expect.closeTo(0.005, 12) },
    ]);
  });

  it('says by name what cannot be read', () => {
    const text = toText(shipped);
    const [first, ...others] = text.formulas;
    if (!first) throw new Error('No formula.');
    const pieces = first.pieces.map((piece, index) => (index === 1 ? { ...piece, constant: 'o.67' } : piece));
    const read = fromText({
      ...text,
      title: ' ',
      validFrom: 'soon',
      formulas: [{ ...first, pieces, worked: '10: 0.8' }, ...others],
    });
    expect(read.ok ? [] : read.problems).toEqual([
      'average efficiency, at least, basic: write a worked value as "watts = value", such as 10 = 0.81948; "10: 0.8" is not.',
      'average efficiency, at least, basic, piece 2: "o.67" is not a number.',
      'Give the set a title.',
      'In force from: give a date such as 2028-12-31.',
    ]);
  });
});
