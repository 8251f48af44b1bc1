// One thing determined by several meters: each counts by its uncertainty, and meters that disagree say so.
import { groupsBy, memoOf } from '../memo/index.ts';
import { formatMeasured, type QuantityId } from '../quantity/index.ts';
import {
  combineRepeats,
  expandedUncertainty,
  isStated,
  type Measured,
  measured,
  propagate,
  standardUncertainty,
} from './measured.ts';

/** A determination of a thing, with what read it. */
export interface Determined {
  readonly of: Measured;
  /** Ids of the meters behind it, in any order. */
  readonly meters: readonly string[];
}

export interface Combined {
  readonly result: Measured;
  /** Two kits of meters that differ by more than both state together; null while all agree. ISO 13528:2022, 9.7: |Eₙ| > 1 */
  readonly disagree: readonly [Measured, Measured] | null;
  /** Determinations that do not count, since nobody stated how accurate they are while others say it. */
  readonly aside: number;
}

/** Meters as one word, in whatever order they were named; several quantities of one point name the same list. */
const kitOf = memoOf((meters: readonly string[]): string => [...new Set(meters)].sort().join(' '));

/** Determinations by the same kit of meters, combined as repeats. */
const byKit = (all: readonly Determined[]): readonly Determined[] =>
  [...groupsBy(all, ({ meters }) => kitOf(meters)).values()].map((same) => ({
    of: combineRepeats(same.map(({ of }) => of)),
    meters: same[0]?.meters ?? [],
  }));

function furthestApart(kits: readonly Measured[]): readonly [Measured, Measured] | null {
  let worst: readonly [Measured, Measured] | null = null;
  let most = 1;
  for (const [at, a] of kits.entries())
    for (const b of kits.slice(at + 1)) {
      const ratio = Math.abs(a.value - b.value) / Math.hypot(expandedUncertainty(a), expandedUncertainty(b));
      if (ratio > most) [worst, most] = [[a, b], ratio];
    }
  return worst;
}

/** What is to be known about a combined value, in sentences. */
export function combinedSays({ disagree, aside }: Combined, quantity: QuantityId): string[] {
  const said = (one: Measured) => formatMeasured(one.value, expandedUncertainty(one), quantity);
  return [
    ...(disagree
      ? [
          `Meters disagree by more than they state: ${said(disagree[0])} and ${said(disagree[1])}. Check them against each other.`,
        ]
      : []),
    ...(aside > 0
      ? [`${aside === 1 ? 'A reading' : `${aside} readings`} of unstated accuracy not counted beside the stated.`]
      : []),
  ];
}

/**
 * One value of several determinations. Repeats by the same meters: their mean. By different meters: weighted by 1/u², the
 * best of all (JCGM 100:2008, F.1.2; weighted mean). Where kits share a meter its error is common to all. Where they
 * scatter more than they state, the uncertainty grows by √(χ²/(n − 1)). A kit of unstated accuracy does not count beside
 * one that states it.
 * @throws RangeError for an empty list
 * @example combineMeters([{ of: measured(10, 0.1), meters: ['a'] }, { of: measured(12, 1), meters: ['b'] }]).result.value // 10.02
 */
export function combineMeters(all: readonly Determined[]): Combined {
  const kits = byKit(all);
  const stated = kits.filter(({ of }) => isStated(of));
  const counted = stated.length > 0 ? stated : kits;
  const parts = counted.map(({ of }) => of);
  const aside = all.filter(({ of }) => !isStated(of)).length;
  const exact = parts.some((one) => standardUncertainty(one) === 0);
  if (parts.length === 1 || stated.length === 0 || exact)
    return {
      result: combineRepeats(parts),
      disagree: parts.length > 1 && stated.length > 0 ? furthestApart(parts) : null,
      aside: stated.length > 0 ? aside : 0,
    };
  const weights = parts.map((one) => 1 / standardUncertainty(one) ** 2);
  const total = weights.reduce((sum, one) => sum + one, 0);
  const value = parts.reduce((sum, one, index) => sum + ((weights[index] ?? 0) / total) * one.value, 0);
  const names = counted.flatMap(({ meters }) => [...new Set(meters)]);
  const common = new Set(names).size < names.length;
  const mean = propagate(
    value,
    parts.map((of, index) => ({ weight: (weights[index] ?? 0) / total, of, meter: common ? 'common' : null })),
  );
  const chi = parts.reduce((sum, one, index) => sum + (weights[index] ?? 0) * (one.value - value) ** 2, 0);
  const wider = Math.max(1, Math.sqrt(chi / (parts.length - 1)));
  return {
    result: measured(value, mean.uInstrument * wider, mean.uRepeat * wider, mean.degrees, mean.unstated),
    disagree: furthestApart(parts),
    aside,
  };
}
