// Averages and light loads held against limit sets, a loading at a time.

import type { DecisionRule } from '../decision/index.ts';
import {
  type DerivedClass,
  deriveClass,
  judgeAgainstSets,
  type LimitLine,
  type LimitSet,
  type NameplateClass,
} from '../limits/index.ts';
import { memoOfLists } from '../memo/index.ts';
import { deviationsOnce, newestDay, type TakenPoint } from '../procedure/index.ts';
import type { Claim } from '../promise/index.ts';
import type { ReadOut } from '../read-out/index.ts';
import { type Instrument, type Point, pointsBySetup, type Setup, type Stated } from '../reading/index.ts';
import { offeredLevels } from '../steps/index.ts';
import { AVERAGE_LOADS, LIGHT_LOAD, type MainsResult, type SeriesResult } from './series.ts';

/** A loading, and the class somebody chose for it. */
export interface SetupFacts extends Setup {
  /** Class that overrides the derived one; null takes the derived one. */
  readonly nameplateClass: NameplateClass | null;
  /** Why it is overridden; null while it is not. */
  readonly classReason?: string | null;
}

export interface SetupLimits {
  readonly setupId: string;
  /** The class it is judged by. */
  readonly nameplateClass: NameplateClass;
  /** What the sample itself suggests. */
  readonly derived: DerivedClass;
  /** Whether someone overrode the derived class. */
  readonly overridden: boolean;
  readonly lines: readonly LimitLine[];
}

/** What of a sample its loadings are judged with. */
export interface LimitFacts {
  readonly sample: { readonly ports: readonly { readonly label: string }[] };
  readonly claims: readonly Claim[];
  readonly readOuts: readonly ReadOut[];
  readonly setups: readonly SetupFacts[];
  readonly points: readonly Point[];
  readonly stated: readonly Stated[];
  readonly instruments: readonly Instrument[];
  readonly profile: { readonly rule: DecisionRule };
}

/** Points behind some loads of a series, with their powers. */
function takenAt(
  { loads }: MainsResult,
  wanted: readonly number[],
  points: ReadonlyMap<string, Point>,
): readonly TakenPoint[] {
  return loads
    .filter(({ load }) => wanted.some((one) => Math.abs(one - load) < 1e-6))
    .flatMap(({ pointIds, input, output, findings }) =>
      pointIds.flatMap((id) => {
        const point = points.get(id);
        const powers = [
          { what: 'Input', watts: input },
          { what: 'Output', watts: output },
        ];
        return point ? [{ point, powers, findings }] : [];
      }),
    );
}

/** One loading held against limit sets; kept while its series and what it is judged by stay the same. */
const linesOf = memoOfLists(
  (
    { setup, nameplateWatts, byMains }: SeriesResult,
    own: readonly Point[],
    stated: readonly Stated[],
    instruments: readonly Instrument[],
    sets: readonly LimitSet[],
    [rule, nameplateClass, adaptive, level, nameplateAmps, why]: readonly [DecisionRule, ...DerivedParts],
  ): readonly LimitLine[] => {
    if (!(nameplateWatts > 0)) return [];
    const points = new Map(own.map((point) => [point.id, point]));
    const only = setup.outputs.length === 1 ? (setup.outputs[0] ?? null) : null;
    const derived: DerivedClass = { nameplateClass, adaptive, level, nameplateAmps, why };
    const as = { class: derived, nameplateClass, watts: nameplateWatts, only };
    const judge = (quantity: LimitLine['quantity'], one: MainsResult) => {
      const light = quantity === 'light-load-efficiency';
      const result = light ? one.lightLoad : one.average;
      if (!result) return [];
      const taken = takenAt(one, light ? [LIGHT_LOAD] : AVERAGE_LOADS, points);
      const held = {
        mains: one.mains,
        result,
        day: newestDay(taken),
        deviations: deviationsOnce(taken, stated, instruments),
      };
      return judgeAgainstSets(sets, quantity, as, held, rule);
    };
    return byMains.flatMap((one) => [...judge('average-efficiency', one), ...judge('light-load-efficiency', one)]);
  },
);

/** A derived class in its parts, so that the same class is the same. */
type DerivedParts = readonly [
  DerivedClass['nameplateClass'],
  DerivedClass['adaptive'],
  DerivedClass['level'],
  DerivedClass['nameplateAmps'],
  DerivedClass['why'],
];

/** Every loading held against limit sets. */
export function limitsOfSetups(
  { sample, claims, readOuts, setups, points, stated, instruments, profile }: LimitFacts,
  series: readonly SeriesResult[],
  sets: readonly LimitSet[],
): SetupLimits[] {
  const labels = sample.ports.map(({ label }) => label);
  const levels = offeredLevels(labels, claims, readOuts);
  const bySetup = pointsBySetup(points);
  return series.map((one) => {
    const { id, outputs } = one.setup;
    const derived = deriveClass(outputs, levels);
    const chosen = setups.find((setup) => setup.id === id)?.nameplateClass ?? null;
    const nameplateClass = chosen ?? derived.nameplateClass;
    const lines = linesOf(one, bySetup.get(id) ?? [], stated, instruments, sets, [
      profile.rule,
      nameplateClass,
      derived.adaptive,
      derived.level,
      derived.nameplateAmps,
      derived.why,
    ]);
    return { setupId: id, nameplateClass, derived, overridden: chosen !== null, lines };
  });
}
