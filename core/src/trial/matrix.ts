// A table of several things, each tried with each: which of them explains what differs, and what only two together do.
import fCdf from '@stdlib/stats-base-dists-f-cdf';
import { leastSquares } from '../least-squares/index.ts';
import { seededNormal, seededRandom } from '../random/index.ts';
import { holm } from '../repeats/index.ts';
import { type MatrixTrial, standingRuns, type TrialRun } from './types.ts';
import { valueWords } from './words.ts';

export interface FactorShare {
  readonly name: string;
  /** Part of all that differs, 0…1, less what chance alone would bring. */
  readonly share: number;
  /** 95 % interval of it. */
  readonly interval: readonly [number, number];
  /** Probability of as much by chance. */
  readonly p: number;
  readonly called: boolean;
  /** What each of its levels gives more or less than the mean, SI; null for one that was never run. */
  readonly effects: readonly (number | null)[];
}

export interface Together {
  readonly names: readonly [string, string];
  readonly share: number;
  readonly p: number;
  readonly called: boolean;
  /** Where it shows most, in words. */
  readonly where: string;
}

export interface MatrixResult {
  readonly factors: readonly FactorShare[];
  readonly together: readonly Together[];
  /** Standard deviation that is left, SI. */
  readonly chance: number;
  /** Part of all that differs that nothing explains. */
  readonly left: number;
  readonly sentence: string;
  readonly findings: readonly string[];
}

type Row = readonly number[];
type Cell = TrialRun['cell'];

/** Columns of one factor, coded so that its effects sum to nought. */
const codesOf = (level: number, levels: number): Row =>
  Array.from({ length: levels - 1 }, (_, at) => (level === levels - 1 ? -1 : level === at ? 1 : 0));

/** What the effects of some columns of a fit have in common with readings: over all columns, what the fit explains. */
const commonWith = (rows: readonly Row[], inverse: readonly Row[]) => (values: Row) => {
  const sums = inverse.map((_, column) =>
    rows.reduce((sum, row, at) => sum + (row[column] as number) * (values[at] as number), 0),
  );
  const effects = inverse.map((row) => row.reduce((sum, one, at) => sum + one * (sums[at] as number), 0));
  return (columns: readonly number[]): number =>
    columns.reduce((sum, at) => sum + (effects[at] as number) * (sums[at] as number), 0);
};

const clamp = (value: number): number => Math.min(1, Math.max(0, value));
const quantileOf = (sorted: readonly number[], part: number): number =>
  sorted[Math.round(part * (sorted.length - 1))] as number;

const DRAWS = 400;
const CHANCE = 0.05;
const percent = (part: number): string => `${Math.round(part * 100)}`;

/** Which levels of a factor were run at all, renumbered. */
function usedLevels(runs: readonly TrialRun[], factor: number): readonly number[] {
  return [...new Set(runs.map(({ cell }) => cell[factor] as number))].sort((a, b) => a - b);
}

/** Columns of two factors together. */
const productOf = (a: Row, b: Row): Row => a.flatMap((one) => b.map((other) => one * other));

interface Design {
  readonly columns: (cell: Cell, factor: number) => Row;
  readonly additive: (cell: Cell, without?: number) => Row;
}

function designOf(levels: readonly (readonly number[])[]): Design {
  const columns: Design['columns'] = (cell, factor) => {
    const own = levels[factor] as readonly number[];
    return codesOf(own.indexOf(cell[factor] as number), own.length);
  };
  return {
    columns,
    additive: (cell, without) => [
      1,
      ...levels.flatMap((_, factor) => (factor === without ? [] : columns(cell, factor))),
    ],
  };
}

/**
 * Analyse a table: an additive model of all factors by least squares; what the effects of each have in common with the readings
 * (J. W. Pratt 1987; with nothing missing its sum of squares), less what chance brings (ω², W. L. Hays 1963), with intervals by
 * drawing anew from what was fitted; then what two factors do only together. Runs may be missing as long as the factors can be
 * told apart.
 * @returns null with too few runs, or where the runs there are do not tell the factors apart
 * @example analyseMatrix(trial, runs)?.sentence // 'Port explains 94 ± 3 % of what differs, cable 1 ± 3 %.'
 */
