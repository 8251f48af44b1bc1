// Judges claims by the evidence the stations have gathered.
import { conformity, type DecisionRule, type Limit } from '../decision/index.ts';
import type { LoadResult, SeriesResult } from '../efficiency/index.ts';
import type { IdleResult } from '../idle/index.ts';
import { decimalsFor, formatMeasured, formatPlain, formatValue, type QuantityId } from '../quantity/index.ts';
import { type EvidenceKind, mainsLabel, mainsMatches } from '../reading/index.ts';
import { expandedUncertainty, type Measured } from '../uncertainty/index.ts';
import { describePromise } from './describe.ts';
import { evidenceInterval, settle, stateOf, worstState } from './evidence.ts';
import { levelTolerance } from './tolerance.ts';
import { CLAIM_STATES, type Claim, type ClaimResult, type ClaimState, type ClaimTest, type Promised } from './types.ts';

/** What is known about the sample when its claims are judged. */
export interface Known {
  readonly series: readonly SeriesResult[];
  readonly idle: readonly IdleResult[];
  readonly rule: DecisionRule;
  /** Fraction by which a power or current may miss the promise and still count as set: the load setting tolerance. */
  readonly allowance: number;
}

type Judged = Omit<ClaimResult, 'claimId'>;
type PromiseOf<K extends Promised['kind']> = Extract<Promised, { kind: K }>;

const notTested = (sentence: string): Judged => ({ state: 'not tested', sentence, notes: [], tests: [] });

function testOf(
  quantity: QuantityId,
  limit: Limit,
  result: Measured,
  kind: EvidenceKind,
  conditions: string,
  pointIds: readonly string[],
  rule: DecisionRule,
): ClaimTest {
  const evidence = { kind, interval: evidenceInterval(kind, result, rule), conditions, pointIds };
  return {
    quantity,
    limit,
    value: result.value,
    expanded: expandedUncertainty(result),
    state: stateOf(evidence, limit),
    probability: kind === 'load' ? conformity(result, limit) : null,
    evidence,
  };
}

const shown = (test: ClaimTest): string => formatMeasured(test.value, test.expanded, test.quantity);

/** Tests sorted so that the one that decided stands first. */
const decidingFirst = (tests: readonly ClaimTest[], state: ClaimState): ClaimTest[] =>
  [...tests].sort((a, b) => Number(b.state === state) - Number(a.state === state));

const fullLoads = (series: SeriesResult): readonly LoadResult[] =>
  series.byMains.flatMap(({ loads }) => loads.filter(({ load }) => Math.abs(load - 1) < 1e-6));

const samePorts = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && [...a].sort().join('\n') === [...b].sort().join('\n');

function judgePortLine(promise: PromiseOf<'port-line'>, known: Known): Judged {
  const tests: ClaimTest[] = [];
  const currents: ClaimTest[] = [];
  for (const series of known.series) {
    const [only, ...others] = series.setup.outputs;
    if (!only || others.length > 0 || only.port !== promise.port) continue;
    if (Math.abs(only.volts - promise.volts) > 0.01 * promise.volts) continue;
    if (only.amps < promise.amps * (1 - known.allowance)) continue;
    for (const full of fullLoads(series)) {
      const [output] = full.outputs;
      if (!output) continue;
      const conditions = `${only.port} alone, ${mainsLabel(full.mains)}, 100 % load`;
      const add = (quantity: 'voltage' | 'current', limit: Limit, result: Measured, kind: EvidenceKind) =>
        testOf(quantity, limit, result, kind, conditions, full.pointIds, known.rule);
      // A device limits the current, not the voltage it sees, so the voltage is two-sided either way.
      const voltageKind = series.setup.evidence === 'device' ? 'load' : series.setup.evidence;
      tests.push(add('voltage', levelTolerance(promise.volts), output.volts, voltageKind));
      const needed: Limit = { kind: 'at-least', low: promise.amps * (1 - known.allowance) };
      currents.push(add('current', needed, output.amps, series.setup.evidence));
    }
  }
  if (tests.length === 0)
    return notTested(`No full-load reading of ${promise.port} alone at ${formatPlain(promise.volts, 'voltage')}.`);
  const voltage = settle(tests.map((test) => test.state));
  const current = settle(currents.map((test) => test.state));
  const state = worstState([voltage.state, current.state], CLAIM_STATES);
  const all = decidingFirst([...tests, ...currents], state);
  const band = levelTolerance(promise.volts);
  const at = all.find((test) => test.state === state && test.quantity === 'current') ?? currents[0];
  const volts = all.find((test) => test.quantity === 'voltage') ?? all[0];
  const within = `must stay within ${band.low.toFixed(2)}…${band.high.toFixed(2)} V`;
  const sentence =
    voltage.state === state && volts && at
      ? `${shown(volts)} at ${formatPlain(at.value, 'current')}; ${within}.`
      : `${at ? shown(at) : ''} at ${formatPlain(promise.volts, 'voltage')}; promised ${formatPlain(promise.amps, 'current')}.`;
  return { state, sentence, notes: disagreement(voltage.disagree || current.disagree), tests: all };
}

