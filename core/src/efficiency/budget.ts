// Where the uncertainty of an efficiency comes from: each source with its share, the largest first.
import { standardUncertainty } from '../uncertainty/index.ts';
import type { LoadResult } from './series.ts';

export interface BudgetLine {
  /** What it is: "input watts", "C1 volts". */
  readonly source: string;
  /** Standard uncertainty it brings to the efficiency, as a fraction. */
  readonly u: number;
  /** Its part of the whole; all add up to 1. Below zero for what one meter on both sides takes off. */
  readonly share: number;
}

export interface EfficiencyBudget {
  readonly lines: readonly BudgetLine[];
  /** Combined standard uncertainty of the efficiency. */
  readonly u: number;
  /** Where effort helps most, in a sentence. */
  readonly advice: string;
}

/**
 * Budget of one load point. η = ΣVᵢIᵢ/Pin, so ∂η/∂Pin = −η/Pin, ∂η/∂Vᵢ = Iᵢ/Pin, ∂η/∂Iᵢ = Vᵢ/Pin; what volts and amps do
 * not explain of an output is its lead, and repeats count as they scatter. JCGM 100:2008, 5.1.2 and table H.1.
 */
export function efficiencyBudget({
  efficiency,
  input,
  outputs,
}: Pick<LoadResult, 'efficiency' | 'input' | 'outputs'>): EfficiencyBudget {
  const eta = efficiency.value;
  const parts = [
    { source: 'input watts', u: (eta * input.uInstrument) / input.value },
    ...outputs.flatMap(({ port, volts, amps, watts }) => {
      const byVolts = (amps.value * volts.uInstrument) / input.value;
      const byAmps = (volts.value * amps.uInstrument) / input.value;
      const rest = Math.sqrt(Math.max(0, (watts.uInstrument / input.value) ** 2 - byVolts ** 2 - byAmps ** 2));
      return [
        { source: `${port} volts`, u: byVolts },
        { source: `${port} amps`, u: byAmps },
        { source: `${port} lead`, u: rest },
      ];
    }),
    { source: 'repeats', u: efficiency.uRepeat },
  ];
  const alone = parts.reduce((sum, { u }) => sum + u ** 2, 0);
  const squares = efficiency.uInstrument ** 2 + efficiency.uRepeat ** 2;
  // What one meter on several channels adds to, or takes off, independent sources.
  const shared = squares - alone;
  const together =
    Math.abs(shared) > 0.01 * squares
      ? [{ source: 'one meter for several', u: Math.sqrt(Math.abs(shared)), share: shared / squares }]
      : [];
  const lines = parts
    // A thousandth of the whole is nothing anyone would work on.
    .filter(({ u }) => squares > 0 && u ** 2 / squares > 0.001)
    .map(({ source, u }) => ({ source, u, share: u ** 2 / squares }))
    .sort((a, b) => b.share - a.share)
    .concat(together);
  const [first] = lines;
  const without = first ? Math.sqrt(Math.max(0, squares - first.u ** 2 * 0.75)) : 0;
  const advice = first
    ? `A meter twice as good for ${first.source === 'repeats' ? 'steadier readings' : first.source} would make it ${Math.round((1 - without / Math.sqrt(squares)) * 100)} % smaller.`
    : 'No uncertainty is known: state the accuracy of the meters at Bench.';
  return { lines, u: standardUncertainty(efficiency), advice };
}
