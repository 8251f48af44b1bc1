// What an amended report says otherwise than its forerunner: claims, figures, by their names.
import { draftConclusion, draftFigures, type FigureChange } from '../conclusion/index.ts';
import type { Dossier, Verdict } from '../verdict/types.ts';

/** Figures of a report by what they are of: each claim with its state and what was found, and the key figures. */
export function figuresOfReport(
  dossier: Dossier,
  verdict: Verdict,
): ReadonlyMap<string, { readonly name: string; readonly words: string }> {
  const all = new Map<string, { name: string; words: string }>();
  dossier.claims.forEach((claim, at) => {
    const result = verdict.claims[at];
    if (!result) return;
    const { promise = '', found } = draftFigures(claim, result, dossier);
    all.set(claim.id, { name: promise, words: found === undefined ? result.state : `${result.state}, ${found}` });
  });
  for (const { key, figures } of draftConclusion(dossier, verdict, { obtained: '', disclosure: '' }))
    if ((key === 'average' || key === 'idle') && figures.found !== undefined)
      all.set(key, { name: key === 'average' ? 'Average efficiency' : 'Idle', words: figures.found });
  return all;
}

/** What changed between two of them; nothing where all of it says the same. */
export function changesBetween(
  was: ReturnType<typeof figuresOfReport>,
  is: ReturnType<typeof figuresOfReport>,
): readonly FigureChange[] {
  const keys = [...new Set([...was.keys(), ...is.keys()])];
  return keys.flatMap((key) => {
    const [before, now] = [was.get(key), is.get(key)];
    if (before?.words === now?.words) return [];
    return [{ name: now?.name ?? before?.name ?? key, was: before?.words ?? null, is: now?.words ?? null }];
  });
}
