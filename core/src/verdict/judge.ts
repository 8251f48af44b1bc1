// From everything known about a sample to everything concluded: the one calculation behind screen, sheet and shelf.

import { type ClaimResult, judgeClaims } from '../claim/index.ts';
import { efficiencySeries, LOAD_POINTS, type SeriesResult } from '../efficiency/index.ts';
import { CLAIM_STATES, type ClaimState, worstState } from '../evidence/index.ts';
import { drawWords, type IdleResult, idleResults } from '../idle/index.ts';
import type { LimitLine } from '../limits/index.ts';
import { type ProofResult, proofResult } from '../proof/index.ts';
import { formatMeasured } from '../quantity/index.ts';
import { currentReadOuts, type PortFinding, readOutFindings } from '../read-out/index.ts';
import { mainsLabel, specFor, suppliesFor, withAccuracies } from '../reading/index.ts';
import { currentRuns, type HoldRun } from '../run/index.ts';
import { expandedUncertainty, isStated, type Measured, specAt } from '../uncertainty/index.ts';
import { chosenSets, limitsOfIdle, limitsOfSetups } from './limits.ts';
import { splitResult } from './splits.ts';
import type { Dossier, KeyFigure, KeyFigures, PriceFacts, StationState, Verdict } from './types.ts';
import { FIGURES_FORM } from './types.ts';

/** Nameplate output power: the promised total, else the largest loading, W. Null when neither is known. */
export function nameplateOf(dossier: Dossier, series: readonly SeriesResult[]): number | null {
  const totals = dossier.claims.flatMap(({ promise }) => (promise.kind === 'total' ? [promise.watts] : []));
  const lines = dossier.claims.flatMap(({ promise }) =>
    promise.kind === 'port-line' ? [promise.volts * promise.amps] : [],
  );
  const together = dossier.claims.flatMap(({ promise }) =>
    promise.kind === 'combination' ? [promise.shares.reduce((sum, { watts }) => sum + watts, 0)] : [],
  );
  const printed = [...lines, ...together];
  for (const known of [totals, printed, series.map((one) => one.nameplateWatts)]) {
    if (known.length > 0) return Math.max(...known);
  }
  return null;
}

/** The figure at the mains where it is worst, with that mains. */
function worseOf<T>(items: readonly T[], value: (item: T) => number): T | undefined {
  return items.reduce<T | undefined>(
    (worst, item) => (worst === undefined || value(item) < value(worst) ? item : worst),
    undefined,
  );
}

const PRICE_ORDER: readonly PriceFacts['kind'][] = ['paid', 'street', 'discounted', 'list'];

function newestPrice(prices: readonly PriceFacts[]): PriceFacts | undefined {
  for (const kind of PRICE_ORDER) {
    const newest = prices.filter((price) => price.kind === kind).sort((a, b) => b.date.localeCompare(a.date))[0];
    if (newest) return newest;
  }
  return undefined;
}

/** Expanded uncertainty for the shelf; null while it is not known. */
const knownExpanded = (of: Measured): number | null => (isStated(of) ? expandedUncertainty(of) : null);

function keyFigures(
  dossier: Dossier,
  series: readonly SeriesResult[],
  idle: readonly IdleResult[],
  claims: readonly ClaimResult[],
): KeyFigures {
  const watts = nameplateOf(dossier, series);
  const main = worseOf(
    series.filter((one) => one.byMains.some(({ average }) => average)),
    (one) => -one.nameplateWatts,
  );
  const averages = (main?.byMains ?? []).flatMap(({ mains, average }) => (average ? [{ mains, average }] : []));
  const worst = worseOf(averages, ({ average }) => average.value);
  const efficiency: KeyFigure | null =
    worst && main
      ? {
          value: worst.average.value,
          expanded: knownExpanded(worst.average),
          words: formatMeasured(worst.average.value, expandedUncertainty(worst.average), 'efficiency'),
          condition: `${main.setup.name}, ${mainsLabel(worst.mains)}`,
        }
      : null;
  const draw = worseOf(
    idle.filter(({ attached }) => attached === 'nothing'),
    (one) => -one.watts.value,
  );
  const price = newestPrice(dossier.sample.prices);
  const counts: Partial<Record<ClaimState, number>> = {};
  for (const { state } of claims) counts[state] = (counts[state] ?? 0) + 1;
  return {
    form: FIGURES_FORM,
    watts,
    efficiency,
    idle: draw
      ? {
          value: draw.below ?? draw.watts.value,
          expanded: knownExpanded(draw.watts),
          words: drawWords(draw),
          condition: mainsLabel(draw.mains),
          below: draw.below !== null,
        }
      : null,
    massPerWatt: watts && dossier.sample.mass ? dossier.sample.mass / watts : null,
    pricePerWatt: watts && price ? { value: price.amount / watts, currency: price.currency, basis: price.kind } : null,
    claims: counts,
  };
}

/** States that call for attention at the spine; the rest is normal progress. */
const worstOf = (states: readonly ClaimState[]): ClaimState | null =>
  states.length > 0 ? worstState(states, CLAIM_STATES) : null;

const lineStates = (lines: readonly LimitLine[]): ClaimState[] => lines.map(({ decision }) => decision.outcome);

function readOutState({ sample, readOuts }: Dossier, findings: readonly PortFinding[]): StationState {
  const ports = sample.ports.filter(({ label }) => currentReadOuts(readOuts).some(({ port }) => port === label));
  const worst = findings.some(({ kind }) => kind === 'unreachable')
    ? 'unreachable'
    : findings.some(({ grade }) => grade === 'fault')
      ? 'short'
      : null;
  return { id: 'read-out', done: ports.length, total: Math.max(1, sample.ports.length), worst };
}

