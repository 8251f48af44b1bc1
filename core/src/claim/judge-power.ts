// Promises of power: a port's volts and amps, a total, several ports together.

import { intervalOf, type Limit } from '../decision/index.ts';
import {
  boundTest,
  CLAIM_STATES,
  type ClaimTest,
  type Delivered,
  decidingFirst,
  levelTolerance,
  settle,
  shownTest,
  testOf,
  worstState,
} from '../evidence/index.ts';
import { type PromisedShare, sharePorts } from '../promise/index.ts';
import { decimalsFor, formatPlain, formatValue } from '../quantity/index.ts';
import type { EvidenceKind, Output } from '../reading/index.ts';
import { type Measured, sum } from '../uncertainty/index.ts';
import { judgeLineOffer } from './judge-offer.ts';
import { type Judged, type Known, notTested, type PromiseOf } from './known.ts';

const samePorts = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && [...a].sort().join('\n') === [...b].sort().join('\n');

const wattsAsked = ({ asked }: Delivered): number => asked.reduce((total, { volts, amps }) => total + volts * amps, 0);

/** A delivery put to a promised power: two-sided, a lower bound, or an interval from the socket. */
function powerTest(one: Delivered, limit: Limit, known: Known): ClaimTest[] {
  if (one.watts) return [testOf('power', limit, one.watts, one.evidence, one.conditions, one.sourceIds, known.rule)];
  return one.wall ? [boundTest(limit, one.wall, one.evidence, one.conditions, one.sourceIds)] : [];
}

const isAlone = ({ asked, load }: Delivered, port: string): boolean =>
  load > 0 && asked.length === 1 && asked[0]?.port === port;

/** Volts and amps of deliveries that asked for a line. */
function lineTests(line: Output, known: Known) {
  const voltages: ClaimTest[] = [];
  const currents: ClaimTest[] = [];
  for (const one of known.delivered) {
    const [asked] = one.asked;
    const [output] = one.outputs;
    // A device run gives one number, its power; it is put to the power of the line instead.
    if (!isAlone(one, line.port) || !asked || !output || asked.supply !== line.supply) continue;
    if (Math.abs(asked.volts - line.volts) > 0.01 * line.volts) continue;
    if (asked.amps < line.amps * (1 - known.allowance)) continue;
    const add = (quantity: 'voltage' | 'current', limit: Limit, result: Measured, kind: EvidenceKind) =>
      testOf(quantity, limit, result, kind, one.conditions, one.sourceIds, known.rule);
    // A device limits the current, not the voltage it sees, so the voltage is two-sided either way.
    const voltageKind = one.evidence === 'device' ? 'load' : one.evidence;
    voltages.push(add('voltage', levelTolerance(line.volts, known.tolerance, line.supply), output.volts, voltageKind));
    const needed: Limit = { kind: 'at-least', low: line.amps * (1 - known.allowance) };
    currents.push(add('current', needed, output.amps, one.evidence));
  }
  return { voltages, currents };
}

/** Judge volts and amps of a line, be it a fixed level or one end of a range. @returns null without a reading */
export function judgeLoadedLine(line: Output, known: Known): Judged | null {
  const { voltages, currents } = lineTests(line, known);
  if (voltages.length === 0) return null;
  const voltage = settle(voltages.map((test) => test.state));
  const current = settle(currents.map((test) => test.state));
  const state = worstState([voltage.state, current.state], CLAIM_STATES);
  const all = decidingFirst([...voltages, ...currents], state);
  const band = levelTolerance(line.volts, known.tolerance, line.supply);
  const at = all.find((test) => test.state === state && test.quantity === 'current') ?? currents[0];
  const volts = all.find((test) => test.quantity === 'voltage') ?? all[0];
  const within = `must stay within ${band.low.toFixed(2)}…${band.high.toFixed(2)} V`;
  const sentence =
    voltage.state === state && volts && at
      ? `${shownTest(volts)} at ${formatPlain(at.value ?? Number.NaN, 'current')}; ${within}.`
      : `${at ? shownTest(at) : ''} at ${formatPlain(line.volts, 'voltage')}; promised ${formatPlain(line.amps, 'current')}.`;
  return { state, sentence, notes: disagreement(voltage.disagree || current.disagree), tests: all };
}

/** One-sided evidence about a line's power: devices, and the socket. */
function boundsOfLine(promise: PromiseOf<'port-line'>, known: Known): ClaimTest[] {
  const watts = promise.volts * promise.amps;
  const limit: Limit = { kind: 'at-least', low: watts * (1 - known.allowance) };
  return known.delivered
    .filter((one) => isAlone(one, promise.port) && (one.evidence === 'device' || one.evidence === 'wall'))
    .filter((one) => {
      const volts = one.asked[0]?.volts ?? 0;
      // Only what ran at the promised level says something about it.
      return volts > 0 && Math.abs(volts - promise.volts) <= 0.06 * promise.volts;
    })
    .flatMap((one) => powerTest(one, limit, known));
}

export function judgePortLine(promise: PromiseOf<'port-line'>, known: Known): Judged {
  const { port, volts, amps } = promise;
  const loaded = judgeLoadedLine({ port, volts, amps }, known);
  if (loaded) return loaded;
  const offer = judgeLineOffer(promise, known);
  const bounds = boundsOfLine(promise, known);
  if (bounds.length > 0) {
    const judged = judgePower(volts * amps, bounds, '', known.allowance);
    return { ...judged, notes: [...judged.notes, ...(offer ? [offer.sentence] : [])] };
  }
  return offer ?? notTested(`No full-load reading of ${port} alone at ${formatPlain(volts, 'voltage')}.`);
}

const disagreement = (disagree: boolean): string[] =>
  disagree ? ['Runs disagree: one proves it, another refutes it. Repeat.'] : [];