export function analyseMatrix(trial: MatrixTrial, all: readonly TrialRun[]): MatrixResult | null {
  const runs = standingRuns(all).filter(({ value }) => Number.isFinite(value));
  const names = trial.factors.map(({ name }) => name);
  const levels = names.map((_, factor) => usedLevels(runs, factor));
  const { columns, additive } = designOf(levels);
  const y = runs.map(({ value }) => value);
  const mean = y.reduce((sum, one) => sum + one, 0) / Math.max(1, y.length);
  const centred = y.map((one) => one - mean);
  const total = centred.reduce((sum, one) => sum + one ** 2, 0);
  const rows = runs.map(({ cell }) => additive(cell));
  const fit = leastSquares(rows, y);
  if (!fit || fit.degrees < 1) return null;
  let next = 1;
  const columnsOf = levels.map((all) => all.slice(1).map(() => next++));
  const common = commonWith(rows, fit.inverse);
  const without = names.map((_, factor) =>
    leastSquares(
      runs.map(({ cell }) => additive(cell, factor)),
      y,
    ),
  );

  const couples = names.flatMap((_, b) => Array.from({ length: b }, (_unused, a) => [a, b] as const));
  const couplesOf = (which: readonly (readonly [number, number])[]) =>
    runs.map(({ cell }, at) => [
      ...(rows[at] as Row),
      ...which.flatMap(([a, b]) => productOf(columns(cell, a), columns(cell, b))),
    ]);
  const withAll = leastSquares(couplesOf(couples), y);
  const known = withAll !== null && withAll.degrees >= 1;
  // What chance brings: what is left when two together count too, where the runs tell that; else what the sum leaves.
  const error = known ? withAll.rest / withAll.degrees : fit.rest / fit.degrees;
  const degrees = known ? withAll.degrees : fit.degrees;

  const alone = (factor: number): number => Math.max(0, (without[factor]?.rest ?? fit.rest) - fit.rest);
  const sharesOf = (values: Row, variance: number): readonly number[] => {
    const sum = values.reduce((all_, one) => all_ + one ** 2, 0);
    const bring = common(values);
    return names.map((_, factor) =>
      sum > 0
        ? clamp((bring(columnsOf[factor] as Row) - ((levels[factor] as Row).length - 1) * variance) / (sum + variance))
        : 0,
    );
  };
  const shares = sharesOf(centred, error);
  const fitted = centred.map((one, at) => one - (fit.residuals[at] as number));
  const normal = seededNormal(seededRandom(trial.seed + 1));
  const drawn = Array.from({ length: DRAWS }, () => {
    const noisy = fitted.map((one) => one + Math.sqrt(error) * normal());
    const middle = noisy.reduce((sum, one) => sum + one, 0) / noisy.length;
    return sharesOf(
      noisy.map((one) => one - middle),
      error,
    );
  });
  const chances = names.map((_, factor) => {
    const free = (levels[factor] as Row).length - 1;
    if (free === 0) return 1;
    if (error === 0) return alone(factor) > 0 ? 0 : 1;
    return 1 - fCdf(alone(factor) / free / error, free, degrees);
  });
  const adjusted = holm(chances);
  let column = 1;
  const factors = names.map((name, factor): FactorShare => {
    const own = levels[factor] as Row;
    const coefficients = fit.coefficients.slice(column, column + own.length - 1);
    column += own.length - 1;
    const effects = [...coefficients, -coefficients.reduce((sum, one) => sum + one, 0)];
    const sorted = drawn.map((one) => one[factor] as number).sort((a, b) => a - b);
    return {
      name,
      share: shares[factor] as number,
      interval: [quantileOf(sorted, 0.025), quantileOf(sorted, 0.975)],
      p: adjusted[factor] as number,
      called: (adjusted[factor] as number) < CHANCE,
      effects: (trial.factors[factor]?.levels ?? []).map((_, level) => {
        const at = own.indexOf(level);
        return at === -1 ? null : (effects[at] as number);
      }),
    };
  });
  const together = known ? togetherOf(trial, runs, couples, couplesOf, y, fit, total, { error, degrees }) : [];
  const missing = trial.factors.some(({ levels: planned }, factor) => (levels[factor] as Row).length < planned.length);
  return {
    factors,
    together,
    chance: Math.sqrt(error),
    left: total > 0 ? clamp(fit.rest / total) : 0,
    sentence: total > 0 ? sharesSay(factors) : 'Nothing differs at all.',
    findings: [
      ...together
        .filter(({ called }) => called)
        .map(({ names: [a, b], where }) => `${a} and ${b} do something only together: ${where}.`),
      ...(known
        ? []
        : ['Each was run once: what two do only together cannot be told from chance. Run the table again.']),
      ...(missing ? ['Some of what is planned was not run yet.'] : []),
    ],
  };
}

