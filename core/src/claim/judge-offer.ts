// Promises held against what the charger says: advertised only, unreachable, or not visible to the analyser.

import { CLAIM_STATES, type ClaimState, type ClaimTest, settle, worstState } from '../evidence/index.ts';
import { describeOffer, usableAmps, voltsOf } from '../pd/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { bestReadOut, currentReadOuts, fiveAmpCable, type Offer, offersOf, type ReadOut } from '../read-out/index.ts';
import { type Output, SUPPLY_WORDS } from '../reading/index.ts';
import { type Judged, type Known, notTested, type PromiseOf } from './known.ts';

const judged = (state: ClaimState, sentence: string, notes: readonly string[] = []): Judged => ({
  state,
  sentence,
  notes,
  tests: [],
});

const STEP = 0.011;

function advertised(port: string, offer: Offer): Judged {
  const words = describeOffer(offer.object);
  return offer.unreachable === null
    ? judged('advertised only', `Advertised: ${words} on ${port}. Not loaded yet.`)
    : judged('unreachable', `Advertised but unreachable: ${words} on ${port}. ${offer.unreachable}`);
}

/**
 * What the read-outs say of a promised fixed level.
 * @returns null when no read-out says anything about it
 */
export function judgeLineOffer({ port, volts, amps }: PromiseOf<'port-line'>, known: Known): Judged | null {
  const best = bestReadOut(known.readOuts, port);
  if (!best || best.words.length === 0) return null;
  const own = offersOf(best).filter(
    ({ object }) => object.kind === 'fixed' && Math.abs(object.volts - volts) < 0.01 * volts,
  );
  const [full] = own.filter(({ object }) => 'amps' in object && object.amps >= amps - STEP);
  if (full) return advertised(port, full);
  const line = `${formatPlain(volts, 'voltage')} ${formatPlain(amps, 'current')}`;
  if (own[0] && amps > 3 && !fiveAmpCable(best))
    return judged('not visible', `More than 3 A shows only over a marked 5 A cable; ${port} was read out without one.`);
  if (own[0])
    return notTested(`${port} offers ${describeOffer(own[0].object)} where ${line} is promised. Load it to know.`);
  return notTested(`${port} does not offer ${line} over PD; other signalling may give it. Load it to know.`);
}

const coversRange = ({ object }: Offer, promise: PromiseOf<'range'>): boolean => {
  const range = voltsOf(object);
  if (object.kind !== promise.supply || !range) return false;
  // Ranges are named by their usual ends; 0.1 V is the step they are told in.
  if (range.low > promise.low + 0.101 || range.high < promise.high - 0.101) return false;
  const least = Math.min(
    usableAmps(object, Math.max(range.low, promise.low)),
    usableAmps(object, Math.min(range.high, promise.high)),
  );
  return least >= promise.amps - 0.051;
};

const seen = (known: Known, readOut: ReadOut, supply: PromiseOf<'range'>['supply']): boolean =>
  known.seesOf(readOut.instrumentId)?.supplies.includes(supply) ?? true;

/**
 * A promised range: proven when both its ends were, else by what is offered.
 * @param atLevel judges one end as if it were a promised level
 */
export function judgeRange(
  promise: PromiseOf<'range'>,
  known: Known,
  atLevel: (level: Output) => Judged | null,
): Judged {
  const name = `${SUPPLY_WORDS[promise.supply]} ${formatPlain(promise.low, 'voltage').replace(' V', '')}–${formatPlain(promise.high, 'voltage')}`;
  const ends = [promise.low, promise.high].map((volts) =>
    atLevel({ port: promise.port, volts, amps: promise.amps, supply: promise.supply }),
  );
  const tested = ends.filter((end) => end !== null);
  const tests: ClaimTest[] = tested.flatMap((end) => end.tests);
  if (tested.length === ends.length || tested.some(({ state }) => state === 'short')) {
    const state = worstState(
      tested.map((end) => end.state),
      CLAIM_STATES,
    );
    const worst = tested.find((end) => end.state === state);
    return { state, sentence: `${name}: ${worst?.sentence ?? ''}`, notes: [], tests };
  }
  const half = tested.length > 0 ? ['One end of the range is proved; load the other one too.'] : [];
  const all = currentReadOuts(known.readOuts).filter(({ port, words }) => port === promise.port && words.length > 0);
  if (all.length === 0) return { ...notTested(`${promise.port} was not read out.`), notes: half, tests };
  const offers = all.flatMap(offersOf);
  const full = offers.find((offer) => coversRange(offer, promise));
  if (full) return { ...advertised(promise.port, full), notes: half, tests };
  if (!all.some((readOut) => seen(known, readOut, promise.supply)))
    return judged(
      'not visible',
      `The analyser cannot see ${SUPPLY_WORDS[promise.supply]}; read ${promise.port} out with one that can.`,
      half,
    );
  const [part] = offers.filter(({ object }) => object.kind === promise.supply);
  if (part)
    return judged('short', `${promise.port} offers ${describeOffer(part.object)} where ${name} is promised.`, half);
  return judged(
    'short',
    `${promise.port} does not offer ${SUPPLY_WORDS[promise.supply]}, and the analyser would see it.`,
    half,
  );
}

/** A promised mode outside PD, by what analysers saw of it. */
export function judgeSignal({ port, mode, title }: PromiseOf<'signal'>, known: Known): Judged {
  const results = currentReadOuts(known.readOuts)
    .filter((readOut) => readOut.port === port)
    .flatMap(({ signals, instrumentId }) =>
      signals
        .filter((signal) => signal.mode === mode)
        .map(({ result }) =>
          result === 'not seen' && known.seesOf(instrumentId)?.signals.includes(mode) === false ? 'cannot see' : result,
        ),
    );
  const states = results.map((result): ClaimState => (result === 'seen' ? 'advertised only' : 'short'));
  const told = states.filter((_, index) => results[index] !== 'cannot see');
  if (told.length === 0)
    return results.length > 0
      ? judged('not visible', `The analyser cannot see "${title}".`)
      : notTested(`Nobody looked for "${title}" on ${port}.`);
  const { state, disagree } = settle(told.includes('advertised only') ? ['advertised only'] : told);
  return state === 'short'
    ? judged('short', `"${title}" was looked for on ${port} and not seen.`)
    : judged(state, `${port} answers "${title}". Not loaded in that mode.`, disagree ? ['Analysers disagree.'] : []);
}