function powerSentence(test: ClaimTest, promised: number): string {
  const promise = `promised ${formatPlain(promised, 'power')}`;
  const { kind, interval, conditions } = test.evidence;
  if (test.state === 'at least')
    return `At least ${formatPlain(interval?.low ?? 0, 'power')}; ${promise}. The device took no more (${conditions}).`;
  if (test.value === null) return `${shownTest(test)} by the socket (${conditions}); ${promise}.`;
  const text =
    kind === 'device'
      ? `${shownTest(test)} taken by a device; ${promise}`
      : `${shownTest(test)} at the port; ${promise}`;
  if (test.state === 'cannot be decided') return `${text}.`;
  if (test.state === 'short') {
    return `${text}: short by ${formatValue(promised - (test.value ?? Number.NaN), 'power', decimalsFor(test.expanded))}.`;
  }
  return test.state === 'borderline' ? `${text}: too close to call.` : `${text}.`;
}

function judgePower(promised: number, candidates: readonly ClaimTest[], none: string, allowance: number): Judged {
  if (candidates.length === 0) return notTested(none);
  const { state, disagree } = settle(candidates.map((test) => test.state));
  const tests = decidingFirst(candidates, state);
  const [first] = tests;
  const counted = `A power within ${formatPlain(allowance, 'efficiency')} of the promise counts as reached: the load’s setting tolerance.`;
  return {
    state,
    sentence: first ? powerSentence(first, promised) : none,
    notes: [...disagreement(disagree), counted],
    tests,
  };
}

export function judgeTotal(promise: PromiseOf<'total'>, known: Known): Judged {
  const limit: Limit = { kind: 'at-least', low: promise.watts * (1 - known.allowance) };
  const asked = known.delivered.filter(
    (one) => one.load > 0 && (one.evidence === 'device' || wattsAsked(one) >= limit.low),
  );
  return judgePower(
    promise.watts,
    asked.flatMap((one) => powerTest(one, limit, known)),
    `No full-load reading that asks for ${formatPlain(promise.watts, 'power')}.`,
    known.allowance,
  );
}

/** What a delivery of exactly the promised ports says of one share, W. */
function shareTest(one: Delivered, share: PromisedShare, limit: Limit & { low: number }, known: Known): ClaimTest[] {
  const ports = sharePorts(share);
  const name = ports.join(' + ');
  const conditions = one.asked.length === ports.length ? one.conditions : `${name} of ${one.conditions}`;
  const own = one.outputs.filter(({ port }) => ports.includes(port));
  const together =
    own.length > 0
      ? sum(
          own.map(({ watts }) => watts),
          'rig',
        )
      : null;
  const missing = ports.filter((port) => !own.some((output) => output.port === port));
  if (together && missing.length === 0) {
    const asked = one.asked.filter(({ port }) => ports.includes(port));
    const wattsOf = asked.reduce((total, { volts, amps }) => total + volts * amps, 0);
    // A load that asked for less says nothing about what there would have been.
    if (one.evidence !== 'device' && !one.everything && wattsOf < limit.low) return [];
    return [testOf('power', limit, together, one.evidence, conditions, one.sourceIds, known.rule)];
  }
  const evidence = one.evidence === 'device' ? 'device' : 'wall';
  if (one.rest && one.rest.ports.length === missing.length && missing.every((port) => one.rest?.ports.includes(port))) {
    const part = together ? intervalOf(together) : { low: 0, high: 0 };
    const { low, high, most } = one.rest.bound;
    const bound = { ...one.rest.bound, low: low + part.low, high: high + part.high, most: most + part.high };
    return [boundTest(limit, bound, evidence, conditions, one.sourceIds)];
  }
  // The whole from the socket is an upper bound of any part of it.
  return one.wall && ports.length === one.asked.length ? powerTest({ ...one, evidence }, limit, known) : [];
}

const partOf = (share: PromisedShare, allowance: number): Limit & { low: number } => ({
  kind: 'at-least',
  low: share.watts * (1 - allowance),
});

/** Ports together, each share by itself; a share of several ports by their sum. */
export function judgeCombination(promise: PromiseOf<'combination'>, known: Known): Judged {
  const ports = promise.shares.flatMap(sharePorts);
  const exactly = known.delivered.filter(
    ({ asked, load }) =>
      load > 0 &&
      samePorts(
        asked.map((output) => output.port),
        ports,
      ),
  );
  const together = ports.length === 1 ? `${ports[0]} alone` : `${ports.join(' + ')} together`;
  const none =
    exactly.length > 0
      ? `${together}: read at the socket only, so which port got what is not known. Meter all of them but one.`
      : ports.length === 1
        ? `No full-load reading of ${together}.`
        : `No full-load reading with ${ports.join(' + ')} loaded together.`;
  const perShare = promise.shares.map((share) => {
    const limit = partOf(share, known.allowance);
    const tests = exactly.flatMap((one) => shareTest(one, share, limit, known));
    return { share, judged: judgePower(share.watts, tests, none, known.allowance) };
  });
  const state = worstState(
    perShare.map(({ judged }) => judged.state),
    CLAIM_STATES,
  );
  const worst = perShare.find(({ judged }) => judged.state === state);
  if (!worst) return notTested(none);
  const name = sharePorts(worst.share).join(' + ');
  return {
    state,
    sentence:
      state === 'not tested' || ports.length === 1 ? worst.judged.sentence : `${name}: ${worst.judged.sentence}`,
    notes: [...new Set(perShare.flatMap(({ judged }) => judged.notes))],
    tests: decidingFirst(
      perShare.flatMap(({ judged }) => judged.tests),
      state,
    ),
    parts: perShare.map(({ share, judged }) => ({ port: share.port, state: judged.state })),
  };
}
