// The verdict of a sample for scripts: claims with what stands behind them, figures and stations, without the raw readings.
import type { SampleDossier, SampleVerdict } from '@lastmark/contract';
import { describePromise } from '@lastmark/core/claim';
import { quantityOf } from '@lastmark/core/quantity';
import { judgeSample } from '@lastmark/core/verdict';
import { toJudge } from '../dossier/judged.ts';

/** What is not known, or has no bound, is null: JSON has no infinity. */
const known = (value: number | null | undefined): number | null =>
  value != null && Number.isFinite(value) ? value : null;

/** Everything concluded, SI, in the order of the claims. */
export function toVerdict(dossier: SampleDossier): SampleVerdict {
  const { claims, figures, stations } = judgeSample(toJudge(dossier));
  const { sample, profile } = dossier;
  return {
    sampleId: sample.id,
    tag: sample.tag,
    maker: sample.model.maker,
    model: sample.model.model,
    units: 'SI',
    rule: profile.rule,
    claims: dossier.claims.flatMap((claim, index) => {
      const result = claims[index];
      if (!result) return [];
      return [
        {
          id: claim.id,
          promise: claim.promise,
          says: describePromise(claim.promise),
          printed: claim.printed,
          duration: claim.duration,
          state: result.state,
          sentence: result.sentence,
          notes: [...result.notes],
          tests: result.tests.map(({ quantity, limit, value, expanded, state, probability, evidence }) => ({
            quantity,
            unit: quantityOf(quantity).si,
            value: known(value),
            expanded: known(expanded),
            low: limit.kind === 'at-most' ? null : known(limit.low),
            high: limit.kind === 'at-least' ? null : known(limit.high),
            state,
            probability: known(probability),
            evidence: evidence.kind,
            conditions: evidence.conditions,
          })),
        },
      ];
    }),
    figures,
    stations: stations.map(({ id, title, look, done, total, worst, says }) => ({
      id,
      title,
      look,
      done,
      total,
      worst,
      says: [...says],
    })),
  };
}
