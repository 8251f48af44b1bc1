// What the sheet says of the mains side and the supply, and why limits only indicate.
import { type Capture, captureSays, correctionBrackets, currentCaptures, KIND_WORDS } from '@lastmark/core/capture';
import { mainsLabel } from '@lastmark/core/reading';
import type { Verdict } from '@lastmark/core/verdict';

/** The first letter large, as a sentence begins. */
const begun = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;

/** Sentences about the supply side, the newest capture of each kind and supply. */
export function qualitySentences(captures: readonly Capture[], verdict: Verdict): string[] {
  const newest = new Map<string, Capture>();
  for (const capture of currentCaptures(captures))
    newest.set(
      [capture.kind, mainsLabel(capture.mains), capture.setupId, capture.load, capture.port].join('|'),
      capture,
    );
  const brackets = correctionBrackets(verdict.results.efficiency?.series ?? []).filter(
    ({ between }) => between !== null,
  );
  return [
    ...brackets.map(({ name, mains, says }) => `${name}, ${mainsLabel(mains)}: ${says}`),
    ...[...newest.values()].map((capture) => {
      const load = capture.load > 0 ? `, ${Math.round(capture.load * 100)} % load` : '';
      return `${begun(KIND_WORDS[capture.kind])}, ${mainsLabel(capture.mains)}${load}: ${captureSays(capture.figures)}`;
    }),
  ];
}

/** Why limits only indicate, where none of them is a verdict; null where one is or none was held. */
export function indicativeBecause(verdict: Verdict): string | null {
  const lines = [
    ...(verdict.results.idle?.limits ?? []),
    ...(verdict.results.efficiency?.limits ?? []).flatMap(({ lines: own }) => own),
  ];
  if (lines.length === 0 || lines.some(({ standing }) => standing === 'verdict')) return null;
  const reasons = [...new Set(lines.flatMap((line) => line.reasons))];
  const [first = '', ...others] = reasons.filter((reason) => !reason.includes('the set asks for'));
  if (first === '') return 'Limit sets were held against other mains than their own: indicative only.';
  return `Limit sets only indicate: ${first}${others.length > 0 ? ` And ${others.length} more.` : ''}`;
}
