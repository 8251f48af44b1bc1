// All loaded points of one loading: per mains the four-point average and light load, and the extremes.

import { groupsBy, memoOfLists } from '../memo/index.ts';
import {
  type Mains,
  mainsLabel,
  type Output,
  type OutputResult,
  type Point,
  type Rig,
  type Setup,
} from '../reading/index.ts';
import { combinedSays, combineMeters, type Measured, meanOfCommon } from '../uncertainty/index.ts';
import { type EfficiencyPoint, efficiencyPoint } from './point.ts';

/** Load points of the four-point average, fractions of nameplate current. */
export const AVERAGE_LOADS: readonly number[] = [0.25, 0.5, 0.75, 1];
/** The light-load point. */
export const LIGHT_LOAD = 0.1;
/** Every point measured, in the order they are taken: warm at full load first, downwards. */
export const LOAD_POINTS: readonly number[] = [1, 0.75, 0.5, 0.25, LIGHT_LOAD, 0];

/** Repeats of one load at one mains, combined. */
export interface LoadResult {
  readonly mains: Mains;
  readonly load: number;
  readonly efficiency: Measured;
  readonly input: Measured;
  readonly output: Measured;
  readonly loss: Measured;
  readonly outputs: readonly OutputResult[];
  readonly powerFactor: number | null;
  readonly runs: number;
  /** Of the newest run. */
  readonly takenAt: string;
  readonly pointIds: readonly string[];
  readonly findings: readonly string[];
}

export interface MainsResult {
  readonly mains: Mains;
  /** Ascending by load. */
  readonly loads: readonly LoadResult[];
  /** Plain mean of the four efficiencies (not of the powers); null while a point is missing. */
  readonly average: Measured | null;
  /** Load points the average still lacks. */
  readonly missing: readonly number[];
  /** Efficiency at 10 % load. */
  readonly lightLoad: Measured | null;
}

/** An extreme always comes with what gave it. */
export interface Extreme {
  readonly efficiency: Measured;
  readonly mains: Mains;
  readonly load: number;
}

export interface SeriesResult {
  readonly setup: Setup;
  /** Sum of volts × nameplate amps, W. */
  readonly nameplateWatts: number;
  readonly byMains: readonly MainsResult[];
  readonly best: Extreme | null;
  readonly worst: Extreme | null;
  /** Points that lack a reading, with what they lack. */
  readonly incomplete: readonly { readonly pointId: string; readonly missing: readonly string[] }[];
}

/** Output power of a loading at 100 %, W. */
export const nameplateWatts = (outputs: readonly Output[]): number =>
  outputs.reduce((total, output) => total + output.volts * output.amps, 0);

/**
 * Common factor for loading several ports together: every current is scaled by D = P_nameplate/ΣVᵢIᵢ when D < 1
 * (10 CFR 430 subpart B, appendix Z). 1 when the ports together stay within the nameplate.
 */
export function sharedLoadFactor(outputs: readonly Output[], totalWatts: number): number {
  const sum = nameplateWatts(outputs);
  return sum > 0 && totalWatts > 0 ? Math.min(1, totalWatts / sum) : 1;
}

/** Repeats of one load combined; kept for the first of them while they stay the same. */
const combine = memoOfLists((first: EfficiencyPoint, all: readonly EfficiencyPoint[]): LoadResult => {
  const factors = all.flatMap((point) => (point.powerFactor === null ? [] : [point.powerFactor]));
  const combined = (of: (point: EfficiencyPoint) => Measured | undefined) =>
    combineMeters(
      all.flatMap((point) => {
        const one = of(point);
        return one ? [{ of: one, meters: point.meters }] : [];
      }),
    );
  const efficiency = combined((point) => point.efficiency);
  return {
    mains: first.mains,
    load: first.load,
    efficiency: efficiency.result,
    input: combined((point) => point.input).result,
    output: combined((point) => point.output).result,
    loss: combined((point) => point.loss).result,
    outputs: first.outputs.map((output, index) => {
      const own = (pick: keyof Pick<OutputResult, 'volts' | 'amps' | 'watts'>) =>
        combined((point) => point.outputs[index]?.[pick]).result;
      return {
        port: output.port,
        volts: own('volts'),
        amps: own('amps'),
        watts: own('watts'),
      };
    }),
    powerFactor: factors.length > 0 ? factors.reduce((a, b) => a + b, 0) / factors.length : null,
    runs: all.length,
    takenAt: all.reduce((latest, { takenAt }) => (takenAt > latest ? takenAt : latest), first.takenAt),
    pointIds: all.map((point) => point.pointId),
    findings: [...new Set(all.flatMap((point) => point.findings)), ...combinedSays(efficiency, 'efficiency')],
  };
});

function byLoad(points: readonly EfficiencyPoint[]): LoadResult[] {
  return [...groupsBy(points, ({ load }) => load).values()]
    .flatMap((group) => (group[0] ? [combine(group[0], group)] : []))
    .sort((a, b) => a.load - b.load);
}

function mainsResult(mains: Mains, points: readonly EfficiencyPoint[]): MainsResult {
  const loads = byLoad(points);
  const at = (load: number) => loads.find((result) => Math.abs(result.load - load) < 1e-6);
  const four = AVERAGE_LOADS.map(at);
  const missing = AVERAGE_LOADS.filter((_, index) => !four[index]);
  return {
    mains,
    loads,
    average: missing.length === 0 ? meanOfCommon(four.flatMap((result) => result?.efficiency ?? [])) : null,
    missing,
    lightLoad: at(LIGHT_LOAD)?.efficiency ?? null,
  };
}

function extreme(byMains: readonly MainsResult[], sign: 1 | -1): Extreme | null {
  const all = byMains.flatMap(({ loads }) => loads).filter(({ load }) => load > 0);
  return all.reduce<Extreme | null>((found, { efficiency, mains, load }) => {
    const better = found === null || sign * (efficiency.value - found.efficiency.value) > 0;
    return better ? { efficiency, mains, load } : found;
  }, null);
}

function seriesOf(setup: Setup, points: readonly Point[], rigs: readonly Rig[]): SeriesResult {
  const complete: EfficiencyPoint[] = [];
  const incomplete: { pointId: string; missing: readonly string[] }[] = [];
  for (const point of points) {
    const rig = rigs.find((candidate) => candidate.id === point.rigId);
    const result = rig ? efficiencyPoint(point, setup, rig) : { pointId: point.id, missing: ['its rig'] };
    if ('missing' in result) incomplete.push(result);
    else complete.push(result);
  }
  const labels = [...new Set(complete.map((point) => mainsLabel(point.mains)))].sort((a, b) =>
    a.localeCompare(b, 'en', { numeric: true }),
  );
  const byMains = labels.flatMap((label) => {
    const own = complete.filter((point) => mainsLabel(point.mains) === label);
    return own[0] ? [mainsResult(own[0].mains, own)] : [];
  });
  return {
    setup,
    nameplateWatts: nameplateWatts(setup.outputs),
    byMains,
    best: extreme(byMains, 1),
    worst: extreme(byMains, -1),
    incomplete,
  };
}

const keptSeries = memoOfLists(seriesOf);

/**
 * Everything the readings of one loading say about efficiency.
 * @param points all points of the sample; those of other loadings and the unloaded ones are left out
 */
export const efficiencySeries = (setup: Setup, points: readonly Point[], rigs: readonly Rig[]): SeriesResult =>
  keptSeries(
    setup,
    points.filter(({ setupId, load }) => setupId === setup.id && load !== 0),
    rigs,
  );