const shareWords = ({ share, interval }: FactorShare): string =>
  `${percent(share)} ± ${Math.max(1, Math.ceil(Math.max(interval[1] - share, share - interval[0]) * 100))} %`;

/** The most telling first; who explains nothing but chance is said with its share all the same. */
function sharesSay(factors: readonly FactorShare[]): string {
  const [first, ...others] = [...factors].sort((a, b) => b.share - a.share);
  if (!first?.called) return 'Nothing here differs by more than chance.';
  const rest = others.map((one) => `, ${one.name} ${shareWords(one)}`).join('');
  const said = `${first.name} explains ${shareWords(first)} of what differs${rest}.`;
  return said.charAt(0).toUpperCase() + said.slice(1);
}

function togetherOf(
  trial: MatrixTrial,
  runs: readonly TrialRun[],
  couples: readonly (readonly [number, number])[],
  couplesOf: (which: readonly (readonly [number, number])[]) => readonly Row[],
  y: Row,
  fit: { readonly rest: number; readonly degrees: number; readonly residuals: Row },
  total: number,
  { error, degrees }: { readonly error: number; readonly degrees: number },
): readonly Together[] {
  const found = couples.flatMap(([a, b]) => {
    const one = leastSquares(couplesOf([[a, b]]), y);
    const free = one ? fit.degrees - one.degrees : 0;
    if (!one || free < 1) return [];
    const brings = Math.max(0, fit.rest - one.rest);
    const p = error > 0 ? 1 - fCdf(brings / free / error, free, degrees) : brings > 1e-12 * total ? 0 : 1;
    return [{ a, b, share: total > 0 ? clamp((brings - free * error) / (total + error)) : 0, p }];
  });
  const adjusted = holm(found.map(({ p }) => p));
  return found.map(({ a, b, share }, at): Together => {
    const cells = new Map<string, { readonly levels: readonly [number, number]; readonly off: number[] }>();
    runs.forEach(({ cell }, index) => {
      const key = `${cell[a]} ${cell[b]}`;
      const own = cells.get(key) ?? { levels: [cell[a] as number, cell[b] as number] as const, off: [] };
      own.off.push(fit.residuals[index] as number);
      cells.set(key, own);
    });
    const means = [...cells.values()].map(({ levels, off }) => ({
      levels,
      off: off.reduce((sum, one) => sum + one, 0) / off.length,
    }));
    const most = means.reduce((x, z) => (Math.abs(z.off) > Math.abs(x.off) ? z : x));
    const [first, second] = [trial.factors[a], trial.factors[b]];
    return {
      names: [first?.name ?? '', second?.name ?? ''],
      share,
      p: adjusted[at] as number,
      called: (adjusted[at] as number) < CHANCE,
      where: `${first?.levels[most.levels[0]]?.name ?? ''} with ${second?.levels[most.levels[1]]?.name ?? ''} is ${valueWords(trial.measure.quantity, Math.abs(most.off))} ${most.off < 0 ? 'below' : 'above'} what both bring alone`,
    };
  });
}
