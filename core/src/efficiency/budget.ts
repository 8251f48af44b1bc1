// Where the uncertainty of a result comes from: each source with its share, and which meter would help most.
import type { Instrument } from '../reading/index.ts';
import {
  expandedUncertainty,
  isStated,
  type Measured,
  measured,
  specUncertainty,
  standardUncertainty,
} from '../uncertainty/index.ts';
import type { LoadResult } from './series.ts';

/** A reading behind a source: what was read, and how well. SI. */
export interface BudgetReading {
  readonly quantity: 'power' | 'voltage' | 'current';
  readonly value: number;
  readonly u: number;
}

export interface BudgetLine {
  /** What it is: "input watts", "C1 volts". */
  readonly source: string;
  /** Standard uncertainty it brings to the result, in the unit of the result. */
  readonly u: number;
  /** Its part of the whole; all add up to 1. */
  readonly share: number;
  /** The reading behind it, at the point where it counts most; null for repeats, leads and what is shared. */
  readonly reads: BudgetReading | null;
}

export interface Budget {
  readonly lines: readonly BudgetLine[];
  /** Combined standard uncertainty of the result. */
  readonly u: number;
  /** Its expanded uncertainty, as shown beside the result. */
  readonly expanded: number;
  /** Where effort helps most, in a sentence. */
  readonly advice: string;
}

type Part = Omit<BudgetLine, 'share'>;
type BudgetPoint = Pick<LoadResult, 'efficiency' | 'input' | 'outputs'>;

/** A thousandth of the whole is nothing anyone would work on. */
const LEAST_SHARE = 0.001;
/** What is shared is said from this part of the whole on. */
const LEAST_SHARED = 0.01;

/** What to do before there is a budget. */
const NOT_STATED = 'No uncertainty is known: state the accuracy of the meters at Bench.';

/** Sources as shares of a result; what one meter on several channels adds is a line of its own. */
function budgetOf(parts: readonly Part[], result: Measured): Budget {
  const alone = parts.reduce((sum, { u }) => sum + u ** 2, 0);
  const squares = result.uInstrument ** 2 + result.uRepeat ** 2;
  if (!isStated(result))
    return {
      lines: [],
      u: standardUncertainty(result),
      expanded: expandedUncertainty(result),
      advice: NOT_STATED,
    };
  const shared = squares - alone;
  const together =
    shared > LEAST_SHARED * squares
      ? [{ source: 'one meter for several', u: Math.sqrt(shared), share: shared / squares, reads: null }]
      : [];
  const lines = parts
    .filter(({ u }) => squares > 0 && u ** 2 / squares > LEAST_SHARE)
    .map((part): BudgetLine => ({ ...part, share: part.u ** 2 / squares }))
    .sort((a, b) => b.share - a.share)
    .concat(together);
  const [first] = lines;
  const without = first ? Math.sqrt(Math.max(0, squares - first.u ** 2 * 0.75)) : 0;
  const advice = first
    ? `A meter twice as good for ${first.source === 'repeats' ? 'steadier readings' : first.source} would make it ${Math.round((1 - without / Math.sqrt(squares)) * 100)} % smaller.`
    : NOT_STATED;
  return { lines, u: standardUncertainty(result), expanded: expandedUncertainty(result), advice };
}

/** Sources of one load point. */
function partsOf({ efficiency, input, outputs }: BudgetPoint): Part[] {
  const eta = efficiency.value;
  const reads = (quantity: BudgetReading['quantity'], of: Measured) => ({
    quantity,
    value: of.value,
    u: of.uInstrument,
  });
  return [
    { source: 'input watts', u: (eta * input.uInstrument) / input.value, reads: reads('power', input) },
    ...outputs.flatMap(({ port, volts, amps, watts }) => {
      const byVolts = (amps.value * volts.uInstrument) / input.value;
      const byAmps = (volts.value * amps.uInstrument) / input.value;
      const rest = Math.sqrt(Math.max(0, (watts.uInstrument / input.value) ** 2 - byVolts ** 2 - byAmps ** 2));
      return [
        { source: `${port} volts`, u: byVolts, reads: reads('voltage', volts) },
        { source: `${port} amps`, u: byAmps, reads: reads('current', amps) },
        { source: `${port} lead`, u: rest, reads: null },
      ];
    }),
    { source: 'repeats', u: efficiency.uRepeat, reads: null },
  ];
}

/**
 * Budget of one load point. η = ΣVᵢIᵢ/Pin, so ∂η/∂Pin = −η/Pin, ∂η/∂Vᵢ = Iᵢ/Pin, ∂η/∂Iᵢ = Vᵢ/Pin; what volts and amps do
 * not explain of an output is its lead, and repeats count as they scatter. JCGM 100:2008, 5.1.2 and table H.1.
 */
export const efficiencyBudget = (point: BudgetPoint): Budget => budgetOf(partsOf(point), point.efficiency);

/**
 * Budget of a four-point average: a meter's share is common to the points, so each source is the mean of its parts;
 * repeats are independent. JCGM 100:2008, 5.2.2, r = 1.
 * @param points the load points behind it
 */
export function averageBudget(points: readonly BudgetPoint[], average: Measured): Budget {
  const all = points.map(partsOf);
  const sources = [...new Set(all.flatMap((parts) => parts.map(({ source }) => source)))];
  const parts = sources.map((source): Part => {
    const own = all.flatMap((one) => one.filter((part) => part.source === source));
    const largest = own.reduce<Part | null>((most, part) => (most && most.u >= part.u ? most : part), null);
    const u =
      source === 'repeats'
        ? Math.hypot(...own.map((part) => part.u)) / all.length
        : own.reduce((sum, part) => sum + part.u, 0) / all.length;
    return { source, u, reads: largest?.reads ?? null };
  });
  return budgetOf(parts, average);
}

/** Budget of a power read directly, such as idle. */
export const powerBudget = (watts: Measured): Budget =>
  budgetOf(
    [
      {
        source: 'input watts',
        u: watts.uInstrument,
        reads: { quantity: 'power', value: watts.value, u: watts.uInstrument },
      },
      { source: 'repeats', u: watts.uRepeat, reads: null },
    ],
    watts,
  );

/** Part of a meter's uncertainty another must stay under to be worth naming. */
const WORTHWHILE = 0.8;

/** A meter of the bench that reads a source better than the one used. */
export interface FinerMeter {
  readonly name: string;
  readonly quantity: BudgetReading['quantity'];
  /** Its standard and its expanded uncertainty there, SI. */
  readonly u: number;
  readonly expanded: number;
}

/** The best meter for the largest source that a meter is behind; null where none on the bench would be clearly better. */
export function finerMeter({ lines }: Budget, instruments: readonly Instrument[]): FinerMeter | null {
  const first = lines.find(({ reads }) => reads !== null)?.reads;
  if (!first) return null;
  const known = instruments.flatMap(({ name, specs }): FinerMeter[] => {
    const spec = specs[first.quantity];
    const u = spec ? specUncertainty(spec, first.value) : null;
    return u === null
      ? []
      : [{ name, quantity: first.quantity, u, expanded: expandedUncertainty(measured(first.value, u)) }];
  });
  const best = known.reduce<FinerMeter | null>((a, b) => (a && a.u <= b.u ? a : b), null);
  return best && best.u < WORTHWHILE * first.u ? best : null;
}
