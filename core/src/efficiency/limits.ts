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
import { deviationsOnce, newestDay, type TakenPoint } from '../procedure/index.ts';
import type { Claim } from '../promise/index.ts';
import type { ReadOut } from '../read-out/index.ts';
import type { Output, Point, Setup, Stated } from '../reading/index.ts';
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
  readonly profile: { readonly rule: DecisionRule };
}

/** Points behind some loads of a series, with their powers. */
function takenAt({ loads }: MainsResult, wanted: readonly number[], dossier: LimitFacts): TakenPoint[] {
  return loads
    .filter(({ load }) => wanted.some((one) => Math.abs(one - load) < 1e-6))
    .flatMap(({ pointIds, input, output, findings }) =>
      dossier.points
        .filter(({ id }) => pointIds.includes(id))
        .map((point) => ({
          point,
          powers: [
            { what: 'Input', watts: input },
            { what: 'Output', watts: output },
          ],
          findings,
        })),
    );
}

/** The class of a loading as it is judged: the derived one, unless someone overrode it. */
function classOf(dossier: LimitFacts, setupId: string, outputs: readonly Output[], levels: readonly Output[]) {
  const derived = deriveClass(outputs, levels);
  const chosen = dossier.setups.find(({ id }) => id === setupId)?.nameplateClass ?? null;
  return { derived, nameplateClass: chosen ?? derived.nameplateClass, overridden: chosen !== null };
}

/** Every loading held against limit sets. */
export function limitsOfSetups(
  dossier: LimitFacts,
  series: readonly SeriesResult[],
  sets: readonly LimitSet[],
): SetupLimits[] {
  const ports = dossier.sample.ports.map(({ label }) => label);
  const levels = offeredLevels(ports, dossier.claims, dossier.readOuts);
  return series.map(({ setup, nameplateWatts, byMains }) => {
    const { derived, nameplateClass, overridden } = classOf(dossier, setup.id, setup.outputs, levels);
    const only = setup.outputs.length === 1 ? (setup.outputs[0] ?? null) : null;
    const as = { class: derived, nameplateClass, watts: nameplateWatts, only };
    const judge = (quantity: LimitLine['quantity'], one: MainsResult) => {
      const light = quantity === 'light-load-efficiency';
      const result = light ? one.lightLoad : one.average;
      if (!result || !(nameplateWatts > 0)) return [];
      const points = takenAt(one, light ? [LIGHT_LOAD] : AVERAGE_LOADS, dossier);
      const held = {
        mains: one.mains,
        result,
        day: newestDay(points),
        deviations: deviationsOnce(points, dossier.stated),
      };
      return judgeAgainstSets(sets, quantity, as, held, dossier.profile.rule);
    };
    const lines = byMains.flatMap((one) => [
      ...judge('average-efficiency', one),
      ...judge('light-load-efficiency', one),
    ]);
    return { setupId: setup.id, nameplateClass, derived, overridden, lines };
  });
}
