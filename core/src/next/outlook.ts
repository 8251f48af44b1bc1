// What a measurement would do for a promise: how likely it decides, and what would help where it does not.
import type { ClaimResult } from '../claim/index.ts';
import type { DecisionRule, Limit } from '../decision/index.ts';
import { type ClaimTest, levelTolerance } from '../evidence/index.ts';
import type { Promised } from '../promise/index.ts';
import { formatPlain, type QuantityId } from '../quantity/index.ts';
import type { RangeSupply } from '../reading/index.ts';
import { aboutAsPromised, type Belief, decidedChance } from './chance.ts';
import { efficiencyU, type Meters, portWatts } from './meters.ts';

/** What would decide where more bench time would not. */
export type Remedy =
  | { readonly kind: 'better meter'; readonly says: string }
  | { readonly kind: 'more repeats'; readonly says: string }
  | { readonly kind: 'accuracy'; readonly says: string }
  | { readonly kind: 'analyser'; readonly says: string }
  | { readonly kind: 'meter'; readonly says: string };

export interface Outlook {
  /** Probability that it is decided, 0…1. */
  readonly chance: number;
  readonly remedy: Remedy | null;
}

export interface Rules {
  readonly rule: DecisionRule;
  readonly allowance: number;
  readonly tolerance: number | null;
}

/** Below this a measurement is no way to a decision, and what would help is said. */
const POOR = 0.5;
const GOOD = 0.8;

/** One value that has to be decided. */
interface Question {
  readonly quantity: QuantityId;
  readonly limit: Limit;
  readonly belief: Belief;
  /** U, k = 2; null without a meter for it. */
  readonly expanded: number | null;
}

/** What U would do; null where even an exact meter would not. */
function enough({ limit, belief }: Question, rule: DecisionRule): number | null {
  if (decidedChance(limit, belief, 0, { rule }) < GOOD) return null;
  let [low, high] = [0, 1e6];
  for (let turn = 0; turn < 80; turn += 1) {
    const middle = (low + high) / 2;
    if (decidedChance(limit, belief, middle, { rule }) >= GOOD) low = middle;
    else high = middle;
  }
  return low > 0 ? low : null;
}

const twoDigits = (value: number): number => Number(value.toPrecision(2));
const U = (value: number, quantity: QuantityId): string => formatPlain(twoDigits(value), quantity);

function outlookOf(questions: readonly Question[], rule: DecisionRule): Outlook {
  let chance = 1;
  let remedy: Remedy | null = null;
  for (const question of questions) {
    const { expanded, limit, belief, quantity } = question;
    if (expanded === null)
      return { chance: 0, remedy: { kind: 'meter', says: `The rig has no meter for its ${quantity}.` } };
    if (!Number.isFinite(expanded))
      return {
        chance: 0,
        remedy: { kind: 'accuracy', says: `State the accuracy of its meter for ${quantity} at Bench first.` },
      };
    const own = decidedChance(limit, belief, expanded, { rule });
    chance *= own;
    const wanted = own < POOR ? enough(question, rule) : null;
    if (wanted !== null && wanted < expanded)
      remedy = {
        kind: 'better meter',
        says: `The meter knows it to ± ${U(expanded, quantity)}; one that knows it to ± ${U(wanted, quantity)} would decide, more time would not.`,
      };
  }
  return { chance, remedy };
}

/** A value read before that lies too near its limit: what reading it again would bring, and what else would. */
function again(test: ClaimTest, expanded: number | null, rule: DecisionRule): Outlook {
  const { value, limit, expanded: was, quantity, scatter = 0 } = test;
  if (value === null || !Number.isFinite(was)) return { chance: 0, remedy: null };
  if (expanded === null || !Number.isFinite(expanded)) return { chance: 0, remedy: null };
  const ends = [...(limit.kind === 'at-most' ? [] : [limit.low]), ...(limit.kind === 'at-least' ? [] : [limit.high])];
  const margin = Math.min(...ends.map((end) => Math.abs(value - end)));
  const meter = Math.sqrt(Math.max(0, (was / 2) ** 2 - scatter ** 2));
  // The same meter errs the same way: what is new of a second reading is its scatter alone.
  const same = expanded >= 0.8 * 2 * meter;
  const spread = same ? Math.hypot(scatter, meter / 4) : Math.hypot(was / 2, expanded / 2);
  const known = same ? 2 * Math.hypot(meter, scatter / Math.SQRT2) : expanded;
  const chance = decidedChance(limit, [{ weight: 1, mean: value, sd: spread }], known, { rule, meterSpread: 0 });
  if (chance >= POOR || !(margin > 0)) return { chance, remedy: null };
  if (margin > 2 * meter && scatter > 0) {
    // U² = (2·meter)² + (2·scatter)²/n has to fall below the margin.
    const times = Math.ceil((2 * scatter) ** 2 / (margin ** 2 - (2 * meter) ** 2));
    if (times > 1 && times <= 10)
      return {
        chance,
        remedy: {
          kind: 'more repeats',
          says: `Most of its ± ${U(was, quantity)} is scatter: ${times} times as many repeats would decide.`,
        },
      };
  }
  return {
    chance,
    remedy: {
      kind: 'better meter',
      says: `It lies ${U(margin, quantity)} from its limit, known to ± ${U(was, quantity)}: a better meter would decide, more time would not.`,
    },
  };
}

