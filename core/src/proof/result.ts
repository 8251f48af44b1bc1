// Everything Proof concludes about a sample.

import type { Interval } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import type { ClaimState, Delivered } from '../evidence/index.ts';
import { mostWatts, voltsOf } from '../pd/index.ts';
import type { Claim } from '../promise/index.ts';
import { bestReadOut, offersOf, type ReadOut } from '../read-out/index.ts';
import type { Instrument, Point, Rig, Setup } from '../reading/index.ts';
import {
  currentRuns,
  type Device,
  type DeviceRun,
  holdsOfSoaks,
  type MoveRun,
  type OverRun,
  type Run,
  type SoakOfHold,
} from '../run/index.ts';
import { proofSteps } from '../steps/steps.ts';
import { type Again, isStress, proofAgain } from './again.ts';
import { type Chain, reconcile } from './chain.ts';
import { deliveredByDevice, deliveredByEfficiency, deliveredByPoints } from './delivered.ts';
import { type DeviceSummary, deviceSummary } from './devices.ts';
import {
  acrossLoadings,
  type HoldCause,
  type HoldSummary,
  holdSummaries,
  moveSentence,
  type OverSummary,
  overSummary,
} from './holds.ts';
import { judgeSteps, type ProofRules, type Regulation, regulations, type StepResult } from './judge.ts';

export interface MoveSummary {
  readonly run: MoveRun;
  readonly state: ClaimState;
  readonly sentence: string;
}

export interface ProofResult {
  readonly steps: readonly StepResult[];
  readonly regulation: readonly Regulation[];
  /** One per rig used. */
  readonly chains: readonly Chain[];
  readonly holds: readonly HoldSummary[];
  /** What holds of different loadings tell together. */
  readonly causes: readonly HoldCause[];
  readonly moves: readonly MoveSummary[];
  readonly overs: readonly OverSummary[];
  readonly devices: readonly DeviceSummary[];
  readonly again: Again | null;
  /** All evidence about power in one form, for the claims. */
  readonly delivered: readonly Delivered[];
}

export interface ProofInput {
  readonly ports: readonly string[];
  readonly claims: readonly Pick<Claim, 'promise'>[];
  readonly readOuts: readonly ReadOut[];
  readonly setups: readonly Setup[];
  readonly points: readonly Point[];
  readonly runs: readonly Run[];
  readonly devices: readonly Device[];
  /** Soaks among them count as holds; left out for none. */
  readonly captures?: readonly SoakOfHold[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly series: readonly SeriesResult[];
  readonly rules: ProofRules;
  /** The efficiency assumed where none was measured; left out takes the usual. */
  readonly assumed?: Interval | undefined;
}

/** Judge everything about what a sample really delivers. */
export function proofResult(input: ProofInput): ProofResult {
  const { ports, claims, readOuts, setups, points, rigs, series, rules } = input;
  const runs = currentRuns(input.runs);
  const proofSetups = setups.filter(({ purpose }) => purpose === 'proof');
  const proofs = new Set<string | null>(proofSetups.map(({ id }) => id));
  const proofPoints = points.filter(({ setupId }) => proofs.has(setupId));
  const used = rigs.filter(({ id }) => proofPoints.some(({ rigId }) => rigId === id));
  const chains = used.map((rig) => reconcile(rig, proofSetups, proofPoints, input.instruments));
  const stresses = runs.filter(isStress).map(({ takenAt }) => takenAt);
  const byLoad = [
    ...deliveredByEfficiency(series, stresses),
    ...deliveredByPoints(proofSetups, proofPoints, rigs, chains, series, stresses, input.assumed),
  ];
  const holds = holdSummaries([...runs, ...holdsOfSoaks(input.captures ?? [])]);
  const deviceRuns = runs.filter((run): run is DeviceRun => run.kind === 'device');
  const deviceOf = ({ deviceId }: DeviceRun) => input.devices.find(({ id }) => id === deviceId) ?? null;
  /** Levels a port says or promises to have; null when nothing tells. */
  const offeredAt = ({ port }: DeviceRun) => {
    const best = bestReadOut(readOuts, port);
    const offers = best ? offersOf(best).flatMap(({ object }) => voltsOf(object) ?? []) : [];
    return offers.length > 0 ? offers : null;
  };
  const mostAt = ({ port }: DeviceRun) => {
    const best = bestReadOut(readOuts, port);
    const offers = best ? offersOf(best).map(({ object }) => mostWatts(object)) : [];
    return offers.length > 0 ? Math.max(...offers) : null;
  };
  const byDevice = deviceRuns.map((run) => deliveredByDevice(run, deviceOf(run) ?? undefined, input));
  const steps = judgeSteps(
    proofSteps(
      ports,
      claims,
      readOuts,
      proofSetups.map(({ outputs }) => outputs),
    ),
    byLoad,
    rules,
  );
  return {
    steps,
    regulation: regulations(byLoad),
    chains,
    holds,
    causes: acrossLoadings(holds),
    moves: runs
      .filter((run): run is MoveRun => run.kind === 'move')
      .map((run) => ({ run, state: run.breaks > 0 ? 'short' : 'proven', sentence: moveSentence(run) })),
    overs: runs.filter((run): run is OverRun => run.kind === 'over').map(overSummary),
    devices: deviceRuns.map((run, index) =>
      deviceSummary(run, deviceOf(run), byDevice[index]?.wall ?? null, offeredAt(run), mostAt(run)),
    ),
    again: proofAgain(steps, runs),
    delivered: [...byLoad, ...byDevice],
  };
}
