import { measured } from '@lastmark/core/uncertainty';
import type { Verdict } from '@lastmark/core/verdict';
import { describe, expect, it } from 'vitest';
import { proofSentences } from './proof.ts';

const nothing = {
  readOutFindings: [],
  proof: {
    steps: [],
    regulation: [],
    chains: [],
    holds: [],
    moves: [],
    overs: [],
    devices: [],
    again: null,
    delivered: [],
  },
} as unknown as Verdict;
const step = (state: string) => ({ state, delivered: [{}] });

describe('what the sheet says of proof', () => {
  it('is nothing when nothing was done', () => expect(proofSentences(nothing)).toEqual([]));

  it('counts the steps read, the worst first', () => {
    const verdict = {
      ...nothing,
      proof: {
        ...nothing.proof,
        steps: [step('proven'), step('short'), step('proven'), { state: 'not tested', delivered: [] }],
      },
    } as unknown as Verdict;
    expect(proofSentences(verdict)).toEqual(['3 of 4 load steps read: 1 short, 2 proven.']);
  });

  it('names faults of the read-out, the line, and what is still due', () => {
    const verdict = {
      ...nothing,
      readOutFindings: [
        { grade: 'fault', port: 'C1', sentence: '15 V is missing.' },
        { grade: 'note', port: 'C1', sentence: '12 V is optional.' },
      ],
      proof: {
        ...nothing.proof,
        chains: [{ resistance: measured(0.1161, 0.0003) }],
        again: { since: '', lines: [{ done: false }, { done: true }] },
      },
    } as unknown as Verdict;
    expect(proofSentences(verdict)).toEqual([
      'Read-out of C1: 15 V is missing.',
      'Line between port and load 116.1 ± 0.6 mΩ, corrected.',
      'After the stress 1 port is still to be proved again.',
    ]);
  });
});
