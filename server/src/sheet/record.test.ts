import type { SampleDossier } from '@lastmark/contract';
import type { Verdict } from '@lastmark/core/verdict';
import { describe, expect, it } from 'vitest';
import { calibrationWords, recordSentences } from './record.ts';

const EMPTY = {
  sample: { model: { kind: 'wall', classChoice: null } },
  points: [],
  setups: [],
  runs: [],
  captures: [],
  cableRuns: [],
  readOuts: [],
  checks: [],
  rigs: [],
  instruments: [],
  limitSets: [],
  profile: { limitSetIds: [] },
} as unknown as SampleDossier;
const verdict = (limits: readonly object[] = []) => ({ results: { efficiency: { limits } } }) as unknown as Verdict;

describe('the record of a sheet', () => {
  it('says what is missing', () =>
    expect(recordSentences(EMPTY, verdict(), '2026-03-02')).toEqual([
      'Nothing was measured yet.',
      'Instruments: not recorded.',
      'Ambient: not recorded.',
      'Procedure: none chosen.',
      'Class: not judged by class.',
    ]));
  it('names the instruments that were used and no others, with their calibration on the day', () => {
    const dossier = {
      ...EMPTY,
      points: [{ rigId: 'r', takenAt: '2026-03-02T09:00:00.000Z' }],
      rigs: [
        { id: 'r', meters: { mains: 'a', outputVolts: 'b', outputAmps: null, loadEnd: null } },
        { id: 'other', meters: { mains: 'c', outputVolts: null, outputAmps: null, loadEnd: null } },
      ],
      instruments: [
        { id: 'a', name: 'Analyser', calibrationDue: '2027-01-31' },
        { id: 'b', name: 'Multimeter', calibrationDue: '2026-01-31' },
        { id: 'c', name: 'Never used', calibrationDue: null },
        { id: 'd', name: 'Leakage meter' },
      ],
      checks: [{ instrumentId: 'd', takenAt: '2026-03-03T09:00:00.000Z' }],
    } as unknown as SampleDossier;
    const [when, instruments] = recordSentences(dossier, verdict(), '2026-03-02');
    expect(when).toBe('Measured from 2026-03-02 to 2026-03-03.');
    expect(instruments).toBe(
      'Instruments: Analyser (good until 2027-01-31), Multimeter (calibration passed 2026-01-31), Leakage meter (calibration not stated).',
    );
  });
  it('says the class it is judged by, and whether somebody chose it', () => {
    const judged = verdict([{ nameplateClass: 'low-voltage', overridden: false }]);
    expect(recordSentences(EMPTY, judged, '2026-03-02').at(-1)).toBe('Class: low voltage, as derived from its offers.');
    const model = { kind: 'wall', classChoice: { nameplateClass: 'basic', reason: 'one level only' } };
    const chosen = { ...EMPTY, sample: { model } } as unknown as SampleDossier;
    expect(recordSentences(chosen, judged, '2026-03-02').at(-1)).toBe('Class: low voltage, chosen: one level only.');
  });
  it('a calibration that ends today is still good', () =>
    expect(calibrationWords('2026-03-02', '2026-03-02')).toBe('good until 2026-03-02'));
});
