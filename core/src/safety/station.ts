// The safety look as a station: what was read and seen, what it means, and what still is to be looked at.
import type { DecisionRule, Limit } from '../decision/index.ts';
import { nameplateOf, type SeriesResult } from '../efficiency/index.ts';
import { type ClaimState, worstOf } from '../evidence/index.ts';
import type { Claim } from '../promise/index.ts';
import type { Mains } from '../reading/index.ts';
import { currentRuns } from '../run/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { BOND_MEANS, type Bond, type BondResult, bondResult } from './bond.ts';
import {
  CHECK_WORDS,
  type CheckedSample,
  type CheckKind,
  checksOf,
  type FitCheck,
  type SafetyCheck,
} from './checks.ts';
import { celsiusWords } from './describe.ts';
import { type HarmonicFigures, type HarmonicResult, harmonicsOf, limitsHold } from './harmonics.ts';
import { leverOf } from './lever.ts';
import { LEVER, SAFETY_LIMITS, USUAL_SAFETY } from './limits.ts';
import { judgeEarth, judgeTouch, ownTouch, type SafetyReading } from './touch.ts';

interface WaveformRecord {
  readonly id: string;
  readonly kind: string;
  readonly mains: Mains;
  readonly load: number;
  readonly takenAt: string;
  readonly figures: { readonly kind: string };
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

export interface SafetyFacts {
  readonly sample: CheckedSample & {
    readonly mass: number | null;
    readonly marks?: readonly string[] | undefined;
    readonly ports: readonly { readonly label: string }[];
  };
  readonly claims: readonly Claim[];
  readonly checks: readonly SafetyCheck[];
  readonly captures: readonly WaveformRecord[];
  readonly profile: {
    readonly rule: DecisionRule;
    /** How touch current is judged; left out for the usual set alone. */
    readonly safety?: SafetyChoice | null | undefined;
  };
}

/** Whose limits, by their ids; and one's own for touch current, A rms, null for none. */
export interface SafetyChoice {
  readonly setIds: readonly string[];
  readonly touch: number | null;
}

export interface SafetyNeeds {
  readonly efficiency: { readonly series: readonly SeriesResult[] };
  readonly heat: {
    readonly soaks: readonly {
      readonly conditions: string;
      readonly hottest: { readonly name: string } | null;
      readonly rise: { readonly steady: number } | null;
    }[];
  };
  readonly proof: {
    readonly again: {
      readonly since: string;
      readonly lines: readonly {
        readonly step: {
          readonly outputs: readonly { readonly port: string; readonly volts: number; readonly amps: number }[];
        };
        readonly done: boolean;
        readonly state: ClaimState;
        readonly sentence: string;
      }[];
    } | null;
  };
}

/** How a plug sits, and what it bears on the socket. */
export interface FitResult {
  readonly checkId: string;
  readonly hold: FitCheck['hold'];
  /** N·m; null where mass or reach is not known. */
  readonly lever: number | null;
  readonly limit: Limit;
  /** It bears more than it may. */
  readonly over: boolean;
  readonly state: ClaimState;
}

export interface MarkResult {
  /** Null for a mark of the intake. */
  readonly checkId: string | null;
  readonly mark: string;
  readonly printed: string;
  /** What it states, and what was found where it can be held against something. */
  readonly sentence: string;
}

export interface SafetyConclusion {
  readonly kinds: readonly CheckKind[];
  readonly touch: readonly SafetyReading[];
  readonly earth: readonly SafetyReading[];
  readonly bonds: readonly BondResult[];
  /** What bonds mean, each once. */
  readonly means: readonly { readonly bond: Bond; readonly sentence: string }[];
  readonly fit: FitResult | null;
  readonly marks: readonly MarkResult[];
  /** Ports after stress; null while there was none. */
  readonly again: SafetyNeeds['proof']['again'];
  readonly harmonics: readonly HarmonicResult[];
  /** Whether harmonics are limited for it; null where that cannot be told. */
  readonly limited: boolean | null;
  /** What was not looked at yet, and matters. */
  readonly open: readonly string[];
}

/** Most the sample was read to draw, W. */
function mostDrawn(series: readonly SeriesResult[]): number | null {
  const watts = series.flatMap(({ byMains }) => byMains.flatMap(({ loads }) => loads.map(({ input }) => input.value)));
  return watts.length > 0 ? Math.max(...watts) : null;
}

function fitOf(check: FitCheck | undefined, mass: number | null): FitResult | null {
  if (!check) return null;
  const lever = leverOf(mass, check.reach);
  const limit: Limit = { kind: 'at-most', high: LEVER.most };
  const over = lever !== null && lever > LEVER.most;
  const bad = check.hold === 'falls out' || check.hold === 'loose' || over;
  return { checkId: check.id, hold: check.hold, lever, limit, over, state: bad ? 'short' : 'proven' };
}

/** The hottest of its soaks, moved to what the mark states. */
function atStated(ambient: number, soaks: SafetyNeeds['heat']['soaks']): string {
  const rises = soaks.flatMap(({ rise, hottest, conditions }) =>
    rise && hottest ? [{ rise, hottest, conditions }] : [],
  );
  const most = rises.reduce<(typeof rises)[number] | null>(
    (a, b) => (a && a.rise.steady >= b.rise.steady ? a : b),
    null,
  );
  if (!most) return '';
  const there = ambient - 273.15 + most.rise.steady;
  return ` At that, by the rise of its soaks, ${most.hottest.name} would come to ${there.toFixed(0)} °C (${most.conditions}): predicted.`;
}

function marksOf({ sample, checks }: SafetyFacts, { heat }: SafetyNeeds): readonly MarkResult[] {
  const seen = currentRuns(checks).flatMap((check) => (check.kind === 'mark' ? [check] : []));
  const own = seen.map(
    ({ id, mark, printed, ambient }): MarkResult => ({
      checkId: id,
      mark,
      printed,
      sentence:
        ambient === null
          ? 'Stated; nobody here verified it.'
          : `Stated for up to ${celsiusWords(ambient)}.${atStated(ambient, heat.soaks)}`,
    }),
  );
  const others = (sample.marks ?? []).filter((mark) => !seen.some((one) => one.mark.toLowerCase() === mark));
  return [
    ...own,
    ...others.map((mark) => ({ checkId: null, mark, printed: 'label', sentence: 'Stated; nobody here verified it.' })),
  ];
}

function openOf(facts: SafetyFacts, done: Omit<SafetyConclusion, 'open'>): readonly string[] {
  const { kinds, touch, again, limited, harmonics, bonds, fit, earth } = done;
  const turned = facts.checks.filter(({ kind }) => kind === 'touch').map((one) => 'polarity' in one && one.polarity);
  const missing = (kind: CheckKind, there: boolean): string[] =>
    kinds.includes(kind) && !there ? [`${CHECK_WORDS[kind]} was not looked at`] : [];
  return [
    ...missing('touch', touch.length > 0),
    ...(touch.length > 0 && !turned.includes('turned round') ? ['touch current with the plug turned round'] : []),
    ...missing('earth', earth.length > 0),
    ...missing('bond', bonds.length > 0),
    ...missing('fit', fit !== null),
    ...(again?.lines.some(({ done: read }) => !read) ? ['ports after the last stress'] : []),
    ...(limited === true && harmonics.length === 0 ? ['harmonics at 230 V: they are limited above 75 W'] : []),
  ];
}

function conclude(facts: SafetyFacts, needs: SafetyNeeds): SafetyConclusion {
  const { sample, checks, profile, captures, claims } = facts;
  const { rule } = profile;
  const choice = profile.safety ?? { setIds: USUAL_SAFETY, touch: null };
  const ids: readonly string[] = choice.setIds;
  const sets = SAFETY_LIMITS.filter(({ id }) => ids.includes(id));
  const current = currentRuns(checks);
  const touch = current.flatMap((one) =>
    one.kind === 'touch'
      ? [judgeTouch(one, [...sets, ...(choice.touch === null ? [] : [ownTouch(choice.touch)])], rule)]
      : [],
  );
  const earth = current.flatMap((one) => (one.kind === 'earth' ? [judgeEarth(one, sets, rule)] : []));
  const bonds = current.flatMap((one) => (one.kind === 'bond' ? [bondResult(one)] : []));
  const found = [...new Set(bonds.flatMap(({ bond }) => bond ?? []))];
  const limited =
    sample.kind === 'car'
      ? false
      : limitsHold(nameplateOf({ claims }, needs.efficiency.series), mostDrawn(needs.efficiency.series));
  const harmonics =
    limited === false
      ? []
      : currentRuns(captures)
          .filter(({ kind }) => kind === 'waveform')
          .flatMap((one) => harmonicsOf(one.figures as unknown as HarmonicFigures, one, rule) ?? []);
  const done = {
    kinds: checksOf(sample),
    touch,
    earth,
    bonds,
    means: found.map((bond) => ({ bond, sentence: BOND_MEANS[bond] })),
    fit: fitOf(
      current.findLast((one): one is FitCheck => one.kind === 'fit'),
      sample.mass,
    ),
    marks: marksOf(facts, needs),
    again: needs.proof.again,
    harmonics,
    limited,
  };
  return { ...done, open: openOf({ ...facts, checks: current }, done) };
}

const readingSays = ({ words, conditions, judged }: SafetyReading): string =>
  `${words} (${conditions})${judged.map(({ title, state, because }) => `; ${title}: ${stateSays(state)}${because ? `. ${because}` : ''}`).join('')}`.replace(
    /\.?$/,
    '.',
  );

/** How a reading stands to its limit: never in a word that certifies. */
export const stateSays = (state: ClaimState): string =>
  state === 'proven' ? 'within' : state === 'short' ? 'over' : state === 'borderline' ? 'too close to call' : state;

/** What a harmonic comes to, in a sentence. */
export function harmonicSays({ nearest, conditions, state }: HarmonicResult): string {
  if (!nearest) return `All harmonics are too small to count (${conditions}).`;
  const part = ((nearest.amps / nearest.most) * 100).toFixed(0);
  return `Harmonic ${nearest.order} is at ${part} % of its limit, ${(nearest.amps * 1000).toFixed(0)} of ${(nearest.most * 1000).toFixed(0)} mA (${conditions}): ${stateSays(state)}.`;
}

export const safetyStation: Station<'safety', SafetyFacts, SafetyNeeds, SafetyConclusion> = {
  ...aboutStation('safety'),
  reads: ['sample', 'claims', 'checks', 'captures', 'profile'],
  needs: ['efficiency', 'proof', 'heat'],
  conclude,
  progress(result) {
    const { kinds, touch, earth, bonds, fit, marks, again, harmonics, limited } = result;
    const there: Readonly<Record<CheckKind, boolean>> = {
      touch: touch.length > 0,
      earth: earth.length > 0,
      bond: bonds.length > 0,
      fit: fit !== null,
      mark: marks.length > 0,
    };
    const states: ClaimState[] = [
      ...[...touch, ...earth].flatMap(({ judged }) => judged.map(({ state }) => state)),
      ...harmonics.filter(() => limited === true).map(({ state }) => state),
      ...(fit ? [fit.state] : []),
      ...(again?.lines ?? []).filter(({ done, state }) => done && state === 'short').map(({ state }) => state),
    ];
    const told = states.filter((state) => state !== 'cannot be decided');
    const harmonicsToo = limited === true ? 1 : 0;
    const againToo = again ? 1 : 0;
    return {
      done:
        kinds.filter((kind) => there[kind]).length +
        (harmonicsToo && harmonics.length > 0 ? 1 : 0) +
        (againToo && again?.lines.every(({ done }) => done) ? 1 : 0),
      total: kinds.length + harmonicsToo + againToo,
      worst: worstOf(told),
    };
  },
  says(result) {
    const { touch, earth, bonds, means, fit, marks, again, harmonics, limited } = result;
    const weak = (again?.lines ?? []).filter(({ done, state }) => done && state === 'short');
    return [
      ...weak.map(({ step, sentence }) => `${step.outputs[0]?.port ?? ''} after stress: ${sentence}`),
      ...[...touch, ...earth].map(readingSays),
      ...bonds.map(({ words }) => `Output to earth, ${words}.`),
      ...means.map(({ sentence }) => sentence),
      ...(fit
        ? [
            `Sits ${fit.hold} in the socket${fit.lever === null ? '' : `, bearing ${fit.lever.toFixed(2)} N·m on it; ${LEVER.most} may be`}.`,
          ]
        : []),
      ...(limited === true ? harmonics.map(harmonicSays) : []),
      ...marks
        .filter(({ checkId }) => checkId !== null)
        .map(({ mark, printed, sentence }) => `${mark} (${printed}): ${sentence}`),
    ];
  },
};
