// Promises of power: a port's volts and amps, a total, several ports together.
import type { Limit } from '../decision/index.ts';
import type { LoadResult, SeriesResult } from '../efficiency/index.ts';
import { decimalsFor, formatPlain, formatValue } from '../quantity/index.ts';
import { type EvidenceKind, mainsLabel } from '../reading/index.ts';
import type { Measured } from '../uncertainty/index.ts';
import { decidingFirst, type Judged, type Known, notTested, type PromiseOf, shown, testOf } from './claim-test.ts';
import { settle, worstState } from './evidence.ts';
import { levelTolerance } from './tolerance.ts';
import { CLAIM_STATES, type ClaimTest } from './types.ts';

const fullLoads = (series: SeriesResult): readonly LoadResult[] =>
  series.byMains.flatMap(({ loads }) => loads.filter(({ load }) => Math.abs(load - 1) < 1e-6));

const samePorts = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && [...a].sort().join('\n') === [...b].sort().join('\n');

export function judgePortLine(promise: PromiseOf<'port-line'>, known: Known): Judged {
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

export function judgeTotal(promise: PromiseOf<'total'>, known: Known): Judged {
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

export function judgeCombination(promise: PromiseOf<'combination'>, known: Known): Judged {
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
