import { describe, expect, it } from 'vitest';
import { readOutStation } from '../read-out/index.ts';
import { dossierFor } from '../testing/verdict.ts';
import { measured } from '../uncertainty/index.ts';
import { type ProofResult, proofStation } from './index.ts';

const nothing: ProofResult = {
  steps: [],
  regulation: [],
  chains: [],
  holds: [],
  causes: [],
  moves: [],
  overs: [],
  devices: [],
  again: null,
  delivered: [],
};
const step = (state: string, read = true) =>
  ({ state, delivered: read ? [{}] : [] }) as unknown as ProofResult['steps'][number];
const says = (part: Partial<ProofResult>) => proofStation.says?.({ ...nothing, ...part }, dossierFor({}));

describe('what proof says', () => {
  it('is nothing when nothing was done', () => expect(says({})).toEqual([]));

  it('counts the steps read, the worst first', () =>
    expect(says({ steps: [step('proven'), step('short'), step('proven'), step('not tested', false)] })).toEqual([
      '3 of 4 load steps read: 1 short, 2 proven.',
    ]));

  it('names the line, and what is still due after a stress', () => {
    const chains = [{ resistance: measured(0.1161, 0.0003) }] as unknown as ProofResult['chains'];
    const again = { since: '', lines: [{ done: false }, { done: true }] } as unknown as ProofResult['again'];
    expect(says({ chains, again })).toEqual([
      'Line between port and load 116.1 ± 0.6 mΩ, corrected.',
      'After the stress 1 port is still to be proved again.',
    ]);
  });
});

describe('what a read-out says', () => {
  it('is its faults, not its notes', () => {
    const findings = [
      { grade: 'fault', port: 'C1', sentence: '15 V is missing.' },
      { grade: 'note', port: 'C1', sentence: '12 V is optional.' },
    ] as unknown as ReturnType<typeof readOutStation.conclude>['findings'];
    expect(readOutStation.says?.({ findings }, dossierFor({}))).toEqual(['Read-out of C1: 15 V is missing.']);
  });
});
