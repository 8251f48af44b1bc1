// Where a promise has been proven: volts and amps as measured.
import type { Verdict } from '@lastmark/core/verdict';

export interface ProvenPoint {
  readonly port: string;
  readonly volts: number;
  readonly amps: number;
}

/** Proven full-load points of some ports. */
export function provenPoints(
  { results: { proof } }: { readonly results: Pick<Verdict['results'], 'proof'> },
  ports: readonly string[],
): readonly ProvenPoint[] {
  return proof.steps.flatMap(({ state, step, outputs }) => {
    const [only, ...others] = outputs;
    if (state !== 'proven' || step.load === 0 || !only || others.length > 0 || !ports.includes(only.port)) return [];
    return [{ port: only.port, volts: only.volts.value, amps: only.amps.value }];
  });
}
