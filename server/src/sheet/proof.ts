// What the sheet says of read-outs and proof: how much was done, and what stands out.

import { formatMeasured } from '@lastmark/core/quantity';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import type { Verdict } from '@lastmark/core/verdict';

function stepsLine({ proof }: Verdict): string | null {
  const read = proof.steps.filter(({ delivered }) => delivered.length > 0);
  if (read.length === 0) return null;
  const count = (state: string) => read.filter((step) => step.state === state).length;
  const told = (['short', 'borderline', 'cannot be decided', 'proven'] as const)
    .flatMap((state) => (count(state) > 0 ? [`${count(state)} ${state}`] : []))
    .join(', ');
  return `${read.length} of ${proof.steps.length} load steps read: ${told}.`;
}

function chainLine({ proof }: Verdict): string | null {
  const found = proof.chains.find(({ resistance }) => resistance);
  if (!found?.resistance) return null;
  const { resistance } = found;
  return `Line between port and load ${formatMeasured(resistance.value, expandedUncertainty(resistance), 'resistance')}, corrected.`;
}

/** Sentences about read-outs and proof, the most telling first; empty when nothing was done. */
export function proofSentences(verdict: Verdict): readonly string[] {
  const { proof, readOutFindings } = verdict;
  const faults = readOutFindings.filter(({ grade }) => grade === 'fault');
  const due = proof.again?.lines.filter(({ done }) => !done).length ?? 0;
  return [
    ...[stepsLine(verdict)].flatMap((line) => line ?? []),
    ...proof.holds.map(({ title, sentence }) => `${title}: ${sentence}`),
    ...proof.overs.map(({ sentence }) => sentence),
    ...proof.moves.map(({ sentence }) => sentence),
    ...faults.map(({ port, sentence }) => `Read-out of ${port}: ${sentence}`),
    ...proof.devices.map(({ sentence }) => sentence),
    ...[chainLine(verdict)].flatMap((line) => line ?? []),
    ...(due > 0 ? [`After the stress ${due} ${due === 1 ? 'port is' : 'ports are'} still to be proved again.`] : []),
  ];
}
