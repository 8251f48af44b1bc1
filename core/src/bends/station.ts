// Bends as a station: what a cable lost by them, and whether it still does its work.
import { type BendFault, type BendRun, type CableRun, FAILED, type Side, wiggleWords } from '../cable/index.ts';
import { type ClaimState, worstOf } from '../evidence/index.ts';
import type { Claim } from '../promise/index.ts';
import { formatMeasured } from '../quantity/index.ts';
import type { ResistanceSeries } from '../resistance/index.ts';
import { currentRuns } from '../run/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { difference, expandedUncertainty, isStated, type Measured } from '../uncertainty/index.ts';
import { type BendMethod, type BendPlan, bendPlan, nextLook, USUAL_BENDS } from './plan.ts';

/** A rise of the resistance counts as wear beyond this part, and beyond its uncertainty. */
export const WORN_PART = 0.1;

/** What the resistance rose by, since before the first bend. */
export interface Wear {
  readonly side: Side;
  readonly bends: number;
  /** Ω at 20 °C, or as read where a temperature is missing on either side. */
  readonly ohms: Measured;
  readonly delta: Measured;
  /** Rise as a part of what it was. */
  readonly part: number;
  /** Null while an accuracy is not stated. */
  readonly worn: boolean | null;
  /** Both at 20 °C. */
  readonly corrected: boolean;
  readonly sentence: string;
}

export interface BendsConclusion {
  readonly plan: BendPlan;
  readonly looks: readonly BendRun[];
  /** Bends so far. */
  readonly done: number;
  /** Bends at the next look; null when the plan is done or it failed. */
  readonly next: number | null;
  /** The first look at which it did not do its work any more. */
  readonly failed: { readonly count: number; readonly fault: BendFault } | null;
  /** Counts at which it was looked at last while it still worked, and at which it did not. */
  readonly wear: readonly Wear[];
  readonly findings: readonly string[];
}

/** What bends bring to the claims. */
export interface BendEvidence {
  readonly done: number;
  readonly failed: { readonly count: number; readonly after: number; readonly fault: BendFault } | null;
  readonly worn: number | null;
  readonly runIds: readonly string[];
  readonly conditions: string;
}

export interface BendFacts {
  readonly claims: readonly Claim[];
  readonly cableRuns: readonly CableRun[];
  readonly profile: { readonly bends?: BendMethod | null | undefined };
}

interface BendNeeds {
  readonly resistance: { readonly series: readonly ResistanceSeries[] };
}

const percent = (part: number): string => `${(part * 100).toFixed(1)} %`;

/** "Worn" only where the rise is beyond a tenth and beyond its own uncertainty. */
function wearOf(before: ResistanceSeries, now: ResistanceSeries): Wear {
  const corrected = before.at20 !== null && now.at20 !== null;
  const was = corrected ? (before.at20 as Measured) : before.ohms;
  const is = corrected ? (now.at20 as Measured) : now.ohms;
  const delta = difference(was, is);
  const part = was.value !== 0 ? delta.value / was.value : Number.NaN;
  const expanded = expandedUncertainty(delta);
  const worn = isStated(delta) ? part > WORN_PART && delta.value > expanded : null;
  const shown = formatMeasured(delta.value, isStated(delta) ? expanded : Number.POSITIVE_INFINITY, 'resistance');
  const words =
    worn === null
      ? 'the accuracy of a meter is not stated'
      : worn
        ? 'worn'
        : delta.value > expanded
          ? `more, but not worn: under ${WORN_PART * 100} %`
          : part > WORN_PART
            ? 'within its uncertainty'
            : 'as before';
  return {
    side: now.side,
    bends: now.bends,
    ohms: is,
    delta,
    part,
    worn,
    corrected,
    sentence: `${shown} (${percent(part)}) after ${now.bends} bends: ${words}.`,
  };
}

export const bendsStation: Station<'bends', BendFacts, BendNeeds, BendsConclusion> = {
  ...aboutStation('bends'),
  reads: ['claims', 'cableRuns', 'profile'],
  needs: ['resistance'],
  conclude({ claims, cableRuns, profile }, { resistance }) {
    const claimed = claims.flatMap(({ promise }) => (promise.kind === 'bends' ? [promise.count] : []));
    const plan = bendPlan(profile.bends ?? USUAL_BENDS, claimed.length > 0 ? Math.max(...claimed) : null);
    const looks = currentRuns(cableRuns)
      .filter((run): run is BendRun => run.kind === 'bend')
      .sort((a, b) => a.count - b.count);
    const done = looks.at(-1)?.count ?? 0;
    const first = looks.find(({ fault }) => FAILED.includes(fault));
    const wear = resistance.series.flatMap((now) => {
      const before = resistance.series.find(({ side, bends }) => side === now.side && bends === 0);
      return before && now.bends > 0 ? [wearOf(before, now)] : [];
    });
    return {
      plan,
      looks,
      done,
      next: first ? null : nextLook(plan, done),
      failed: first ? { count: first.count, fault: first.fault } : null,
      wear,
      findings: [
        ...looks.flatMap(({ fault, count }) =>
          fault === 'none' || looks.some((one) => one.fault === fault && one.count < count)
            ? []
            : [`After ${count} bends: ${fault}.`],
        ),
        ...looks.flatMap(({ wiggle, count, fault }) =>
          wiggle && wiggle.interruptions > 0
            ? [
                `Wiggled after ${count} bends: ${wiggleWords(wiggle)}${fault === 'none' ? ', and no fault is entered' : ''}.`,
              ]
            : [],
        ),
        ...(wear.some(({ corrected }) => !corrected)
          ? ['Without temperatures a rise may be a warmer room: copper changes by 0.4 % a kelvin.']
          : []),
        ...(looks.length > 0 && resistance.series.every(({ bends }) => bends > 0)
          ? ['Its resistance before the first bend is not known: what it lost cannot be told.']
          : []),
      ],
    };
  },
  evidence({ looks, done, failed, wear }) {
    const [first] = looks;
    if (!first) return { bends: [] };
    const worn = wear.filter((one) => one.worn).map(({ bends }) => bends);
    const after =
      looks.findLast(({ count, fault }) => failed !== null && count < failed.count && !FAILED.includes(fault))?.count ??
      0;
    const said: BendEvidence = {
      done,
      failed: failed && { ...failed, after },
      worn: worn.length > 0 ? Math.min(...worn) : null,
      runIds: looks.map(({ id }) => id),
      conditions: `${first.angle}° each way over ${Math.round(first.radius * 1000)} mm${first.tension === null ? '' : `, ${Number(first.tension.toPrecision(2))} N`}`,
    };
    return { bends: [said] };
  },
  progress({ done, plan, failed, wear }, _slice, settles) {
    const worst: ClaimState[] = failed ? ['short'] : wear.some(({ worn }) => worn) ? ['borderline'] : [];
    return {
      done: failed ? plan.count : Math.min(done, plan.count),
      total: plan.count,
      worst: worstOf([...settles, ...worst]),
    };
  },
  says: ({ wear, findings, failed }) => [
    ...(failed ? [`It failed by ${failed.count} bends: ${failed.fault}.`] : []),
    ...findings.filter((one) => !failed || !one.includes(failed.fault)),
    ...wear.slice(-1).map(({ sentence }) => sentence),
  ],
};