const disagreement = (disagree: boolean): string[] =>
  disagree ? ['Runs disagree: one proves it, another refutes it. Repeat.'] : [];

function powerSentence(test: ClaimTest, promised: number): string {
  const promise = `promised ${formatPlain(promised, 'power')}`;
  if (test.state === 'at least')
    return `At least ${formatPlain(test.evidence.interval?.low ?? 0, 'power')}; ${promise}. The device took no more.`;
  const text = `${shown(test)} at the port; ${promise}`;
  if (test.state === 'short') {
    return `${text}: short by ${formatValue(promised - test.value, 'power', decimalsFor(test.expanded))}.`;
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

function judgeTotal(promise: PromiseOf<'total'>, known: Known): Judged {
  const limit: Limit = { kind: 'at-least', low: promise.watts * (1 - known.allowance) };
  const tests = known.series
    .filter((series) => series.nameplateWatts >= limit.low)
    .flatMap((series) =>
      fullLoads(series).map((full) =>
        testOf(
          'power',
          limit,
          full.output,
          series.setup.evidence,
          `${series.setup.name}, ${mainsLabel(full.mains)}, 100 % load`,
          full.pointIds,
          known.rule,
        ),
      ),
    );
  return judgePower(
    promise.watts,
    tests,
    `No full-load reading that asks for ${formatPlain(promise.watts, 'power')}.`,
    known.allowance,
  );
}

function judgeCombination(promise: PromiseOf<'combination'>, known: Known): Judged {
  const ports = promise.shares.map((share) => share.port);
  const series = known.series.filter(({ setup }) =>
    samePorts(
      setup.outputs.map((output) => output.port),
      ports,
    ),
  );
  const none = `No full-load reading with ${ports.join(' + ')} loaded together.`;
  const perPort = promise.shares.map((share) => {
    const limit: Limit = { kind: 'at-least', low: share.watts * (1 - known.allowance) };
    const tests = series.flatMap((one) =>
      fullLoads(one).flatMap((full) => {
        const output = full.outputs.find((candidate) => candidate.port === share.port);
        const asked = one.setup.outputs.find((candidate) => candidate.port === share.port);
        if (!output || !asked || asked.volts * asked.amps < limit.low) return [];
        const conditions = `${share.port} of ${one.setup.name}, ${mainsLabel(full.mains)}, 100 % load`;
        return [testOf('power', limit, output.watts, one.setup.evidence, conditions, full.pointIds, known.rule)];
      }),
    );
    return { share, judged: judgePower(share.watts, tests, none, known.allowance) };
  });
  const state = worstState(
    perPort.map(({ judged }) => judged.state),
    CLAIM_STATES,
  );
  const worst = perPort.find(({ judged }) => judged.state === state);
  if (!worst) return notTested(none);
  return {
    state,
    sentence: state === 'not tested' ? worst.judged.sentence : `${worst.share.port}: ${worst.judged.sentence}`,
    notes: [...new Set(perPort.flatMap(({ judged }) => judged.notes))],
    tests: decidingFirst(
      perPort.flatMap(({ judged }) => judged.tests),
      state,
    ),
  };
}

/** A promise that must hold at every mains measured (or the one it names): the worst decides. */
function judgeEverywhere(tests: readonly ClaimTest[], none: string, promised: string): Judged {
  if (tests.length === 0) return notTested(none);
  const state = worstState(
    tests.map((test) => test.state),
    CLAIM_STATES,
  );
  const sorted = decidingFirst(tests, state);
  const [first] = sorted;
  return {
    state,
    sentence: first ? `${shown(first)} (${first.evidence.conditions}); promised ${promised}.` : none,
    notes: [],
    tests: sorted,
  };
}

function judgeEfficiency(promise: PromiseOf<'average-efficiency'>, known: Known): Judged {
  const limit: Limit = { kind: 'at-least', low: promise.ratio };
  const highest = Math.max(0, ...known.series.map((series) => series.nameplateWatts));
  const tests = known.series
    .filter((series) => series.nameplateWatts === highest)
    .flatMap((series) =>
      series.byMains.flatMap(({ mains, average, loads }) => {
        if (!average || (promise.mains && !mainsMatches(mains, promise.mains))) return [];
        const conditions = `${series.setup.name}, ${mainsLabel(mains)}, four-point average`;
        return [
          testOf(
            'efficiency',
            limit,
            average,
            'load',
            conditions,
            loads.flatMap((load) => load.pointIds),
            known.rule,
          ),
        ];
      }),
    );
  return judgeEverywhere(tests, 'No complete four-point average yet.', formatPlain(promise.ratio, 'efficiency'));
}

function judgeIdle(promise: PromiseOf<'idle'>, known: Known): Judged {
  const limit: Limit = { kind: 'at-most', high: promise.watts };
  const tests = known.idle
    .filter((idle) => idle.attached === 'nothing' && (!promise.mains || mainsMatches(idle.mains, promise.mains)))
    .map((idle) => {
      const test = testOf('power', limit, idle.watts, 'load', mainsLabel(idle.mains), idle.pointIds, known.rule);
      if (idle.below === null) return test;
      const interval = { low: Number.NEGATIVE_INFINITY, high: idle.below };
      const evidence = {
        ...test.evidence,
        interval,
        conditions: `${test.evidence.conditions}, below the meter’s ${formatPlain(idle.below, 'power')}`,
      };
      return { ...test, evidence, state: stateOf(evidence, limit), probability: null };
    });
  return judgeEverywhere(
    tests,
    'No idle reading with nothing attached.',
    `at most ${formatPlain(promise.watts, 'power')}`,
  );
}

function judgePromise(promise: Promised, known: Known): Judged {
  switch (promise.kind) {
    case 'port-line':
      return judgePortLine(promise, known);
    case 'total':
      return judgeTotal(promise, known);
    case 'combination':
      return judgeCombination(promise, known);
    case 'average-efficiency':
      return judgeEfficiency(promise, known);
    case 'idle':
      return judgeIdle(promise, known);
    case 'wording':
      return { state: 'undefined', sentence: 'These words promise nothing that can be tested.', notes: [], tests: [] };
  }
}

const holdNote = (claim: Claim, judged: Judged): string[] =>
  claim.duration.kind !== 'unstated' && ['proven', 'borderline'].includes(judged.state)
    ? [
        `How long it holds is not tested; promised ${claim.duration.kind === 'peak' ? `${claim.duration.seconds} s` : 'continuously'}.`,
      ]
    : [];

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
    return { claimId: claim.id, ...judged, notes: [...judged.notes, ...holdNote(claim, judged)] };
  });
  return results.map((result, index) => {
    const promise = claims[index]?.promise;
    if (result.state !== 'not tested' || promise?.kind !== 'port-line') return result;
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
