// What a trial comes to, in sentences: the same on its own page and at the samples it compares.
import type { StoredTrial } from '@lastmark/contract/types';
import { analyseBlocks, analyseMatrix, type BlockTrial } from '@lastmark/core/trial';
import { namesOf } from './trialForm.ts';

/** Arms in the order of their letters, so that what is run by letter is analysed by letter. */
export function lettered({ trial, letters }: Pick<StoredTrial, 'trial' | 'letters'>): StoredTrial['trial'] {
  if (trial.kind !== 'blocks' || letters === null) return trial;
  return { ...trial, arms: letters.map((at) => trial.arms[at] ?? (trial.arms[0] as BlockTrial['arms'][number])) };
}

/**
 * What it says of a sample: the comparisons it is in, or which of a table explains what.
 * @param sampleId null for all of it
 */
export function trialSays(stored: StoredTrial, sampleId: string | null = null): readonly string[] {
  const trial = lettered(stored);
  if (trial.kind === 'matrix') {
    const result = analyseMatrix(trial, stored.runs);
    return result ? [result.sentence] : [];
  }
  // As long as it is blind nobody knows which of them the sample is.
  const known = stored.letters !== null;
  const isIn = (arm: number) => sampleId === null || !known || trial.arms[arm]?.sampleId === sampleId;
  return analyseBlocks(trial, stored.runs, namesOf(stored.trial, stored.letters)).comparisons.flatMap(
    ({ from, to, sentence }) => (isIn(from) || isIn(to) ? [sentence] : []),
  );
}
