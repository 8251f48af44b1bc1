// Promises of a cable: what it carries, what data goes over it, how often it may be bent.
import { bitsWords } from '../copy/index.ts';
import type { Limit } from '../decision/index.ts';
import { type ClaimState, type ClaimTest, decidingFirst } from '../evidence/index.ts';
import { formatMeasured, formatPlain } from '../quantity/index.ts';
import { dropAt, dropLimit, SIDE_WORDS } from '../resistance/index.ts';
import { expandedUncertainty } from '../uncertainty/index.ts';
import { type Judged, type Known, notTested, type PromiseOf } from './known.ts';

/** What a resistance says of a rating: its drop at the current that is promised against what a Type-C cable may drop. */
function dropTests(amps: number, { resistances, rule }: Known): readonly ClaimTest[] {
  return resistances.map(({ series, conditions, side }) => {
    const { drop, decision } = dropAt(series.ohms, amps, side, rule);
    const expanded = expandedUncertainty(drop);
    return {
      quantity: 'voltage',
      limit: dropLimit(side),
      value: drop.value,
      expanded,
      unstated: drop.unstated,
      state: decision.outcome,
      probability: decision.probability,
      words: `${formatMeasured(drop.value, expanded, 'voltage', 'mV')} along ${SIDE_WORDS[side]}`,
      evidence: {
        kind: 'load',
        interval: { low: drop.value - expanded, high: drop.value + expanded },
        conditions: `at ${formatPlain(amps, 'current')}, ${conditions}`,
        pointIds: series.runIds,
      },
    };
  });
}

/**
 * A rating is proven where the marker says as much and each conductor drops no more than it may at that current. A loop within
 * its limit is necessary and not sufficient. Without a marker no charger gives more than 3 A, 60 W.
 */
export function judgeCableRating(promise: PromiseOf<'cable-rating'>, known: Known): Judged {
  const [marker] = known.markers;
  const tests = dropTests(promise.amps, known);
  const promised = `${formatPlain(promise.amps, 'current')}, ${formatPlain(promise.amps * promise.volts, 'power')}`;
  const need = promise.amps > 3 || promise.volts > 20.5;
  const least = marker ? Math.min(promise.amps, marker.rating.amps) * Math.min(promise.volts, marker.rating.volts) : 0;
  const short = marker && (promise.amps > marker.rating.amps * 1.005 || promise.volts > marker.rating.volts * 1.055);
  const judged = (state: ClaimState, sentence: string, notes: readonly string[] = []): Judged => ({
    state,
    sentence,
    notes,
    tests: decidingFirst(tests, state),
  });
  if (short)
    return judged(
      'short',
      marker.answered
        ? `Its marker lets ${formatPlain(least, 'power')} through; promised ${promised}.`
        : `No marker answers, so no charger gives it more than 3 A, 60 W; promised ${promised}.`,
    );
  const over = tests.find(({ state }) => state === 'short');
  if (over)
    return judged('short', `${over.words} (${over.evidence.conditions}): more than it may; promised ${promised}.`);
  if (need && !marker) return { ...notTested(`Nobody asked its marker yet; promised ${promised}.`), tests };
  const sides = tests.filter((_, at) => known.resistances[at]?.side !== 'loop');
  const both = sides.length === 2 && sides.every(({ state }) => state === 'proven');
  if (both)
    return judged(
      'proven',
      `${sides.map(({ words }) => words).join(' and ')}: within what each may drop; promised ${promised}.`,
    );
  if (tests.length === 0)
    return judged('advertised only', `Its marker says so; promised ${promised}. Its resistance is not known.`);
  const undecided = tests.find(({ state }) => state === 'cannot be decided' || state === 'borderline');
  if (undecided)
    return judged(undecided.state, `${undecided.words} (${undecided.evidence.conditions}); promised ${promised}.`);
  return judged(
    'advertised only',
    `${tests[0]?.words ?? ''} is within what both may drop together; promised ${promised}.`,
    ['A loop within its limit is necessary and not sufficient: read VBUS and ground apart.'],
  );
}

