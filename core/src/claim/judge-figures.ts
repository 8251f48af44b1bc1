// Promises of a figure that must hold at every mains: average efficiency and idle.

import type { Limit } from '../decision/index.ts';
import {
  CLAIM_STATES,
  type ClaimTest,
  decidingFirst,
  shownTest,
  stateOf,
  testOf,
  worstState,
} from '../evidence/index.ts';
import { drawWords, idleInterval } from '../idle/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { mainsLabel, mainsMatches } from '../reading/index.ts';
import { type Judged, type Known, notTested, type PromiseOf } from './known.ts';

/** How far a value is inside its limit, SI; the smaller, the harder the test. */
function marginOf({ limit, value, evidence: { interval } }: ClaimTest): number {
  const low =
    (value ?? interval?.low ?? Number.NaN) - (limit.kind === 'at-most' ? Number.NEGATIVE_INFINITY : limit.low);
  const high =
    (limit.kind === 'at-least' ? Number.POSITIVE_INFINITY : limit.high) - (value ?? interval?.high ?? Number.NaN);
  return Math.min(low, high);
}

/** A promise that must hold at every mains measured (or the one it names): the worst decides. */
function judgeEverywhere(tests: readonly ClaimTest[], none: string, promised: string): Judged {
  if (tests.length === 0) return notTested(none);
  const state = worstState(
    tests.map((test) => test.state),
    CLAIM_STATES,
  );
  const sorted = decidingFirst(
    [...tests].sort((a, b) => marginOf(a) - marginOf(b)),
    state,
  );
  const [first] = sorted;
  return {
    state,
    sentence: first ? `${shownTest(first)} (${first.evidence.conditions}); promised ${promised}.` : none,
    notes: [],
    tests: sorted,
  };
}

export function judgeEfficiency(promise: PromiseOf<'average-efficiency'>, known: Known): Judged {
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

export function judgeIdle(promise: PromiseOf<'idle'>, known: Known): Judged {
  const limit: Limit = { kind: 'at-most', high: promise.watts };
  const tests = known.idle
    .filter((idle) => idle.attached === 'nothing' && (!promise.mains || mainsMatches(idle.mains, promise.mains)))
    .map((idle) => {
      const test = testOf('power', limit, idle.watts, 'load', mainsLabel(idle.mains), idle.pointIds, known.rule);
      if (idle.below === null) return test;
      const evidence = {
        ...test.evidence,
        interval: idleInterval(idle),
        conditions: `${test.evidence.conditions}, under the meter’s floor`,
      };
      return {
        ...test,
        value: null,
        words: drawWords(idle),
        evidence,
        state: stateOf(evidence, limit),
        probability: null,
      };
    });
  return judgeEverywhere(
    tests,
    'No idle reading with nothing attached.',
    `at most ${formatPlain(promise.watts, 'power')}`,
  );
}

/** Ripple must stay below at every port, level, load and mains measured: the worst decides. */
export function judgeRipple(promise: PromiseOf<'ripple'>, known: Known): Judged {
  const limit: Limit = { kind: 'at-most', high: promise.volts };
  const tests = known.ripple
    .filter(({ mains }) => !promise.mains || mainsMatches(mains, promise.mains))
    .map(({ measured, conditions, captureId }) =>
      testOf('voltage', limit, measured, 'load', conditions, [captureId], known.rule),
    );
  return judgeEverywhere(tests, 'No record of ripple yet.', `at most ${formatPlain(promise.volts, 'voltage', 'mV')}`);
}

const KELVIN = 273.15;

/** The hottest spot every soak leads to, over 25 °C. */
export function judgeSurface(promise: PromiseOf<'surface'>, known: Known): Judged {
  const limit: Limit = { kind: 'at-most', high: promise.celsius + KELVIN };
  const tests = known.soaks.flatMap(({ at25, hottest, conditions, captureId }): ClaimTest[] => {
    if (!at25 || !hottest) return [];
    const [low, high] = at25.interval;
    const interval = {
      low: low === null ? Number.NEGATIVE_INFINITY : low + KELVIN,
      high: high === null ? Number.POSITIVE_INFINITY : high + KELVIN,
    };
    const evidence = {
      kind: 'load' as const,
      interval,
      conditions: `${hottest.name}, ${conditions}`,
      pointIds: [captureId],
    };
    return [
      {
        quantity: 'temperature',
        limit,
        value: null,
        words: `${at25.steady.toFixed(1)} °C (${low?.toFixed(1) ?? '?'} to ${high?.toFixed(1) ?? '?'} °C)`,
        expanded: Number.POSITIVE_INFINITY,
        unstated: [],
        state: stateOf(evidence, limit),
        probability: null,
        evidence,
      },
    ];
  });
  return judgeEverywhere(tests, 'No soak that tells where it leads yet.', `at most ${promise.celsius} °C`);
}
