// Judges claims by the evidence the stations have gathered.

import { type Claim, describePromise, type Promised, sharePorts } from '../promise/index.ts';
import { type Unstated, unstatedOf } from '../uncertainty/index.ts';
import { judgeBends, judgeCableRating, judgeDataRate } from './judge-cable.ts';
import { judgeChargeTime } from './judge-charge.ts';
import { judgeEfficiency, judgeIdle, judgeRipple, judgeSurface } from './judge-figures.ts';
import { withHold } from './judge-hold.ts';
import { judgeRange, judgeSignal } from './judge-offer.ts';
import { judgeCombination, judgeLoadedLine, judgePortLine, judgeTotal } from './judge-power.ts';
import type { Judged, Known } from './known.ts';
import type { ClaimResult } from './types.ts';

function judgePromise(promise: Promised, known: Known): Judged {
  switch (promise.kind) {
    case 'port-line':
      return judgePortLine(promise, known);
    case 'range':
      return judgeRange(promise, known, (level) => judgeLoadedLine(level, known));
    case 'signal':
      return judgeSignal(promise, known);
    case 'total':
      return judgeTotal(promise, known);
    case 'combination':
      return judgeCombination(promise, known);
    case 'average-efficiency':
      return judgeEfficiency(promise, known);
    case 'idle':
      return judgeIdle(promise, known);
    case 'ripple':
      return judgeRipple(promise, known);
    case 'surface':
      return judgeSurface(promise, known);
    case 'charge-time':
      return judgeChargeTime(promise, known);
    case 'cable-rating':
      return judgeCableRating(promise, known);
    case 'data-rate':
      return judgeDataRate(promise, known);
    case 'bends':
      return judgeBends(promise, known);
    case 'wording':
      return { state: 'undefined', sentence: 'These words promise nothing that can be tested.', notes: [], tests: [] };
  }
}

/** Accuracies nobody stated, a sentence a meter. */
export const unstatedSays = (unstated: readonly Unstated[], nameOf: Known['nameOf']): readonly string[] =>
  [...new Set(unstated.map(({ meter }) => meter))].map((meter) => {
    const name = meter === null ? null : nameOf(meter);
    const quantities = unstated.filter((one) => one.meter === meter).map(({ quantity }) => quantity);
    return `The accuracy of ${name ? `“${name}”` : 'what was read'} for ${quantities.join(' and ')} is not stated.`;
  });

/** The ports a promise is about. */
function portsOf(promise: Promised): readonly string[] {
  if ('port' in promise) return [promise.port];
  return promise.kind === 'combination' ? promise.shares.flatMap(sharePorts) : [];
}

const MOST_BESIDES = 3;

/** Readings on its ports that say nothing about it: so that nobody reads "nothing measured" beside them. */
function besides(promise: Promised, { tests }: Pick<ClaimResult, 'tests'>, { delivered }: Known): readonly string[] {
  if (tests.length > 0) return [];
  const ports = portsOf(promise);
  const near = delivered.filter(({ asked, load }) => load > 0 && asked.some(({ port }) => ports.includes(port)));
  return [...new Set(near.map(({ conditions }) => conditions))].slice(0, MOST_BESIDES);
}

/** Why it cannot be decided, and what to state first. */
function withReason(result: ClaimResult, { nameOf }: Known): ClaimResult {
  if (result.state !== 'cannot be decided') return result;
  const unstated = unstatedOf(result.tests.filter(({ state }) => state === result.state));
  return { ...result, unstated, sentence: [result.sentence, ...unstatedSays(unstated, nameOf)].join(' ') };
}

/**
 * Judge every claim of a sample.
 * @param twins pairs of port labels the maker made alike: an untested port takes its tested twin's result as assumed
 */
export function judgeClaims(
  claims: readonly Claim[],
  known: Known,
  twins: readonly { readonly port: string; readonly twin: string }[] = [],
): readonly ClaimResult[] {
  const results = claims.map((claim): ClaimResult => {
    const judged = judgePromise(claim.promise, known);
    const result = { claimId: claim.id, unstated: [], ...withHold(claim, judged, known) };
    return withReason({ ...result, besides: besides(claim.promise, result, known) }, known);
  });
  return results.map((result, index) => {
    const promise = claims[index]?.promise;
    const untested = result.state === 'not tested' || result.state === 'advertised only';
    if (!untested || promise?.kind !== 'port-line') return result;
    const alike = twins.flatMap(({ port, twin }) =>
      port === promise.port ? [twin] : twin === promise.port ? [port] : [],
    );
    const tested = results.find((other, otherIndex) => {
      const theirs = claims[otherIndex]?.promise;
      return (
        other.state === 'proven' &&
        theirs?.kind === 'port-line' &&
        alike.includes(theirs.port) &&
        theirs.volts === promise.volts &&
        theirs.amps === promise.amps
      );
    });
    if (!tested) return result;
    const theirs = claims.find((claim) => claim.id === tested.claimId);
    return {
      ...result,
      state: 'assumed' as const,
      sentence: `Assumed: its twin is proven (${theirs ? describePromise(theirs.promise) : ''}).`,
      tests: tested.tests,
    };
  });
}
