// A sample over its life: what was measured on different days, and whether it changed by more than its uncertainty.
import { type Dossier, judgeSample } from '../verdict/index.ts';
import type { MeasureId, MeasureValue } from './about.ts';
import { type Change, changeOf } from './change.ts';
import { measuresOf } from './of-sample.ts';

/** What can drift in use; size and price do not. */
const DRIFTING: readonly MeasureId[] = [
  'idle',
  'average-efficiency',
  'light-load-efficiency',
  'full-load-loss',
  'loop-resistance',
];
/** Days at either end that are judged: between them nothing would be told that these do not tell. */
const DAYS_AT_AN_END = 3;

export interface LifeChange {
  readonly measure: MeasureId;
  readonly condition: string;
  readonly first: MeasureValue;
  readonly last: MeasureValue;
  readonly change: Change;
}

const dayOf = ({ takenAt }: { readonly takenAt: string }): string => takenAt.slice(0, 10);

/** The sample as if it had been measured on one day only. */
const onDay = (dossier: Dossier, day: string): Dossier => ({
  ...dossier,
  points: dossier.points.filter((point) => dayOf(point) === day),
  cableRuns: dossier.cableRuns.filter((run) => dayOf(run) === day),
  captures: [],
  runs: [],
  readOuts: [],
});

/**
 * Measures that were taken on more than one day, the first day against the last, each under one condition.
 * @returns nothing for a sample that was measured on one day
 */
export function lifeOf(dossier: Dossier): readonly LifeChange[] {
  const days = [...new Set([...dossier.points, ...dossier.cableRuns].map(dayOf))].sort();
  if (days.length < 2) return [];
  const judged = [...new Set([...days.slice(0, DAYS_AT_AN_END), ...days.slice(-DAYS_AT_AN_END)])].map((day) => {
    const own = onDay(dossier, day);
    return { day, values: measuresOf(own, judgeSample(own)) };
  });
  const keys = new Map(
    judged.flatMap(({ values }) =>
      values
        .filter(({ measure }) => DRIFTING.includes(measure))
        .map((one) => [`${one.measure} ${one.condition}`, one] as const),
    ),
  );
  return [...keys.values()].flatMap(({ measure, condition }): LifeChange[] => {
    const told = judged.flatMap(({ day, values }) => {
      const value = values.find((one) => one.measure === measure && one.condition === condition);
      return value && !value.below ? [{ at: day, value: value.value, u: value.u, of: value }] : [];
    });
    const change = changeOf(told);
    const [first, last] = [told[0]?.of, told.at(-1)?.of];
    return change && first && last ? [{ measure, condition, first, last, change }] : [];
  });
}
