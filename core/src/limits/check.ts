// Whether a limit set makes sense before it judges anything: its pieces, its values, its worked values.
import { formatPlain } from '../quantity/index.ts';
import { limitAt } from './evaluate.ts';
import type { LimitedQuantity, LimitFormula, LimitSet, LimitTest, Piece } from './types.ts';

export const QUANTITY_WORDS: Readonly<Record<LimitedQuantity, string>> = {
  'average-efficiency': 'average efficiency, at least',
  'light-load-efficiency': 'efficiency at 10 %, at least',
  'no-load-power': 'no load, at most',
};

/** Nameplates a formula is tried at where it has no upper end, W. */
const HIGHEST_TRIED = 1000;
const LOWEST_TRIED = 0.1;

const valueText = (quantity: LimitedQuantity, value: number): string =>
  quantity === 'no-load-power' ? formatPlain(value, 'power') : value.toFixed(5);

const pieceAt = ({ constant, perWatt, perLog }: Piece, watts: number): number =>
  constant + perWatt * watts + perLog * Math.log(watts);

/** Nameplates a piece is tried at: both ends and some between, evenly on a logarithmic scale. */
function triedAt(from: number, to: number): number[] {
  const steps = 24;
  return Array.from({ length: steps + 1 }, (_, step) => from * (to / from) ** (step / steps));
}

function formulaProblems({ quantity, nameplateClass, pieces }: LimitFormula): string[] {
  const name = `${QUANTITY_WORDS[quantity]}, ${nameplateClass}`;
  const problems: string[] = [];
  if (pieces.length === 0) return [`${name}: has no piece. Give at least one.`];
  let from = LOWEST_TRIED;
  for (const [index, piece] of pieces.entries()) {
    const number = `${name}, piece ${index + 1}`;
    const last = index === pieces.length - 1;
    if (piece.upTo === null && !last) {
      problems.push(`${number}: has no upper end, but pieces follow. Only the last may be endless.`);
      break;
    }
    if (piece.upTo !== null && piece.upTo <= (index === 0 ? 0 : from)) {
      problems.push(`${number}: ends at ${piece.upTo} W, not above where it begins. Put the pieces in order.`);
      break;
    }
    const to = piece.upTo ?? Math.max(HIGHEST_TRIED, from * 2);
    const highest = quantity === 'no-load-power' ? 100 : 1;
    const wrong = triedAt(Math.min(from, to), to).find((watts) => {
      const value = pieceAt(piece, watts);
      return !(value > 0 && value <= highest);
    });
    if (wrong !== undefined)
      problems.push(
        `${number}: gives ${valueText(quantity, pieceAt(piece, wrong))} at ${formatPlain(wrong, 'power')}; a ${quantity === 'no-load-power' ? 'power is above 0 and at most 100 W' : 'ratio is above 0 and at most 1'}.`,
      );
    from = to;
  }
  return problems;
}

/** One worked value with what the formula gives; null where the set does not cover it. */
export interface TestOutcome {
  readonly test: LimitTest;
  readonly gives: number | null;
  readonly met: boolean;
}

/** Worked values held against the formulas. */
export const limitTests = (set: Pick<LimitSet, 'formulas' | 'tests'>): readonly TestOutcome[] =>
  set.tests.map((test) => {
    const gives = limitAt(set, test.quantity, test.nameplateClass, test.watts);
    return { test, gives, met: gives !== null && Math.abs(gives - test.value) <= test.within * (1 + 1e-6) };
  });

/** What is wrong with a limit set, a sentence each with what to do; empty when it may judge. */
export function limitSetProblems(
  set: Pick<LimitSet, 'formulas' | 'tests' | 'validFrom' | 'validTo'>,
): readonly string[] {
  const problems = set.formulas.flatMap(formulaProblems);
  const keys = set.formulas.map(({ quantity, nameplateClass }) => `${QUANTITY_WORDS[quantity]}, ${nameplateClass}`);
  for (const key of new Set(keys.filter((one, index) => keys.indexOf(one) !== index)))
    problems.push(`${key}: is there twice. Keep one.`);
  if (set.formulas.length === 0) problems.push('The set has no formula. Give at least one.');
  if (set.validTo !== null && set.validTo < set.validFrom)
    problems.push(`It ends ${set.validTo}, before it begins ${set.validFrom}.`);
  if (problems.length > 0) return problems;
  return limitTests(set)
    .filter(({ met }) => !met)
    .map(
      ({ test, gives }) =>
        `Worked value at ${formatPlain(test.watts, 'power')} (${QUANTITY_WORDS[test.quantity]}, ${test.nameplateClass}): the formula gives ${gives === null ? 'nothing' : valueText(test.quantity, gives)}, the text says ${valueText(test.quantity, test.value)}. Correct one of them.`,
    );
}

/** Where neighbouring pieces do not meet, with the jump: stated, since real texts have such steps. */
export function limitSteps({ pieces }: LimitFormula): readonly { readonly watts: number; readonly step: number }[] {
  return pieces.flatMap((piece, index) => {
    const next = pieces[index + 1];
    if (!next || piece.upTo === null) return [];
    const step = pieceAt(next, piece.upTo) - pieceAt(piece, piece.upTo);
    return Math.abs(step) > 1e-4 ? [{ watts: piece.upTo, step }] : [];
  });
}
