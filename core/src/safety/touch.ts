// Touch current and earth against limits, by what each reading can prove.
import { type DecisionRule, decide, type Interval, intervalOf, type Limit } from '../decision/index.ts';
import { type ClaimState, stateOf } from '../evidence/index.ts';
import { formatMeasured, formatPlain, type QuantityId } from '../quantity/index.ts';
import { mainsLabel } from '../reading/index.ts';
import { expandedUncertainty, type Measured, readBy, type Unstated } from '../uncertainty/index.ts';
import { type EarthCheck, NETWORK_WORDS, type TouchCheck } from './checks.ts';
import type { SafetyLimits, TouchLimit } from './limits.ts';

/** A limit a reading is held against, and how it stands. */
export interface SafetyJudged {
  readonly title: string;
  readonly limit: Limit;
  readonly known: Interval;
  readonly state: ClaimState;
  /** Probability of conformity; null where none can be given. */
  readonly probability: number | null;
  /** Why it says less than a number would; empty where it says all. */
  readonly because: string;
}

export interface SafetyReading {
  readonly checkId: string;
  readonly quantity: QuantityId;
  readonly unit: string;
  readonly measured: Measured;
  readonly words: string;
  readonly conditions: string;
  readonly by: string;
  readonly judged: readonly SafetyJudged[];
}

/** A limit somebody set for touch current, A rms. */
export const ownTouch = (amps: number): Pick<SafetyLimits, 'title' | 'touch'> => ({
  title: 'Your own limit',
  touch: (['none', 'joined', 'open'] as const).map((earth) => ({
    earth,
    most: { rms: amps, peak: amps * Math.SQRT2 },
    network: 'perception',
  })),
});

/** µA below a milliampere, as people read it. */
const unitOf = (amps: number): string => (Math.abs(amps) < 0.000_999_5 ? 'µA' : 'mA');

/** What a reading taken with another network says of a limit. */
function knownBy(check: TouchCheck, value: Measured, { network }: TouchLimit): { known: Interval; because: string } {
  const both = intervalOf(value);
  if (check.network === network) return { known: both, because: '' };
  // Weights only ever take away: unweighted is the most it can be.
  if (check.network === 'unweighted')
    return {
      known: { low: Number.NEGATIVE_INFINITY, high: both.high },
      because: 'Read unweighted: with the network of the limit it is at most this.',
    };
  return {
    known: { low: Number.NEGATIVE_INFINITY, high: Number.POSITIVE_INFINITY },
    because: `Read with ${NETWORK_WORDS[check.network]}; the limit is for one ${NETWORK_WORDS[network]}.`,
  };
}

function judge(check: TouchCheck, value: Measured, title: string, own: TouchLimit, rule: DecisionRule): SafetyJudged {
  const limit: Limit = { kind: 'at-most', high: own.most[check.form] };
  const head = { title: `${title}, ${check.form}`, limit };
  const { known, because } = knownBy(check, value, own);
  if (because === '') {
    const { outcome, probability } = decide(value, limit, rule);
    return { ...head, known, state: outcome, probability, because: outcome === 'cannot be decided' ? NO_U : '' };
  }
  const state = value.unstated.length > 0 ? 'cannot be decided' : stateOf({ kind: 'load', interval: known }, limit);
  return {
    ...head,
    known,
    // Known from above alone it can be proven and never refuted.
    state: state === 'borderline' ? 'cannot be decided' : state,
    probability: null,
    because,
  };
}

const NO_U = 'The accuracy of its meter is not stated.';

const unstatedBy = (meter: string | null, quantity: string): Unstated => ({ meter, quantity });

/**
 * A touch current held against limits: with the network of the limit two-sided; unweighted it is an upper bound; with any
 * other network nothing can be decided. IEC 60990:2016, 5 and 6.
 */
export function judgeTouch(
  check: TouchCheck,
  sets: readonly Pick<SafetyLimits, 'title' | 'touch'>[],
  rule: DecisionRule,
): SafetyReading {
  const value = readBy(check.accuracy ?? undefined, check.amps, unstatedBy(check.instrumentId, 'touch current'));
  const unit = unitOf(check.amps);
  const judged = sets.flatMap(({ title, touch }) =>
    touch.filter(({ earth }) => earth === check.earth).map((own) => judge(check, value, title, own, rule)),
  );
  const turned = check.polarity === 'not noted' ? 'polarity not noted' : check.polarity;
  return {
    checkId: check.id,
    quantity: 'current',
    unit,
    measured: value,
    words: `${formatMeasured(value.value, expandedUncertainty(value), 'current', unit)} ${check.form} from ${check.from}`,
    conditions: [
      mainsLabel(check.mains),
      turned,
      check.earth === 'none' ? 'no earth' : `earth ${check.earth}`,
      NETWORK_WORDS[check.network],
      check.loaded ? 'loaded' : 'no load',
    ].join(', '),
    by: `${check.by.person}, ${check.by.standing}`,
    judged,
  };
}

/**
 * The protective earth held against limits. More than the limit is too much at any current; less, read with less current
 * than the text asks for, is not decided: a joint that hangs by a strand carries a little.
 */
export function judgeEarth(
  check: EarthCheck,
  sets: readonly Pick<SafetyLimits, 'title' | 'earth'>[],
  rule: DecisionRule,
): SafetyReading {
  const value = readBy(check.accuracy ?? undefined, check.ohms, unstatedBy(check.instrumentId, 'resistance'));
  const known = intervalOf(value);
  const judged = sets.map(({ title, earth }): SafetyJudged => {
    const limit: Limit = { kind: 'at-most', high: earth.most };
    const { outcome, probability } = decide(value, limit, rule);
    const weak = check.testAmps < earth.leastAmps * 0.98 && outcome === 'proven';
    return {
      title,
      limit,
      known,
      state: weak ? 'cannot be decided' : outcome,
      probability: weak ? null : probability,
      because: weak
        ? `Read at ${formatPlain(check.testAmps, 'current')}; the text asks for ${formatPlain(earth.leastAmps, 'current')}.`
        : outcome === 'cannot be decided'
          ? NO_U
          : '',
    };
  });
  return {
    checkId: check.id,
    quantity: 'resistance',
    unit: 'mΩ',
    measured: value,
    words: `${formatMeasured(value.value, expandedUncertainty(value), 'resistance')} from the earth pin to ${check.to}`,
    conditions: `at ${formatPlain(check.testAmps, 'current')}`,
    by: `${check.by.person}, ${check.by.standing}`,
    judged,
  };
}
