// What a record must say beside its figures: when, with what, how warm, by which procedure and class. What is missing is missing in words.
import type { SampleDossier } from '@lastmark/contract';
import { procedureOf } from '@lastmark/core/procedure';
import type { Verdict } from '@lastmark/core/verdict';
import { usedInstruments } from '../dossier/used.ts';

/** Moments of everything measured, oldest first. */
export function momentsOf({ points, runs, captures, cableRuns, readOuts, checks }: SampleDossier): readonly string[] {
  const parts: readonly (readonly { readonly takenAt: string }[] | undefined)[] = [
    points,
    runs,
    captures,
    cableRuns,
    readOuts,
    checks,
  ];
  return parts.flatMap((part) => (part ?? []).map(({ takenAt }) => takenAt)).sort();
}

/** Ambient temperatures that were recorded, °C, each once. */
export const ambientsOf = ({ captures }: SampleDossier): readonly string[] => [
  ...new Set(
    captures.flatMap(({ figures }) =>
      figures.kind === 'soak' && figures.ambient !== null ? [`${figures.ambient.toFixed(1)} °C`] : [],
    ),
  ),
];

/** How a calibration stands on a day. */
export function calibrationWords(due: string | null | undefined, today: string): string {
  if (due == null) return 'calibration not stated';
  return due < today ? `calibration passed ${due}` : `good until ${due}`;
}

/** Class it is judged by, and whether somebody chose it. */
function classWords({ sample }: SampleDossier, verdict: Verdict): string {
  const judged = verdict.results.efficiency?.limits ?? [];
  const classes = [...new Set(judged.map(({ nameplateClass }) => nameplateClass.replace('-', ' ')))];
  if (classes.length === 0) return 'not judged by class';
  const chosen = sample.model.classChoice;
  return `${classes.join(', ')}, ${chosen ? `chosen: ${chosen.reason}` : judged.some(({ overridden }) => overridden) ? 'chosen for a loading' : 'as derived from its offers'}`;
}

/**
 * The record in sentences.
 * @param today the day it is printed, as 2026-03-02
 */
export function recordSentences(dossier: SampleDossier, verdict: Verdict, today: string): readonly string[] {
  const moments = momentsOf(dossier);
  const [first, last] = [moments[0], moments.at(-1)];
  const instruments = usedInstruments(dossier);
  const ambients = ambientsOf(dossier);
  const inLine = dossier.sample.model.kind === 'cable';
  const chosen = dossier.limitSets.filter(({ id }) => dossier.profile.limitSetIds.includes(id));
  const procedures = [...new Set(chosen.map(({ procedureId }) => procedureOf(procedureId).title))];
  return [
    first && last ? `Measured from ${first.slice(0, 10)} to ${last.slice(0, 10)}.` : 'Nothing was measured yet.',
    instruments.length === 0
      ? 'Instruments: not recorded.'
      : `Instruments: ${instruments.map(({ name, calibrationDue }) => `${name} (${calibrationWords(calibrationDue, today)})`).join(', ')}.`,
    `Ambient: ${ambients.length > 0 ? `${ambients.join(', ')} at its soaks` : 'not recorded'}.`,
    ...(inLine
      ? []
      : [
          `Procedure: ${procedures.length > 0 ? procedures.join('; ') : 'none chosen'}.`,
          `Class: ${classWords(dossier, verdict)}.`,
        ]),
  ];
}
