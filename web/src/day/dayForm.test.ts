import type { BenchDay } from '@lastmark/contract/plan';
import { describe, expect, it } from 'vitest';
import { formOf, loanWords, readForm } from './dayForm.ts';

const HOUR = 3600;
const kept: BenchDay = {
  day: '2026-11-30',
  version: 3,
  from: 8 * HOUR,
  setUp: 600,
  people: [
    {
      title: 'Warden',
      there: [
        { from: 8 * HOUR, to: 12 * HOUR },
        { from: 13 * HOUR, to: 24 * HOUR },
      ],
    },
  ],
  sheets: [
    { sheetId: 'a', from: 10.5 * HOUR, due: null, chamberId: 'oven' },
    { sheetId: 'b', from: null, due: 15 * HOUR, chamberId: null },
  ],
  pins: [{ taskId: 'a s1', at: 40_000 }],
};
const name = (id: string) => `sheet ${id}`;

describe('a bench day', () => {
  it('is typed as it was kept, and kept as it is typed', () => {
    const form = formOf(kept);
    expect(form).toMatchObject({ from: '8:00', people: 'Warden 8:00–12:00, 13:00–24:00', setUp: '10' });
    expect(form.sheets[0]).toEqual({ sheetId: 'a', from: '10:30', due: '', chamberId: 'oven' });
    const { day: _day, version: _version, ...body } = kept;
    expect(readForm(form, name)).toMatchObject({ body, problems: [] });
    // Who plans over night has people on the days behind it too.
    expect(readForm(form, name).people[0]?.there).toHaveLength(6);
  });
  it('says what cannot be read, and keeps nothing of it', () => {
    const form = {
      ...formOf(kept),
      from: 'early',
      setUp: '',
      people: '8:00–12:00',
      sheets: [
        { sheetId: 'a', from: '25:00', due: 'noon', chamberId: '' },
        { sheetId: 'b', from: '15:00', due: '9:00', chamberId: '' },
      ],
    };
    expect(readForm(form, name)).toEqual({
      body: null,
      people: [],
      problems: [
        'From: write a time such as 8:00.',
        'Set-up: write the minutes another sample takes, such as 10.',
        'Line 1: write a name before the hours.',
        'sheet a, there from: write a time such as 10:30.',
        'sheet a, back by: write a time such as 15:00.',
        'sheet b goes back before it comes.',
      ],
    });
  });
  it('tells of loans that end', () => {
    const sample = (returnBy: string | null) => ({
      sample: { id: '', maker: '', model: '', serial: '', tag: '', returnBy },
    });
    expect(loanWords(sample(null), '2026-11-30')).toBeNull();
    expect(loanWords(sample('2026-12-01'), '2026-11-30')).toBeNull();
    expect(loanWords(sample('2026-11-30'), '2026-11-30')).toBe('goes back today');
    expect(loanWords(sample('2026-11-28'), '2026-11-30')).toBe('was to go back on 2026-11-28');
  });
});
