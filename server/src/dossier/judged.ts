// The part of a dossier the calculations use.
import type { SampleDossier } from '@lastmark/contract';
import type { Dossier } from '@lastmark/core/verdict';

export const toJudge = ({ sample, ...rest }: SampleDossier): Dossier => ({ ...rest, sample: sample.model });
