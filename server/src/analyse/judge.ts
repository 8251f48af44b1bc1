// The verdict of a package without a server: the same calculation, and the same JSON as GET /api/samples/{id}/verdict.
import { readFile } from 'node:fs/promises';
import { stateWord } from '@lastmark/core/station';
import { toVerdict } from '../export/verdict.ts';
import { PackageRefused, type ReadPackage, readStudy } from '../packages/read.ts';
import type { Analysis } from './kinds.ts';
import type { Options } from './options.ts';

function judged({ dossier }: ReadPackage): Analysis {
  const verdict = toVerdict(dossier);
  return {
    figures: verdict,
    says: [
      `${verdict.maker} ${verdict.model}, unit ${verdict.tag}`,
      ...verdict.claims.map(({ says, state, sentence }) => `${stateWord(state)}: ${says}. ${sentence}`),
      ...(verdict.claims.length === 0 ? ['Nothing was promised.'] : []),
    ],
  };
}

/** One sample as its verdict; a study as the verdicts of its samples, in its order. */
export async function analysePackage({ file }: Options): Promise<Analysis | { readonly reason: string }> {
  const bytes = await readFile(file);
  try {
    const { title, samples, files } = readStudy(bytes);
    const all = samples.map(judged);
    const [one] = all;
    // A study is a list, also of one.
    if (files === null && one) return one;
    return { figures: { title, samples: all.map(({ figures }) => figures) }, says: all.flatMap(({ says }) => says) };
  } catch (error) {
    if (error instanceof PackageRefused) return { reason: error.message };
    // What is read there was shaped by somebody else: what the arithmetic cannot take is said, not thrown.
    if (error instanceof RangeError || error instanceof TypeError)
      return { reason: 'Something in it cannot be worked out: it was not made by this program.' };
    throw error;
  }
}
