import type { Remark } from '@lastmark/contract/together';
import { describe, expect, it } from 'vitest';
import { isOpenQuestion, threadsOf, witnessesOf } from './remarkWords.ts';

const remark = (id: string, part: Partial<Remark> = {}): Remark => ({
  id,
  sampleId: 's',
  about: 'sample',
  aboutId: 's',
  kind: 'note',
  text: id,
  mentions: [],
  answers: null,
  who: 'Ada',
  author: 'ada',
  madeAt: '2026-03-02T09:00:00.000Z',
  ...part,
});

describe('remarks', () => {
  it('stand with open questions first, then the newest, answers below their question', () => {
    const threads = threadsOf([
      remark('1', { kind: 'question' }),
      remark('2'),
      remark('3', { kind: 'question' }),
      remark('4', { kind: 'answer', answers: '1' }),
      remark('5'),
      remark('6', { kind: 'witness', about: 'reading', aboutId: 'r' }),
    ]);
    expect(threads.map((one) => [one.remark.id, one.answers.map(({ id }) => id)])).toEqual([
      ['3', []],
      ['5', []],
      ['2', []],
      ['1', ['4']],
    ]);
    expect(threads.map(isOpenQuestion)).toEqual([true, false, false, false]);
  });

  it('name everybody who looked a second time once', () => {
    const seen = { kind: 'witness', about: 'reading', aboutId: 'r' } as const;
    const all = [
      remark('1', { ...seen, author: 'brook' }),
      remark('2', { ...seen, author: 'brook' }),
      remark('3', { ...seen, author: 'cass' }),
      remark('4', { ...seen, aboutId: 'other', author: 'wren' }),
    ];
    expect(witnessesOf(all, 'r').map(({ author }) => author)).toEqual(['brook', 'cass']);
    expect(witnessesOf([], 'r')).toEqual([]);
  });
});