/** A copy proves the link it needed and never refutes one; what a host calls the link does, where it is known to reach more. */
export function judgeDataRate({ bits }: PromiseOf<'data-rate'>, known: Known): Judged {
  const promised = bitsWords(bits);
  if (known.copies.length === 0) {
    const [marker] = known.markers;
    return marker?.bits && marker.bits >= bits
      ? { ...notTested(`Its marker says as much; nothing was copied over it yet.`), state: 'advertised only' }
      : notTested('Nothing was copied over it yet.');
  }
  const limit: Limit = { kind: 'at-least', low: bits };
  const tests = known.copies.map(({ proven, link, hostLink, conditions, runIds }): ClaimTest => {
    const refuted = link !== null && link < bits * 0.98 && hostLink !== null && hostLink >= bits * 0.98;
    const state: ClaimState =
      proven >= bits * 0.98 || (link !== null && link >= bits * 0.98) ? 'proven' : refuted ? 'short' : 'at least';
    const least = Math.max(proven, link ?? 0);
    return {
      quantity: 'frequency',
      limit,
      value: null,
      words: `${state === 'short' ? 'a link of' : 'at least'} ${bitsWords(state === 'short' ? (link ?? 0) : least)}`,
      expanded: Number.POSITIVE_INFINITY,
      unstated: [],
      state,
      probability: null,
      evidence: {
        kind: 'device',
        interval: { low: least, high: refuted ? (link ?? least) : Number.POSITIVE_INFINITY },
        conditions,
        pointIds: runIds,
      },
    };
  });
  const has = (state: ClaimState) => tests.some((test) => test.state === state);
  const state: ClaimState =
    has('proven') && has('short') ? 'borderline' : has('proven') ? 'proven' : has('short') ? 'short' : 'at least';
  const sorted = decidingFirst(tests, state === 'borderline' ? 'short' : state);
  const faults = known.copies.reduce((sum, one) => sum + one.faults, 0);
  return {
    state,
    sentence: `${sorted[0]?.words ?? ''} (${sorted[0]?.evidence.conditions ?? ''}); promised ${promised}.`.replace(
      /^./,
      (c) => c.toUpperCase(),
    ),
    notes: [
      ...(state === 'at least'
        ? ['A copy is held back by drives and files as well: it proves a link and never refutes one.']
        : []),
      ...(has('proven') && has('short') ? ['The copies do not agree: one links as promised, one does not.'] : []),
      ...(faults > 0 ? ['Copies failed or fell back: see Data.'] : []),
    ],
    tests: sorted,
  };
}

/** Bends are promised of every one; this one proves its own count, or fails before it. */
export function judgeBends({ count }: PromiseOf<'bends'>, known: Known): Judged {
  const [bent] = known.bends;
  if (!bent) return notTested('It was not bent yet.');
  const { done, failed, worn, conditions, runIds } = bent;
  const within = failed !== null && failed.count <= count;
  const between = failed !== null && failed.count > count && failed.after < count;
  const lived = failed ? failed.after : done;
  const state: ClaimState = within
    ? 'short'
    : between
      ? 'borderline'
      : lived >= count
        ? worn !== null && worn <= count
          ? 'borderline'
          : 'proven'
        : 'at least';
  const sentence = within
    ? `It failed by ${failed.count} bends: ${failed.fault}; promised ${count}.`
    : between
      ? `It failed between ${failed.after} and ${failed.count} bends: ${failed.fault}; promised ${count}.`
      : `${lived} bends and it works; promised ${count}.`;
  const limit: Limit = { kind: 'at-least', low: count };
  return {
    state,
    sentence,
    notes: [
      ...(worn !== null ? [`Its resistance was worn after ${worn} bends.`] : []),
      'One unit says little about the next.',
    ],
    tests: [
      {
        quantity: 'frequency',
        limit,
        value: null,
        words: within || between ? `failed by ${failed.count} bends` : `${lived} bends`,
        expanded: Number.POSITIVE_INFINITY,
        unstated: [],
        state,
        probability: null,
        evidence: {
          kind: 'load',
          interval: { low: lived, high: failed ? failed.count : Number.POSITIVE_INFINITY },
          conditions,
          pointIds: runIds,
        },
      },
    ],
  };
}
