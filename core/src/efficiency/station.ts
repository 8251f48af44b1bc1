// Efficiency as a station.
import { type ClaimState, worstOf } from '../evidence/index.ts';
import { chosenSets, type LimitLine, type LimitSet } from '../limits/index.ts';
import { type Mains, mainsLabel, pointsBySetup, type Rig, suppliesFor } from '../reading/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { type LimitFacts, limitsOfSetups, type SetupLimits } from './limits.ts';
import { efficiencySeries, LOAD_POINTS, type SeriesResult } from './series.ts';

export interface EfficiencyFacts extends LimitFacts {
  readonly sample: LimitFacts['sample'] & { readonly kind: 'wall' | 'desktop' | 'car' | 'cable' };
  readonly rigs: readonly Rig[];
  readonly limitSets: readonly LimitSet[];
  readonly profile: LimitFacts['profile'] & {
    readonly mains: readonly Mains[];
    readonly limitSetIds: readonly string[];
  };
}

export interface EfficiencyConclusion {
  readonly series: readonly SeriesResult[];
  readonly limits: readonly SetupLimits[];
}

/** Outcomes of the lines that speak a verdict. */
export const verdictStates = (lines: readonly LimitLine[]): readonly ClaimState[] =>
  lines.filter(({ standing }) => standing === 'verdict').map(({ decision }) => decision.outcome);

export const efficiencyStation: Station<'efficiency', EfficiencyFacts, object, EfficiencyConclusion> = {
  ...aboutStation('efficiency'),
  reads: ['sample', 'claims', 'readOuts', 'setups', 'points', 'stated', 'rigs', 'instruments', 'profile', 'limitSets'],
  needs: [],
  conclude(slice) {
    const points = pointsBySetup(slice.points);
    const series = slice.setups
      .filter(({ purpose }) => purpose === 'efficiency')
      .map((setup) => efficiencySeries(setup, points.get(setup.id) ?? [], slice.rigs));
    return { series, limits: limitsOfSetups(slice, series, chosenSets(slice)) };
  },
  evidence: ({ series }) => ({ series }),
  progress({ series, limits }, { sample, profile }, settles) {
    const supplies = suppliesFor(sample.kind, profile.mains).map(mainsLabel);
    const done = series
      .flatMap(({ byMains }) => byMains.filter(({ mains }) => supplies.includes(mainsLabel(mains))))
      .flatMap(({ loads }) => loads.filter(({ load }) => LOAD_POINTS.includes(load))).length;
    return {
      done,
      total: Math.max(1, series.length) * supplies.length * (LOAD_POINTS.length - 1),
      worst: worstOf([...settles, ...limits.flatMap(({ lines }) => verdictStates(lines))]),
    };
  },
};