const LEVEL_SPREAD = 0.012;
const level = (volts: number): Belief => [{ weight: 1, mean: volts, sd: LEVEL_SPREAD * volts }];
const reached = (value: number): Belief => aboutAsPromised(value, 0.004, 0.86, 0.08);

/** The level a share of power is likely drawn at, V. */
const volts = (watts: number): number => (watts > 100 ? 28 : watts > 45 ? 20 : watts > 15 ? 9 : 5);

const LOAD_POINTS = 4;

/** What has to be decided of a promise; null where no number is: it is looked at. */
function questionsOf(promise: Promised, { allowance, tolerance }: Rules, meters: Meters): readonly Question[] | null {
  const line = (at: number, amps: number, supply?: RangeSupply): readonly Question[] => [
    {
      quantity: 'voltage',
      limit: levelTolerance(at, tolerance, supply),
      belief: level(at),
      expanded: meters('volts', at),
    },
    {
      quantity: 'current',
      limit: { kind: 'at-least', low: amps * (1 - allowance) },
      belief: reached(amps),
      expanded: meters('amps', amps),
    },
  ];
  const power = (watts: number): Question => ({
    quantity: 'power',
    limit: { kind: 'at-least', low: watts * (1 - allowance) },
    belief: reached(watts),
    expanded: portWatts(meters, volts(watts), watts / volts(watts)),
  });
  switch (promise.kind) {
    case 'port-line':
      return line(promise.volts, promise.amps);
    case 'range':
      return [promise.low, promise.high].flatMap((at) => line(at, promise.amps, promise.supply));
    case 'total':
      return [power(promise.watts)];
    case 'combination':
      return promise.shares.map((share) => power(share.watts));
    case 'average-efficiency': {
      const own = efficiencyU(meters, promise.ratio, 20, 2);
      return [
        {
          quantity: 'efficiency',
          limit: { kind: 'at-least', low: promise.ratio },
          belief: [{ weight: 1, mean: promise.ratio + 0.004, sd: 0.01 }],
          // The four points share their meters, but not how far each reads off: a little of it averages out.
          expanded: own === null ? null : own * Math.sqrt((1 + 1 / LOAD_POINTS) / 2),
        },
      ];
    }
    case 'idle':
      return [
        {
          quantity: 'power',
          limit: { kind: 'at-most', high: promise.watts },
          belief: [
            { weight: 0.8, mean: 0.7 * promise.watts, sd: 0.2 * promise.watts },
            { weight: 0.2, mean: 1.4 * promise.watts, sd: 0.4 * promise.watts },
          ],
          expanded: meters('watts', promise.watts),
        },
      ];
    case 'ripple':
      return [
        {
          quantity: 'voltage',
          limit: { kind: 'at-most', high: promise.volts },
          belief: [
            { weight: 0.8, mean: 0.6 * promise.volts, sd: 0.25 * promise.volts },
            { weight: 0.2, mean: 1.4 * promise.volts, sd: 0.4 * promise.volts },
          ],
          // A scope knows some per cent of its range.
          expanded: 0.05 * promise.volts,
        },
      ];
    case 'surface':
      return [
        {
          quantity: 'temperature',
          limit: { kind: 'at-most', high: promise.celsius },
          belief: [{ weight: 1, mean: promise.celsius - 4, sd: 7 }],
          expanded: 2,
        },
      ];
    case 'charge-time':
      return [
        {
          quantity: 'duration',
          limit: { kind: 'at-most', high: promise.seconds },
          belief: [{ weight: 1, mean: promise.seconds, sd: 0.15 * promise.seconds }],
          expanded: 0.02 * promise.seconds,
        },
      ];
    case 'signal':
    case 'cable-rating':
    case 'bends':
    case 'data-rate':
    case 'wording':
      return null;
  }
}

/** What looking shows, shows nearly always. */
const LOOKED = 0.95;

/**
 * What measuring a promise would do.
 * @param result how it stands @param meters of the rig it would be measured with
 */
export function outlookFor(promise: Promised, result: ClaimResult, meters: Meters, rules: Rules): Outlook {
  if (result.state === 'not visible')
    return {
      chance: 0,
      remedy: { kind: 'analyser', says: 'This analyser cannot see it: read it out with one whose firmware knows it.' },
    };
  const questions = questionsOf(promise, rules, meters);
  if (questions === null) return { chance: LOOKED, remedy: null };
  const near =
    result.state === 'borderline'
      ? result.tests.find(({ state, value }) => state === 'borderline' && value !== null)
      : undefined;
  if (near) {
    const own = questions.find(({ quantity }) => quantity === near.quantity);
    return again(near, own?.expanded ?? near.expanded, rules.rule);
  }
  return outlookOf(questions, rules.rule);
}