function proofState({ steps, again, moves }: ProofResult, claimed: readonly ClaimState[]): StationState {
  const lines = again?.lines ?? [];
  const read = steps.filter(({ delivered }) => delivered.length > 0);
  const done = read.length + lines.filter((line) => line.done).length;
  const states = [...read, ...lines.filter((line) => line.done), ...moves].map(({ state }) => state);
  return {
    id: 'proof',
    done,
    total: Math.max(1, steps.length + lines.length),
    worst: done > 0 ? worstOf([...states, ...claimed]) : null,
  };
}

function stationStates(dossier: Dossier, verdict: Omit<Verdict, 'stations'>): StationState[] {
  const { sample, claims, profile } = dossier;
  const intake = [sample.ports.length > 0, sample.mass !== null, sample.prices.length > 0];
  const supplies = suppliesFor(sample.kind, profile.mains).map(mainsLabel);
  const loadsDone = verdict.series
    .flatMap(({ byMains }) => byMains.filter(({ mains }) => supplies.includes(mainsLabel(mains))))
    .flatMap(({ loads }) => loads.filter(({ load }) => LOAD_POINTS.includes(load))).length;
  const loadings = verdict.series.length;
  const loadedPoints = LOAD_POINTS.length - 1;
  const mainsCount = supplies.length;
  const idleNothing = verdict.idle.filter(({ attached }) => attached === 'nothing');
  const judged = verdict.claims.filter(({ state }) => state !== 'not tested').length;
  const statesFor = (kinds: readonly string[]): ClaimState[] =>
    verdict.claims.flatMap((result, index) =>
      kinds.includes(claims[index]?.promise.kind ?? '') && result.state !== 'not tested' ? [result.state] : [],
    );
  return [
    { id: 'intake', done: intake.filter(Boolean).length, total: intake.length, worst: null },
    { id: 'claims', done: claims.length, total: Math.max(claims.length, 1), worst: null },
    readOutState(dossier, verdict.readOutFindings),
    proofState(verdict.proof, statesFor(['port-line', 'range', 'total'])),
    {
      id: 'splits',
      done: verdict.splits.sweep.sets.length - verdict.splits.left.length,
      total: verdict.splits.sweep.sets.length,
      worst: worstOf(statesFor(['combination'])),
    },
    {
      id: 'idle',
      done: Math.min(idleNothing.length, mainsCount),
      total: mainsCount,
      worst: worstOf([
        ...statesFor(['idle']),
        ...lineStates(verdict.idleLimits.filter(({ standing }) => standing === 'verdict')),
      ]),
    },
    {
      id: 'efficiency',
      done: loadsDone,
      total: Math.max(1, loadings) * mainsCount * loadedPoints,
      worst: worstOf([
        ...statesFor(['average-efficiency']),
        ...verdict.limits.flatMap(({ lines }) => lineStates(lines.filter(({ standing }) => standing === 'verdict'))),
      ]),
    },
    {
      id: 'verdict',
      done: judged,
      total: Math.max(claims.length, 1),
      worst: worstOf(verdict.claims.map(({ state }) => state)),
    },
  ];
}

/** Judge a sample: pure, and the same in browser and server. */
export function judgeSample(known: Dossier): Verdict {
  const dossier = { ...known, points: withAccuracies(known.points, known.rigs, known.instruments) };
  const forEfficiency = dossier.setups.filter(({ purpose }) => purpose === 'efficiency');
  const series = forEfficiency.map((setup) => efficiencySeries(setup, dossier.points, dossier.rigs));
  const floorOf = (rigId: string) => {
    const rig = dossier.rigs.find(({ id }) => id === rigId);
    const spec = rig && specFor('power', 'mains', rig, dossier.instruments);
    // Idle is read in the finest range.
    return spec ? specAt(spec, 0).floor : 0;
  };
  // A step of a proof without load has something attached and negotiated: it is no idle draw.
  const proofs = new Set(dossier.setups.filter(({ purpose }) => purpose === 'proof').map(({ id }) => id));
  const unloaded = dossier.points.filter(({ setupId }) => setupId === null || !proofs.has(setupId));
  const idle = idleResults(unloaded, floorOf);
  const sets = chosenSets(dossier);
  const limits = limitsOfSetups(dossier, series, sets);
  const watts = nameplateOf(dossier, series);
  const twins = dossier.sample.ports.flatMap(({ label, twin }) => (twin ? [{ port: label, twin }] : []));
  const seesOf = (instrumentId: string) => dossier.instruments.find(({ id }) => id === instrumentId)?.sees ?? null;
  const nameOf = (instrumentId: string) => dossier.instruments.find(({ id }) => id === instrumentId)?.name ?? null;
  const findings = readOutFindings(dossier.readOuts, { ports: dossier.sample.ports, claims: dossier.claims, seesOf });
  const { rule, allowance, tolerance, continuous } = dossier.profile;
  const { readOuts } = dossier;
  const proof = proofResult({
    ...dossier,
    ports: dossier.sample.ports.map(({ label }) => label),
    series,
    rules: { rule, allowance, tolerance },
    assumed: dossier.profile.assumedEfficiency,
  });
  const holds = currentRuns(dossier.runs).filter((run): run is HoldRun => run.kind === 'hold');
  const { delivered } = proof;
  const claims = judgeClaims(
    dossier.claims,
    { series, idle, rule, allowance, tolerance, delivered, holds, continuous, readOuts, seesOf, nameOf },
    twins,
  );
  const concluded = {
    series,
    idle,
    limits,
    idleLimits: limitsOfIdle(dossier, idle, watts, sets),
    readOutFindings: findings,
    proof,
    splits: splitResult(dossier, series, claims),
    claims,
    figures: keyFigures(dossier, series, idle, claims),
  };
  return { ...concluded, stations: stationStates(dossier, concluded) };
}
